import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';
import { productOf } from './product.js';
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
  await passage.hover();
  await expect(first.locator('[data-label]')).toHaveClass(/bg-wash/);
  // what can be done at a line is found by the pointer too
  await passage.click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Mark or unmark as unsure' }).click();
  await expect(first).toContainText('· unsure');
  await label.click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Pin as an example' }).click();
  await expect(first).toContainText('typical');
});

test('a letter typed in the ledger never vanishes, wherever the focus went', async ({ page }) => {
  const first = page.getByRole('article').first();
  const typed = async (letter: string) => {
    await page.keyboard.press(letter);
    await expect(codeField(page)).toHaveValue(letter);
    await page.keyboard.press('Escape');
    await expect(codeField(page)).toHaveValue('');
  };
  // words that are marked already are dragged, and dropped nowhere
  await first.getByText('So are the steps at low tide.').dblclick({ position: { x: 8, y: 8 } });
  const marked = (await first.getByText('So', { exact: true }).first().boundingBox())!;
  await page.mouse.move(marked.x + 4, marked.y + 8);
  await page.mouse.down();
  await page.mouse.move(marked.x + 300, marked.y + 90, { steps: 4 });
  await page.mouse.up();
  await typed('a');
  // a drag that ends beyond the line
  const line = (await first.getByText('The fares are mad.').boundingBox())!;
  await page.mouse.move(line.x + 2, line.y + 8);
  await page.mouse.down();
  await page.mouse.move(line.x + 700, line.y + 8, { steps: 4 });
  await page.mouse.up();
  await typed('b');
  await first.getByRole('button', { name: /^a · / }).dblclick();
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await typed('c');
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press('PageDown');
  await expect(page.getByRole('article').nth(1)).toHaveAttribute('aria-current', 'true');
  await typed('d');
});

