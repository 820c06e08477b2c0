import { expect, test, type Page } from '@playwright/test';
import { beginWith, bringIn, csvFile, enterDemo, saved } from './steps.js';

const summary = (page: Page) => page.getByRole('complementary', { name: 'What will be imported' });
const bringInButton = (page: Page) => page.getByRole('button', { name: 'Import', exact: true });
const upload = (page: Page, file: ReturnType<typeof csvFile>) =>
  page.locator('input[type=file]').setInputFiles(file);
const seeIt = (page: Page) => page.getByRole('button', { name: 'See what was imported' }).click();

test.beforeEach(({ page }) => enterDemo(page));

test('a wrong file is told in a sentence; another one is chosen in its place', async ({ page }) => {
  await beginWith(page, 'Wrong file', {
    name: 'photo.xlsx',
    mimeType: 'image/png',
    buffer: Buffer.from([0x89, 0x50, 0, 1]),
  });
  await expect(page.getByRole('alert')).toContainText(
    '“photo.xlsx” is neither a text file nor a workbook',
  );
  await page.getByRole('button', { name: 'Choose another file' }).click();
  await expect(page.getByText('Import a sheet')).toBeVisible();
  await expect(page.getByText('photo.xlsx')).toHaveCount(0);
});

test('what is decided changes what will be imported; a reload loses nothing', async ({ page }) => {
  const rows = [
    'A survey;;;',
    'nr;age;home;comment',
    '1;34;Tye;the fares are mad',
    '2;old;tye;more boats at night',
    '3;51;Tye;nothing',
    '4;50;Tye;I cannot say',
    '4;52;Hask;the crew is kind to me',
  ];
  await beginWith(page, 'Deciding', csvFile('a.csv', `${rows.join('\n')}\n`));
  await expect(page.getByLabel('header in row')).toHaveValue('2');
  await expect(page.getByLabel('separated by')).toHaveValue(';');

  await page.getByLabel('Role of age').selectOption('background: number');
  await expect(summary(page)).toContainText('“age” is not a number here');
  await expect(summary(page)).toContainText('Row 4');

  await page.getByLabel('Role of nr').selectOption('respondent id');
  await expect(bringInButton(page)).toBeDisabled();
  await page.getByLabel('Repeated ids:').selectOption('keep the last row');
  await expect(summary(page)).toContainText('respondents4');

  await expect(summary(page)).toContainText('“tye” as “Tye”');
  await page.getByRole('button', { name: 'Keep them apart' }).click();
  await expect(summary(page)).toContainText('They stay apart.');

  await page.getByRole('group', { name: 'comment' }).getByLabel('nothing').check();
  await expect(summary(page)).toContainText('3 answers, 1 without');
  await page.reload();
  await expect(page.getByLabel('Repeated ids:')).toHaveValue('last');
  await expect(page.getByRole('button', { name: 'Join them' })).toBeVisible();

  for (const name of ['age', 'home']) await page.getByLabel(`Choose ${name}`).check();
  await page.getByLabel('The 2 chosen columns:').selectOption('exclude');
  await expect(summary(page)).toContainText('background variables0');
  await bringInButton(page).click();
  await seeIt(page);
  await expect(page.getByRole('link', { name: '4 respondents' })).toBeVisible();
});

test('a range of columns is chosen with Shift, and a role is dragged down to others', async ({
  page,
}) => {
  const names = ['id', 'seen', 'kept', 'left', 'comment'];
  const rows = Array.from({ length: 6 }, (_, i) => `${i},3,4,5,the crew is kind to me ${i}`);
  await beginWith(page, 'Ranges', csvFile('a.csv', `${[names.join(','), ...rows].join('\n')}\n`));
  const role = (name: string) => page.getByLabel(`Role of ${name}`);
  await page.getByLabel('Choose seen').check();
  await page.getByLabel('Choose left').click({ modifiers: ['Shift'] });
  await page.getByLabel('The 3 chosen columns:').selectOption('exclude');
  for (const name of ['seen', 'kept', 'left']) await expect(role(name)).toHaveValue('leave_out');

  await role('seen').selectOption('background: category');
  const corner = page.getByTitle('Drag to give other columns the role of seen');
  await corner.hover();
  await page.mouse.down();
  await role('kept').hover();
  await page.mouse.up();
  await expect(role('kept')).toHaveValue('category');
  await expect(role('left')).toHaveValue('leave_out');
});

test('letters that can be read in several ways are chosen by words, by keyboard', async ({
  page,
}) => {
  // Mac Roman (Apple, Inside Macintosh: Text): ç is 8D, ê 90, ï 95
  const bytes = Buffer.from('id;Why?\r1;gar\x8don\r2;for\x90t na\x95ve\r', 'latin1');
  await beginWith(page, 'Letters', { name: 'mac.csv', mimeType: 'text/csv', buffer: bytes });
  const right = page.getByRole('radio', { name: /garçon · forêt · naïve/ });
  await expect(right).not.toBeChecked();
  await right.focus();
  await page.keyboard.press('Space');
  await expect(right).toBeChecked();
  await expect(page.getByRole('row', { name: /Why/ })).toContainText('garçon');
});

