import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { bringIn, csvFile, enterDemo, expectAccessible } from './steps.js';

const rows = Array.from({ length: 12 }, (_, i) => `${i},the boats are late ${i},${i % 2},0,0,0`);
const sheet = csvFile('boats.csv', `id,Why?,Late,Dear,Cold,Full\n${rows.join('\n')}\n`);

test('a study is saved as a file and opened as another, with the same figures', async ({
  page,
}) => {
  await enterDemo(page);
  await bringIn(page, 'Taken along', sheet);
  await page.getByRole('link', { name: 'Study', exact: true }).click();
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save a copy (ZIP)' }).click(),
  ]);
  expect(saved.suggestedFilename()).toMatch(/^taken-along_study_.*\.zip$/);
  const buffer = await readFile(await saved.path());

  await page.goto('/studies');
  await page.getByRole('button', { name: 'Open a copy of a study …' }).click();
  const file = page.getByLabel('File of a saved study');
  await file.setInputFiles(csvFile('no-copy.zip', 'id\n1\n'));
  await expect(page.getByRole('alert')).toContainText('cannot be opened');
  await expectAccessible(page);
  await file.setInputFiles({ name: 'copy.zip', mimeType: 'application/zip', buffer });
  await page.getByRole('link', { name: /^Report\b/ }).click();
  await expect(page.getByRole('button', { name: /^Late, Total: 50%, 6 of 12/ })).toBeVisible();
  await page.goto('/studies');
  await expect(page.getByRole('link', { name: /^Taken along/ })).toHaveCount(2);
});