test('a passage spans lines, by pointer and by keys that move both of its ends', async ({
  page,
}) => {
  const first = page.getByRole('article').first();
  const from = (await first.getByText('The fares are mad.').boundingBox())!;
  const to = (await first.getByText('So are the steps at low tide.').boundingBox())!;
  await page.mouse.move(from.x + 1, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x + to.width - 1, to.y + to.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect(first).toContainText('on “The fares are mad. So are');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+ArrowRight');
  for (let n = 0; n < 6; n++) await page.keyboard.press('Shift+ArrowRight');
  await expect(first).toContainText('on “The fares are mad. So are the”');
  for (let n = 0; n < 2; n++) await page.keyboard.press('Alt+Shift+ArrowRight');
  await expect(first).toContainText('on “are mad. So are the”');
  await page.keyboard.type('Steps');
  await page.keyboard.press('Enter');
  await saved(page);
  await page.reload();
  for (const part of ['are mad.', 'So are the'])
    await expect(first.getByText(part, { exact: true })).toHaveCSS('background-image', /svg/);
  // it stands at its first line, once
  await expect(first.getByText('Steps', { exact: true })).toHaveCount(1);
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
  // the same code at the same place would say the same thing twice
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.type('Price');
  await page.keyboard.press('Enter');
  await expect(page.getByText('The code is already there.')).toBeVisible();
  await expect(first.getByText('Price', { exact: true })).toHaveCount(1);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Backspace');
  await expect(first.getByText('Price', { exact: true })).toHaveCount(0);
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undid: removing “Price”')).toBeVisible();
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

test('what the server refuses is said, and not shown as if it were kept', async ({ page }) => {
  const problem = { code: 'changed_meanwhile', sentence: 'Somebody was faster.' };
  await page.route('**/mentions', (route) => route.fulfill({ status: 409, json: problem }));
  await page.keyboard.type('Price');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Not saved: Somebody was faster.')).toBeVisible();
  await expect(page.getByRole('article').first().getByText('Price', { exact: true })).toHaveCount(
    0,
  );
  await expect(page.getByText('not saved', { exact: true })).toBeVisible();
});

test('while the server does not answer one goes on; all of it is sent when it does', async ({
  page,
}) => {
  const first = page.getByRole('article').first();
  // first in trouble, then away
  let asked = 0;
  const trouble = { code: 'unexpected', sentence: 'Something went wrong.' };
  await page.route('**/api/**', (route) =>
    (asked += 1) === 1 ? route.fulfill({ status: 500, json: trouble }) : route.abort(),
  );
  await page.keyboard.type('Price');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^no connection: 2 changes wait$/)).toBeVisible();
  await expect(first.getByText('Price', { exact: true })).toBeVisible();
  await page.unroute('**/api/**');
  await saved(page);
  await page.reload();
  await expect(first.getByText('Price', { exact: true })).toBeVisible();
  await expect(page.getByText('1 settled of 2 answered')).toBeVisible();
});

test('eight tabs of one browser work side by side and hear of each other', async ({ page }) => {
  const address = page.url();
  const tabs = [page];
  // seven more: of connections to one server a browser opens six
  for (let n = 0; n < 7; n++) {
    const tab = await page.context().newPage();
    await tab.goto(address);
    await expect(tab.getByRole('article').first()).toBeVisible();
    tabs.push(tab);
  }
  await tabs[7]!.keyboard.type('Price');
  await tabs[7]!.keyboard.press('Enter');
  for (const tab of tabs)
    await expect(
      tab.getByRole('article').first().getByText('Price', { exact: true }),
    ).toBeVisible();
  // the one that holds the stream is closed: another takes it over
  await page.close();
  await tabs[1]!.keyboard.type('Room');
  await tabs[1]!.keyboard.press('Enter');
  for (const tab of tabs.slice(1))
    await expect(tab.getByRole('article').first().getByText('Room', { exact: true })).toBeVisible();
  await tabs[7]!.goto('/studies');
  await expect(tabs[7]!.getByRole('heading', { name: 'Studies' })).toBeVisible();
});

/** Has the product's PostgreSQL break down and start again, as it does when one of its processes is killed. */
function breakDatabase(): void {
  const url = execFileSync(
    'bash',
    [fileURLToPath(new URL('../scripts/pg.sh', import.meta.url)), 'url'],
    {
      env: { ...process.env, PG_FOLDER: `${productOf(0).dataFolder}/postgres` },
      encoding: 'utf8',
    },
  ).trim();
  const backend = `select pid from pg_stat_activity
    where backend_type = 'client backend' and pid <> pg_backend_pid() limit 1`;
  process.kill(Number(execFileSync('psql', [url, '-Atqc', backend])), 'SIGKILL');
}

test('while the database starts again one goes on; nothing of it is lost', async ({ page }) => {
  const first = page.getByRole('article').first();
  await page.keyboard.type('Price');
  breakDatabase();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await expect(first.getByText('Price', { exact: true })).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(first.getByText('Price', { exact: true })).toBeVisible();
  await expect(page.getByText('1 settled of 2 answered')).toBeVisible();
});

test('a page that is left before it could save sends what is left when it comes back', async ({
  page,
}) => {
  // the first attempt comes to nothing before the page is left, and nothing of it comes back
  let attempts = 0;
  await page.route('**/mentions', (route) =>
    (attempts += 1) === 1 ? new Promise(() => undefined) : route.continue(),
  );
  await page.keyboard.type('Price');
  await page.keyboard.press('Enter');
  await expect(page.getByText('saving …')).toBeVisible();
  await page.reload();
  await expect(page.getByText(/^What was not saved when the page was left/)).toBeVisible();
  await expect(page.getByRole('article').first().getByText('Price', { exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('article').first().getByText('Price', { exact: true })).toHaveCount(
    1,
  );
});

test('two who code the same answer see each other’s codes, and both are kept', async ({
  page,
  context,
}) => {
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(codeField(other)).toBeFocused();
  await Promise.all([
    page.keyboard.type('Price').then(() => page.keyboard.press('Enter')),
    other.keyboard.type('Steps').then(() => other.keyboard.press('Enter')),
  ]);
  for (const one of [page, other])
    for (const code of ['Price', 'Steps'])
      await expect(one.getByRole('article').first().getByText(code, { exact: true })).toBeVisible();
});

test('a code is dragged onto a line, and marked words onto a code', async ({ page }) => {
  await page.keyboard.type('Steps');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Backspace');
  const first = page.getByRole('article').first();
  await page.getByRole('button', { name: 'Codes' }).click();
  const inDrawer = page.getByRole('dialog').getByRole('listitem').filter({ hasText: 'Steps' });
  await inDrawer.dragTo(first.getByText('So are the steps'), { sourcePosition: { x: 4, y: 8 } });
  await expect(first.getByText('Steps', { exact: true })).toHaveCount(1);
  await first.getByText('The fares are mad.').dblclick({ position: { x: 8, y: 8 } });
  await first.locator('[draggable]', { hasText: /^The$/ }).dragTo(inDrawer);
  await expect(first.getByText('Steps', { exact: true })).toHaveCount(2);
  await saved(page);
});

test('notes, marks, doubt, lines, examples and exchanges, all by keyboard', async ({ page }) => {
  const first = page.getByRole('article').first();
  const notes = first.getByRole('list', { name: 'Notes' });
  const mark = async (words: number) => {
    for (let n = 0; n < words; n++) await page.keyboard.press('Shift+ArrowRight');
  };
  await mark(2);
  await page.keyboard.press('Alt+m');
  await expect(notes).toContainText('on “The fares”');
  await page.keyboard.type('Price / Fares');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Alt+e');
  await expect(first).toContainText('typical');
  await page.keyboard.press('Alt+n');
  await page.keyboard.type('See [[Fares]]');
  await page.keyboard.press('Enter');
  await expect(notes.getByRole('link', { name: 'Fares' })).toBeVisible();
  await page.keyboard.press('Alt+u');
  await expect(first).toContainText('· unsure');
  // the line is split, joined again, and its code exchanged and moved
  await page.keyboard.press('ArrowDown');
  await mark(4);
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(first).toContainText('on “So are the”');
  await page.keyboard.press('Alt+j');
  await expect(first).toContainText('on this line');
  await page.keyboard.press('Alt+x');
  await page.keyboard.type('Money');
  await page.keyboard.press('Shift+Enter');
  await expect(first.getByText('Money', { exact: true })).toBeVisible();
  await expect(first.getByText('Fares', { exact: true })).toHaveCount(1);
  await mark(1);
  await page.keyboard.press('Alt+p');
  await expect(first.getByText('The', { exact: true })).toHaveCSS('background-image', /svg/);
  await page.keyboard.press('Alt+r');
  const respondent = page.getByRole('dialog', { name: 'a' });
  await expect(respondent).toContainText('What would you change?');
  await respondent.getByLabel('A note on this respondent').fill('Knows the island');
  await respondent.getByRole('button', { name: 'Add the note' }).click();
  await expect(respondent.getByText('Knows the island')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Notes', exact: true }).click();
  await expect(page.getByText('4 notes')).toBeVisible();
  await page.getByLabel('Which', { exact: true }).selectOption('unsure');
  await expect(page.getByText('1 note', { exact: true })).toBeVisible();
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
  await page.getByRole('link', { name: 'Codebook', exact: true }).click();
  await expect(page.getByLabel('Include')).toBeVisible();
  const other = await context.newPage();
  await other.goto(page.url());
  await page.getByLabel('Include').fill('fares');
  await other.getByLabel('Include').fill('tickets');
  await page.getByLabel('Exclude').click();
  await saved(page);
  // reported at once, and what was written here is kept; leaving the field saves it deliberately
  await expect(other.getByText('Somebody changed this in the meantime to “fares”')).toBeVisible();
  await expect(other.getByLabel('Include')).toHaveValue('tickets');
  await other.getByLabel('Exclude').click();
  await expect(page.getByLabel('Include')).toHaveValue('tickets');
});
