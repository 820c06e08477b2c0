import { readFile, rm } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { ownersPassword, project, startMachine } from './machine.js';
import { bringIn, codeField, csvFile, enterDemo, expectAccessible, saved } from './steps.js';

const rows = Array.from({ length: 12 }, (_, i) => `${i},the boats are late ${i},${i % 2},0,0,0`);
const sheet = csvFile('boats.csv', `id,Why?,Late,Dear,Cold,Full\n${rows.join('\n')}\n`);

/** Saves a copy on the page of the study that is open. */
async function saveCopy(page: Page) {
  await page.getByRole('link', { name: 'Study', exact: true }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save a copy (ZIP)' }).click(),
  ]);
  return { name: file.suggestedFilename(), buffer: await readFile(await file.path()) };
}
const asFile = (buffer: Buffer) => ({ name: 'copy.zip', mimeType: 'application/zip', buffer });

test('a study is saved as a file and opened as another, with the same figures', async ({
  page,
}) => {
  await enterDemo(page);
  await bringIn(page, 'Taken along', sheet);
  const { name, buffer } = await saveCopy(page);
  expect(name).toMatch(/^taken-along_study_.*\.zip$/);

  await page.goto('/studies');
  await page.getByRole('button', { name: 'Open a copy of a study …' }).click();
  const file = page.getByLabel('File of a saved study');
  await file.setInputFiles(csvFile('no-copy.zip', 'id\n1\n'));
  await expect(page.getByRole('alert')).toContainText('cannot be opened');
  await expectAccessible(page);
  await file.setInputFiles(asFile(buffer));
  await page.getByRole('link', { name: /^Report\b/ }).click();
  await expect(page.getByRole('button', { name: /^Late, Total: 50%, 6 of 12/ })).toBeVisible();
  await page.goto('/studies');
  await expect(page.getByRole('link', { name: /^Taken along/ })).toHaveCount(2);
});

test('a copy is worked on at another machine, and what was coded there is merged', async ({
  page,
  browser,
}) => {
  test.setTimeout(420_000);
  const dataFolder = `${project}.test/elsewhere`;
  await rm(dataFolder, { recursive: true, force: true });
  await enterDemo(page);
  await bringIn(
    page,
    'Shared out',
    csvFile('shared.csv', 'id,Why?\n1,late boats\n2,dear\n3,wet seats\n4,late again\n'),
  );
  /** Codes and settles an answer by its words. */
  const code = async (at: Page, words: string, name: string) => {
    await at.getByLabel('containing').first().fill(words);
    await expect(at.getByRole('status').filter({ hasText: /^1 answer/ })).toBeVisible();
    await codeField(at).focus();
    await at.keyboard.type(name);
    await at.keyboard.press('Shift+Enter');
    await at.keyboard.press('Enter');
    await saved(at);
  };
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await code(page, 'late boats', 'Time');
  const { buffer } = await saveCopy(page);

  const port = Number(process.env['TEST_PORT'] ?? 4319) + 3;
  const machine = await startMachine(dataFolder, port);
  const context = await browser.newContext({ baseURL: machine.address });
  const there = await context.newPage();
  await there.goto('/');
  await there.getByLabel('Name').fill('owner');
  await there.getByLabel('Password').fill(ownersPassword(machine));
  await there.getByRole('button', { name: 'Sign in' }).click();
  await there.getByLabel('New password').fill('a ferry in the fog');
  await there.keyboard.press('Enter');
  await there.getByRole('button', { name: 'Open a copy of a study …' }).click();
  await there.getByLabel('File of a saved study').setInputFiles(asFile(buffer));
  await there.getByRole('link', { name: /^Code\b/ }).click();
  await expect(there.getByRole('feed').getByText('Time')).toBeVisible();
  await code(there, 'dear', 'Price');
  await code(there, 'wet seats', 'Comfort');
  const theirs = await saveCopy(there);
  await context.close();
  await machine.stop();

  // meanwhile one of the answers was coded here, too
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await code(page, 'wet seats', 'Weather');
  await page.getByRole('link', { name: 'Study', exact: true }).click();
  await page.getByLabel('Saved copy to merge').setInputFiles(asFile(theirs.buffer));
  const summary = page.getByRole('status').filter({ hasText: 'The copy of “Shared out”' });
  await expect(summary).toContainText('1 answer settled there is settled here, too.');
  await expect(summary).toContainText('New codes: Price and Comfort.');
  await expect(summary).toContainText('1 answer to “Why?” was settled in both, by owner there');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Merge it' }).click();
  await expect(summary).toContainText('is merged');
  await page.getByRole('link', { name: 'See where they differ' }).click();
  await page.getByRole('listitem').filter({ hasText: 'owner' }).getByRole('link').first().click();
  await expect(page.getByText('wet seats')).toBeVisible();
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await page.getByLabel('containing').first().fill('dear');
  await expect(page.getByRole('feed').getByText('Price')).toBeVisible();
  // undo takes all of it back
  await page.getByRole('heading', { name: 'Why?' }).or(page.getByText('Why?').first()).click();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('feed').getByText('Price')).toHaveCount(0);
});