test('dates that can be read in two ways are read as one says, by keyboard', async ({ page }) => {
  const rows = ['R1,3/9/2026 14:05,"45,000"', 'R2,4/11/2026,"8,500"'].map(
    (row) => `${row},it is close to the harbour`,
  );
  await beginWith(page, 'Two ways', csvFile('a.csv', `id,came,pay,Why?\n${rows.join('\n')}\n`));
  const stored = page.getByRole('region', { name: 'Rows as they will be stored' });
  await expect(stored).toContainText('came: 2026-09-03 · pay: 45000');
  await expect(summary(page)).toContainText('“came” has times of day');
  const reason = page.getByText('all values are dates, read with the day first');
  await expect(reason).toBeVisible();
  await page.getByLabel('How came is written').focus();
  await page.keyboard.type('the month');
  await expect(stored).toContainText('came: 2026-03-09 · pay: 45000');
  await expect(reason).toHaveCount(0);
});

test('more about respondents is matched by id, nothing silently, and can be undone', async ({
  page,
}) => {
  await bringIn(
    page,
    'Details',
    csvFile('a.csv', 'id,Why?\nR1,the fares are mad\nR2,more boats at night\n'),
  );
  await upload(page, csvFile('more.csv', 'id,home\nR1,Tye\nr2,Hask\nR9,Tye\n'));
  await expect(page.getByLabel('more about existing respondents')).toBeChecked();
  await expect(summary(page)).toContainText('ids the study does not have2');
  await page.getByRole('button', { name: 'r2 is R2' }).click();
  await expect(summary(page)).toContainText('ids the study does not have1');
  await bringInButton(page).click();
  await seeIt(page);
  await page.getByRole('link', { name: 'Respondents', exact: true }).click();
  const row = page.getByRole('row').filter({ hasText: 'R2' });
  await expect(row).toContainText('Hask');

  await page.getByRole('link', { name: /^Import/ }).click();
  await page.getByRole('button', { name: 'Undo the import of more.csv' }).click();
  await expect(page.getByRole('alertdialog')).toContainText('the variable “home”');
  await page.getByRole('button', { name: 'Undo the import' }).click();
  await expect(page.getByText('undone by')).toBeVisible();
  await page.getByRole('link', { name: 'Respondents', exact: true }).click();
  await expect(row).not.toContainText('Hask');
});

test('a coded sheet with probes is carried on: codes stand beside lines, probes are dimmed', async ({
  page,
}) => {
  await beginWith(
    page,
    'Carried on',
    csvFile(
      'a.csv',
      'id,Why?,Fares\n1,"[pause] The fares are mad. INT: anything else?",1\n2,more boats at night please,0\n',
    ),
  );
  await page.getByLabel('Role of Fares').selectOption('existing codes');
  await page.getByText('Interviewer’s words inside answers').click();
  await page.getByLabel('[ ]').check();
  await expect(summary(page)).toContainText('mentions of them1');
  await expect(summary(page)).toContainText('2 settled');
  await bringInButton(page).click();
  await seeIt(page);
  await page.getByRole('link', { name: /^Code\b/ }).click();
  const answer = page.getByRole('article').first();
  await expect(answer).toContainText('from the sheet');
  await expect(answer.getByText('[pause]', { exact: true })).toHaveClass(/text-soft/);
  await page.getByRole('link', { name: /^Report\b/ }).click();
  await page.getByRole('button', { name: /^Fares, Total/ }).click();
  const behind = page.getByRole('dialog').getByText('[pause]', { exact: true });
  await expect(behind).toHaveClass(/text-soft/);
});

