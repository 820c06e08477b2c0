import { readFile } from 'node:fs/promises';
import { expect, test, type Locator } from '@playwright/test';
import { demoFile } from './product.js';
import { acceptAbove, bringIn, codeField, enterDemo, saved } from './steps.js';

test('from a sheet to a report: import, code ten answers by keyboard, train, settle a line, read and download', async ({
  page,
}) => {
  await enterDemo(page);
  await bringIn(page, 'The whole job', demoFile('brindle-sound.xlsx'));
  await expect(
    page.getByText('450 respondents, 3 open questions, 9 background variables, weighted.'),
  ).toBeVisible();
  await expect(page.getByRole('row', { name: /most improve your crossings/ })).toContainText('441');

  // ten answers about cars, by keyboard alone
  await page.keyboard.press('Control+k');
  await page.keyboard.type('improve');
  await page.keyboard.press('Enter');
  await expect(codeField(page)).toBeFocused();
  await page.goto(`${page.url()}?words=car`);
  await expect(codeField(page)).toBeFocused();
  await page.keyboard.type('Room for cars');
  await page.keyboard.press('Enter'); // a new name makes the code and applies it
  await expect(page.getByRole('article').first()).toContainText('Room for cars');
  await page.keyboard.press('Enter'); // settles, and goes on
  for (let n = 1; n < 7; n++) {
    await page.keyboard.type('room');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
  }
  for (let n = 7; n < 10; n++) await page.keyboard.press('Control+Enter'); // nothing applies
  await expect(page.getByText('10 settled of 441 answered')).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByText('10 settled of 441 answered')).toBeVisible();
  await expect(page.getByText('Room for cars')).toHaveCount(7);
  await expect(page.getByText('· nothing applies')).toHaveCount(3);

  await page.getByRole('link', { name: /^Train\b/ }).click();
  await expect(page.getByText('1 code has enough settled examples.')).toBeVisible();
  await page.getByRole('button', { name: 'Train', exact: true }).click();
  await expect(page.getByRole('row', { name: /Room for cars/ })).toContainText('little evidence');
  await page.getByRole('button', { name: 'Room for cars' }).click();
  await expect(page.getByRole('dialog')).toContainText('Words for it');
  await page.getByRole('dialog').getByRole('button', { name: 'Close the drawer' }).click();

  // the line of the one code: the figures follow it, then either side is settled
  await page.getByRole('link', { name: /^Review\b/ }).click();
  const line = page.getByRole('slider', { name: 'The line' });
  const accept = page.getByRole('button', { name: /^Accept \d+ above$/ });
  const refuse = page.getByRole('button', { name: /^Refuse \d+ below$/ });
  const numberOn = async (button: Locator) =>
    Number(/\d+/.exec((await button.textContent()) ?? '')![0]);
  await line.focus();
  await page.keyboard.press('End');
  await expect(accept).toBeDisabled();
  const all = await numberOn(refuse);
  expect(all).toBeGreaterThan(100);
  let accepted = 0;
  while (accepted === 0) {
    await page.keyboard.press('ArrowDown');
    accepted = await numberOn(accept);
    expect(accepted + (await numberOn(refuse))).toBe(all);
  }
  await acceptAbove(page);
  await expect(page.getByText(`${accepted} accepted (${accepted} in bulk)`)).toBeVisible();
  await page.getByRole('button', { name: `Refuse ${all - accepted} below` }).click();
  await expect(page.getByText(`${all - accepted} refused`)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/^Undid: refusing \d+ suggestions of “Room for cars”/)).toBeVisible();
  await page.keyboard.press('Control+Shift+z');
  await expect(page.getByText(/^Redid: refusing/)).toBeVisible();
  await expect(page.getByText(/Every suggestion is decided/)).toBeVisible();
  // its only code is decided for everybody, and the question is finished
  await expect(page.getByText('441 settled of 441 answered')).toBeVisible();

  // the report by home island: every number with its base, opening the words behind it
  await page.getByRole('link', { name: /^Report\b/ }).click();
  await page.getByLabel('Across').selectOption('Home');
  const total = page.getByRole('button', { name: /^Room for cars, Total:/ });
  await expect(total).toContainText(`${7 + accepted} of 441`);
  await expect(page.getByRole('columnheader', { name: /^Tye/ })).toBeVisible();
  await total.click();
  const drawer = page.getByRole('dialog', { name: 'Room for cars: Total' });
  await expect(drawer).toContainText(`${7 + accepted} people`);
  await expect(drawer.getByRole('listitem').first()).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(drawer).toBeHidden();

  await page.getByRole('button', { name: 'Files' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: /^CSV/ }).click(),
  ]);
  const lines = (await readFile(await download.path(), 'utf8')).slice(1).split('\r\n');
  expect(lines[0]).toBe('Study,The whole job');
  expect(lines.find((one) => one.startsWith('code,,Room for cars'))).toContain(
    `,${7 + accepted},441,`,
  );
});
