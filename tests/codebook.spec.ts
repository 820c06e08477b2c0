import { expect, test, type Page } from '@playwright/test';
import { bringIn, codeField, csvFile, enterDemo, saved } from './steps.js';

const said = ['late boat', 'fares too high', 'kind crew', 'steep steps', 'no boat at night'];
const rows = Array.from(
  { length: 24 },
  (_, i) => `${i},${['Tye', 'Hask'][i % 2]},${said[i % 5]} ${i}`,
);
const sheet = csvFile('many.csv', `id,home,What would you change?\n${rows.join('\n')}\n`);
const code = (page: Page, name: string) =>
  page.getByRole('region', { name: 'Themes and codes' }).getByRole('button', { name });

test.beforeEach(async ({ page }) => {
  await enterDemo(page);
  await bringIn(page, `Codebook ${test.info().title}`, sheet);
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await expect(codeField(page)).toBeFocused();
});

test('twenty short answers are coded and settled by three keys each, and nothing is lost', async ({
  page,
}) => {
  for (const [key, name] of ['Boats', 'Price', 'Crew', 'Access', 'Night'].entries()) {
    await page.keyboard.type(`Service / ${name}`);
    await page.keyboard.press('Enter');
    await page.keyboard.press('Backspace');
    await page.keyboard.type(name);
    await page.keyboard.press(`Alt+${key + 1}`);
    await expect(page.getByRole('list', { name: 'Pinned codes' })).toContainText(name);
  }
  for (let n = 0; n < 20; n++) {
    await page.keyboard.press(String((n % 5) + 1));
    await page.keyboard.press('Enter');
  }
  await saved(page);
  await expect(page.getByText('20 settled of 24 answered')).toBeVisible();
  await page.reload();
  await expect(page.getByText('20 settled of 24 answered')).toBeVisible();
  await expect(page.getByRole('article').nth(2).getByText('Crew', { exact: true })).toBeVisible();
});

test('the filter stands in the address: codes, background, words, order', async ({ page }) => {
  const total = page.getByRole('status').filter({ hasText: /^\d+ answers?\b/ });
  await page.keyboard.type('Boats');
  await page.keyboard.press('Enter');
  await saved(page);
  await page.getByRole('button', { name: 'Filter' }).click();
  await page.getByLabel('Code to filter by').fill('boa');
  await page.keyboard.press('Enter');
  await expect(total).toHaveText('1 answer');
  await page.getByRole('button', { name: 'Remove the filter' }).click();
  await page.getByLabel('Codes', { exact: true }).selectOption('not coded with');
  await page.getByLabel('Code to filter by').fill('boa');
  await page.keyboard.press('Enter');
  await page.getByLabel('Background').selectOption('home');
  await page.getByLabel('Value').selectOption('Tye');
  await expect(total).toHaveText('11 answers');
  await page.getByLabel('Answers containing').fill('boats');
  await page.getByLabel('How words are found').selectOption('any form of the words');
  await page.getByLabel('Order', { exact: true }).selectOption('longest first');
  await expect(total).toHaveText('4 answers');
  await page.reload();
  await expect(total).toHaveText('4 answers');
  await expect(page.getByText('not with Boats')).toBeVisible();
  await expect(page.getByText('home: Tye')).toBeVisible();
});

test('every hit of a word is coded at once, but those that were removed; one undo undoes all', async ({
  page,
}) => {
  await page.getByLabel('Answers containing').fill('boat');
  await page.getByRole('button', { name: 'Code every one …' }).click();
  const drawer = page.getByRole('dialog');
  await expect(drawer).toContainText('9 places in 9 answers');
  await drawer.getByRole('checkbox').first().uncheck();
  await drawer.getByLabel('Code for all ticked').fill('Boats');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Coded 8 places.')).toBeVisible();
  await expect(page.getByRole('article').nth(1)).toContainText('by words');
  await expect(page.getByRole('article').first()).not.toContainText('Boats');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undid: coding “Boats” 8 times by a search for words')).toBeVisible();
});

test('codes are merged with their numbers told first, moved by key, and their history is kept', async ({
  page,
}) => {
  for (const name of ['Late', 'Dear', 'Costly']) {
    await page.keyboard.type(name);
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
  }
  await saved(page);
  await page.getByRole('link', { name: 'Codebook', exact: true }).click();
  await code(page, 'Costly').click();
  await page.getByLabel('Merge into').fill('dear');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 mention by 1 person move to “Dear”')).toBeVisible();
  await page.getByRole('button', { name: 'Merge into “Dear”' }).click();
  await expect(code(page, 'Costly')).toHaveCount(0);
  await expect(code(page, 'Dear')).toContainText('2 people · 2 mentions');
  await code(page, 'Dear').focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect(page.locator('[data-code]').first()).toContainText('Dear');
  await page.getByRole('link', { name: 'What was changed, when and by whom' }).click();
  await expect(
    page.getByRole('listitem').filter({ hasText: 'the moving of “Dear”' }),
  ).toBeVisible();
  await expect(page.getByText('the merge of “Costly” into “Dear”')).toBeVisible();
  await page.getByRole('button', { name: 'Undo my last' }).click();
  await page.getByRole('button', { name: 'Undo my last' }).click();
  await expect(page.getByText('Undid: the merge of “Costly” into “Dear”')).toBeVisible();
});