test('respondents: a value is changed by keyboard, a category joined, a number banded, all undone', async ({
  page,
}) => {
  const rows = ['R1,Tye,3', 'R2,Old Tye,7', 'R3,Hask,9'].map(
    (row) => `${row},it is like this here`,
  );
  await bringIn(page, 'Background', csvFile('a.csv', `id,home,score,Why?\n${rows.join('\n')}\n`));
  await page.getByRole('link', { name: 'Respondents', exact: true }).click();
  const grid = page.getByRole('grid');
  await expect(grid.getByRole('rowheader')).toHaveText(['R1', 'R2', 'R3']);
  await grid.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  // it is shown before the server has answered
  let letGo = () => {};
  const held = new Promise<void>((resolve) => (letGo = resolve));
  await page.route(/\/respondents\/\d+$/, async (route) => {
    await held;
    await route.continue();
  });
  await page.getByLabel('home of R2').fill('Lorn');
  await page.keyboard.press('Enter');
  await expect(grid.getByText('Lorn')).toBeVisible();
  letGo();
  await saved(page);
  await expect(grid).toBeFocused();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/^Undid: /)).toBeVisible();
  await expect(grid.getByRole('gridcell', { name: 'Old Tye' })).toBeVisible();

  await page.getByRole('button', { name: 'About home' }).click();
  await page.getByLabel('Name of Old Tye').fill('Tye');
  await page.keyboard.press('Enter');
  await expect(page.getByText('joined; in the sheet “Old Tye”')).toBeVisible();
  await expect(grid.getByRole('gridcell', { name: 'Tye', exact: true })).toHaveCount(2);

  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'About score' }).click();
  await page.getByLabel('Bands begin at').fill('0, 7, 9');
  await page.getByRole('button', { name: 'Make the variable' }).click();
  await expect(grid.getByRole('columnheader', { name: /score, banded/ })).toBeVisible();
  await expect(grid.getByRole('gridcell', { name: '0–6' })).toBeVisible();
});

test('100,000 respondents are imported through the browser, and the table scrolls to the last of them', async ({
  page,
}) => {
  test.setTimeout(180_000);
  const line = (i: number) => `R${i},${['Tye', 'Hask'][i % 2]},the boat was late ${i} times again`;
  const text = `id,home,Why?\n${Array.from({ length: 100_000 }, (_, i) => line(i)).join('\n')}\n`;
  await page.getByLabel('Name').fill('A hundred thousand');
  await page.getByRole('button', { name: 'Create study' }).click();
  await page.locator('input[type=file]').setInputFiles(csvFile('large.csv', text));
  await bringInButton(page).click({ timeout: 60_000 });
  await page.getByRole('button', { name: 'See what was imported' }).click({ timeout: 60_000 });
  await page.getByRole('link', { name: '100,000 respondents' }).click();
  const grid = page.getByRole('grid');
  await expect(grid.getByRole('rowheader', { name: 'R0', exact: true })).toBeVisible();
  await grid.focus();
  await page.keyboard.press('End');
  await expect(grid.getByRole('rowheader', { name: 'R99999' })).toBeVisible();
  await page.getByLabel('Find').fill('R4242');
  await expect(page.getByRole('status').filter({ hasText: '11 of 100,000' })).toBeVisible();
  // every other one of them, and so six of the eleven
  await page.getByLabel('Filter by').selectOption('home');
  await page.getByRole('button', { name: 'Tye', exact: true }).click();
  await expect(page.getByRole('status').filter({ hasText: '6 of 100,000' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('status').filter({ hasText: '50,000 of 100,000' })).toBeVisible();
  await page.getByRole('button', { name: 'Remove the filter on home' }).click();
  await expect(page.getByRole('status').filter({ hasText: '100,000 respondents' })).toBeVisible();
});

test('an import is walked by keyboard, from choosing the file to reading what came in', async ({
  page,
}) => {
  // asked for first: the browser takes a moment until it leaves choosers to the test
  const chooser = page.waitForEvent('filechooser');
  await page.getByLabel('Name').fill('By keyboard');
  await page.keyboard.press('Enter');
  const choose = page.getByRole('button', { name: 'Choose a file' });
  await choose.focus();
  await page.keyboard.press('Enter');
  await (
    await chooser
  ).setFiles(csvFile('keys.csv', 'id,home,Why?\n1,Tye,more boats please\n2,Hask,n/a\n'));
  const role = page.getByLabel('Role of home');
  await role.focus();
  await page.keyboard.type('excl');
  await expect(role).toHaveValue('leave_out');
  await expect(summary(page)).toContainText('background variables0');
  await expect(bringInButton(page)).toBeEnabled();
  await bringInButton(page).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'See what was imported' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: '2 respondents' })).toBeVisible();
});

for (const width of [1024, 1920])
  test(`two hundred columns and long names fit a window ${width} wide`, async ({ page }) => {
    await page.setViewportSize({ width, height: 800 });
    const names = Array.from({ length: 200 }, (_, c) => `A rather long name of a column ${c}`);
    const row = (r: number) =>
      names.map((_, c) => (c === 3 ? `the boat was late ${r} times again` : r * c));
    const rows = [names, row(1), row(2), row(3)].map((cells) => cells.join(';'));
    await beginWith(page, `Wide ${width}`, csvFile('wide.csv', rows.join('\n')));
    await expect(summary(page)).toContainText('3 answers, 0 without');
    const overflow = () =>
      page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(await overflow()).toBeLessThanOrEqual(0);
    await bringInButton(page).click();
    await seeIt(page);
    await page.getByRole('link', { name: 'Respondents', exact: true }).click();
    const grid = page.getByRole('grid');
    // one is the answers, one the id
    await expect(grid.getByRole('columnheader')).toHaveCount(199);
    expect(await overflow()).toBeLessThanOrEqual(0);
  });
