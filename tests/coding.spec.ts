import { expect, test } from '@playwright/test';
import { bringIn, codeField, enterDemo, saved } from './steps.js';

const sheet = {
  name: 'three.csv',
  mimeType: 'text/csv',
  buffer: Buffer.from(
    'id,home,What would you change?\n' +
      'a,Tye,The fares are mad. So are the steps at low tide.\n' +
      'b,Hask,"<b onclick=alert(1)>more</b> boats"\n' +
      'c,Tye,n/a\n',
  ),
};

test.beforeEach(async ({ page }) => {
  page.on('dialog', () => {
    throw new Error('Markup from a sheet was run.');
  });
  await enterDemo(page);
  await bringIn(page, `Coding ${test.info().title}`, sheet);
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await expect(codeField(page)).toBeFocused();
});

test('a passage marked by the pointer is stitched and tied to its code in the row of its line', async ({
  page,
}) => {
  const first = page.getByRole('article').first();
  await first.getByText('So are the steps at low tide.').dblclick({ position: { x: 8, y: 8 } });
  await expect(first).toContainText('on “So”');
  await page.keyboard.type('Steps');
  await page.keyboard.press('Enter');
  const passage = first.getByText('So', { exact: true });
  await expect(passage).toHaveCSS('background-image', /svg/);
  const label = first.getByText('Steps', { exact: true });
  const [passageBox, labelBox] = [(await passage.boundingBox())!, (await label.boundingBox())!];
  expect(Math.abs(passageBox.y - labelBox.y)).toBeLessThan(8);
  await expect(first.locator('svg path[stroke]').last()).toHaveAttribute('d', /^M/);
  await label.hover();
  await expect(passage).toHaveClass(/bg-wash/);
});

test('words are marked by keyboard; backspace takes a code away; undo names what it undid', async ({
  page,
}) => {
  const first = page.getByRole('article').first();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(first).toContainText('on “The fares”');
  await page.keyboard.type('Price');
  await page.keyboard.press('Enter');
  await expect(first.getByText('Price', { exact: true })).toBeVisible();
  await page.keyboard.press('Backspace');
  await expect(first.getByText('Price', { exact: true })).toHaveCount(0);
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undid: taking “Price” away')).toBeVisible();
  await expect(first.getByText('Price', { exact: true })).toBeVisible();
  await page.keyboard.press('ArrowLeft');
  await expect(first).toContainText('on the whole answer');
});

test('an answer is settled and opened again, by key and by its knot', async ({ page }) => {
  const first = page.getByRole('article').first();
  await page.keyboard.press('Control+Enter');
  await expect(first).toContainText('nothing applies');
  await expect(page.getByText('1 settled of 2 answered')).toBeVisible();
  await page.keyboard.press('PageUp');
  await page.keyboard.press('Delete');
  await expect(first).not.toContainText('nothing applies');
  await first.getByRole('button', { name: 'Open: settle it' }).click();
  await expect(first.getByRole('button', { name: 'Settled: open it again' })).toBeVisible();
  await expect(page.getByText('1 settled of 2 answered')).toBeVisible();
});

test('markup in an answer is shown as the text that it is; what says nothing stands apart', async ({
  page,
}) => {
  await expect(page.getByText('<b onclick=alert(1)>more</b> boats')).toBeVisible();
  await expect(page.getByText('2 answers', { exact: true })).toBeVisible();
  await page.getByLabel('Which answers').selectOption('no answer');
  await expect(page.getByText('n/a')).toBeVisible();
});

test('what could not be saved is said, and not shown as if it were', async ({ page }) => {
  await page.route('**/mentions', (route) => route.abort());
  await page.keyboard.type('Price');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^Not saved: The server does not answer/)).toBeVisible();
  await expect(page.getByRole('article').first().getByText('Price', { exact: true })).toHaveCount(
    0,
  );
  await expect(page.getByText('not saved', { exact: true })).toBeVisible();
});

test('a browser that believes itself offline still reaches the server beside it', async ({
  page,
}) => {
  await page.evaluate(() => window.dispatchEvent(new Event('offline')));
  await page.keyboard.type('Price');
  await page.keyboard.press('Enter');
  await saved(page);
  await page.getByRole('link', { name: 'Respondents', exact: true }).click();
  await expect(page.getByRole('rowheader')).toHaveCount(3);
});

test('two tabs never overwrite each other unseen', async ({ page, context }) => {
  await page.keyboard.type('Price');
  await page.keyboard.press('Enter');
  await saved(page);
  await page.getByRole('link', { name: 'Codebook' }).click();
  await expect(page.getByLabel('Include')).toBeVisible();
  const other = await context.newPage();
  await other.goto(page.url());
  await page.getByLabel('Include').fill('fares');
  await other.getByLabel('Include').fill('tickets');
  await page.getByLabel('Leave out').click();
  await saved(page);
  await other.getByLabel('Leave out').click();
  await expect(other.getByText(/^Not saved: Somebody changed this in the meantime/)).toBeVisible();
  await expect(other.getByText('to “fares”')).toBeVisible();
  await expect(other.getByLabel('Include')).toHaveValue('tickets');
});
