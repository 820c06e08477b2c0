import { expect, test } from '@playwright/test';
import { bringIn, codeField, csvFile, enterDemo, expectAccessible, saved } from './steps.js';

const sheet = csvFile(
  'quay.csv',
  [
    'id,What would you change?,Queues,Fares,Boats,Stairs',
    '1,queued at the quay for hours,1,0,0,0',
    '2,"queued for hours, no shade at the quay",1,0,0,0',
    '3,hours queued at the quay again,1,0,0,0',
    '4,the fares are far too dear,0,1,0,0',
    '5,"The linkspan was shut agian. We queued for hours at the quay. Nobody came.",,,,',
  ].join('\n'),
);

test('help with a hard answer is opened, used and left by keys alone; not for an answer of a sample', async ({
  page,
}) => {
  await enterDemo(page);
  await bringIn(page, 'Hard answers', sheet);
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await page.getByLabel('containing').first().fill('linkspan');
  await expect(page.getByText('1 answer')).toBeVisible();
  await codeField(page).focus();
  await page.keyboard.press('Alt+h');
  const help = page.getByRole('dialog');
  await expect(help.getByText('agian perhaps again')).toBeVisible();
  await expect(help.getByText('queued at the quay for hours', { exact: true })).toBeVisible();
  await expect(help.getByText(/4 lines coded by hand.* Nothing left it\./)).toBeVisible();
  await expectAccessible(page);

  // a word of the study's own is explained here and from now on
  await help.getByText('Explain a word').click();
  await help.getByRole('textbox', { name: 'Word' }).fill('linkspan');
  // a digit that is typed gives no code
  await help.getByLabel('What it means here').fill('bridge 2 of the quay');
  await page.keyboard.press('Enter');
  await expect(help.getByText('linkspan bridge 2 of the quay')).toBeVisible();

  const number = await help
    .getByRole('listitem')
    .filter({ hasText: 'Queues' })
    .last()
    .locator('kbd')
    .innerText();
  await help.getByRole('button', { name: 'Close the drawer' }).focus();
  await page.keyboard.press(number);
  await expect(help.getByText('given')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(help).toHaveCount(0);
  await saved(page);
  const answer = page.getByRole('article', { name: /^Answer of 5/ });
  await expect(answer.getByText('Queues')).toHaveCount(1);
  await expect(codeField(page)).toBeFocused();

  // drawn for coding by hand, it is read by itself
  await page.getByRole('button', { name: 'Sample …' }).click();
  await page.getByLabel('How many').fill('5');
  await page.getByRole('button', { name: 'Draw 5 answers and code them' }).click();
  await expect(page.getByRole('status').filter({ hasText: /^5 answers/ })).toBeVisible();
  await page.getByRole('article', { name: /^Answer of 5/ }).click();
  await codeField(page).focus();
  await page.keyboard.press('Alt+h');
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText(
    'drawn for coding by hand',
  );
});