test('boxes are ticked as fast as one can, however long the server takes', async ({ page }) => {
  const many = rows
    .map((row, i) => `${row},no ${said[i % 5]} ${i},my ${said[i % 5]} ${i}`)
    .join('\n');
  const head = 'id,home,What would you change?,What did you like?,What else?';
  await bringIn(page, 'Three questions', csvFile('three.csv', `${head}\n${many}\n`));
  await page.getByRole('link', { name: 'Codebook', exact: true }).click();
  await page.getByLabel('Name of a new code or theme').fill('Late');
  await page.keyboard.press('Enter');
  await code(page, 'Late').click();
  let answer = () => {};
  const answered = new Promise<void>((resolve) => (answer = resolve));
  await page.route('**/codes/*', async (route) => {
    await answered;
    await route.continue();
  });
  const boxes = page.getByRole('group', { name: 'Offered while coding' }).getByRole('checkbox');
  for (const n of [1, 2]) {
    await boxes.nth(n).click();
    await expect(boxes.nth(n)).not.toBeChecked();
  }
  answer();
  await saved(page);
  await page.reload();
  await code(page, 'Late').click();
  await expect(boxes.nth(0)).toBeChecked();
  for (const n of [1, 2]) await expect(boxes.nth(n)).not.toBeChecked();
});

test('a name that is refused stays in its field, to be corrected', async ({ page }) => {
  for (const name of ['Late', 'Dear']) {
    await page.keyboard.type(name);
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
  }
  await saved(page);
  await page.getByRole('link', { name: 'Codebook', exact: true }).click();
  await code(page, 'Late').click();
  const name = page.getByRole('textbox', { name: 'Name', exact: true });
  await name.fill('Dear');
  await page.keyboard.press('Tab');
  await expect(page.getByText(/^Not saved: /u)).toBeVisible();
  await expect(name).toHaveValue('Dear');
  await name.fill('Too late');
  await page.keyboard.press('Tab');
  await expect(code(page, 'Too late')).toBeVisible();
  await expect(code(page, 'Dear')).toHaveCount(1);
});

test('a theme is sorted into new codes: mentions on piles by key, kept over a reload, piles become codes', async ({
  page,
}) => {
  await page.keyboard.type('Service / Said');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  for (let n = 0; n < 5; n++) {
    await page.keyboard.type('Said');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
  }
  await saved(page);
  await page.getByRole('link', { name: 'Codebook', exact: true }).click();
  await page.getByRole('button', { name: 'More about Service' }).click();
  await page.getByRole('menuitem', { name: /Sort its 6 mentions into new codes/ }).click();
  for (const name of ['Boats', 'Rest']) {
    await page.getByLabel('Name of a new pile').fill(name);
    await page.keyboard.press('Enter');
  }
  const mentions = page.getByRole('region', { name: 'Mentions' }).getByRole('button');
  await expect(mentions).toHaveCount(6);
  await page.getByRole('button', { name: 'Mention of 0', exact: true }).focus();
  await page.keyboard.press('1');
  await expect(mentions).toHaveCount(5);
  await page.reload();
  await expect(page.getByRole('article', { name: 'Pile Boats' })).toContainText('1 mention');
  await mentions.first().focus();
  for (let n = 0; n < 4; n++) await page.keyboard.press('2');
  await expect(page.getByText('1 mention of 6 still to be sorted')).toBeVisible();
  await page.getByRole('button', { name: 'Make these codes from 5 mentions' }).click();
  await expect(code(page, 'Rest')).toContainText('4 people · 4 mentions');
  await expect(code(page, 'Said')).toContainText('1 person · 1 mention');
});

test('a code list is imported after it was shown; a sample is drawn and coded', async ({
  page,
}) => {
  await page.getByRole('link', { name: 'Codebook', exact: true }).click();
  await page
    .locator('input[type=file]')
    .setInputFiles(
      csvFile('list.csv', 'theme,code,definition\nPrice,Fares,What it costs\n,Crew,\n'),
    );
  await expect(page.getByRole('dialog')).toContainText('2 new codes, 1 new theme');
  await page.getByRole('dialog').getByRole('button', { name: 'Import' }).click();
  await expect(code(page, 'Fares')).toBeVisible();
  const file = page.waitForEvent('download');
  await page.getByRole('link', { name: 'DOCX' }).click();
  expect((await file).suggestedFilename()).toMatch(/_codebook_\d{4}-\d{2}-\d{2}\.docx$/);
  await page
    .getByRole('link', { name: /^Code\b/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Sample …' }).click();
  await page.getByLabel('How many').fill('4');
  await page.getByRole('button', { name: 'Draw 4 answers and code them' }).click();
  await expect(page.getByText('4 answers · sample: 0 of 4 settled')).toBeVisible();
});
