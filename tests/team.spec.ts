import { expect, test } from '@playwright/test';
import {
  bringIn,
  codeField,
  csvFile,
  enterDemo,
  expectAccessible,
  inviteSomebody,
  joinAnew,
  saved,
} from './steps.js';

const sheet = csvFile(
  'work.csv',
  'id,home,What would you change?\n1,Tye,the fares\n2,Hask,"ask Mrs Harker, the fares"\n3,Tye,fewer steps\n4,Hask,more boats\n',
);

test('a coder is let in by a link, codes what is assigned to them alone, and becomes a reader', async ({
  page,
  browser,
}) => {
  const refused: string[] = [];
  await enterDemo(page);
  await bringIn(page, 'Shared work', sheet);
  await page.getByRole('link', { name: 'Team' }).click();
  const link = await inviteSomebody(page, 'Tern', 'Coder');
  await expectAccessible(page);

  const context = await browser.newContext();
  const tern = await context.newPage();
  // what a page offers is never refused
  tern.on('response', (reply) => {
    if (reply.status() === 403) refused.push(reply.url());
  });
  await tern.goto(link);
  await expect(tern.getByRole('heading', { name: 'Join “Shared work”' })).toBeVisible();
  await expectAccessible(tern);
  await joinAnew(tern, link, 'seven quiet herons');
  await expect(page.getByRole('combobox', { name: 'Role of Tern' })).toHaveValue('coder');
  await tern.getByRole('link', { name: /^Shared work/ }).click();
  await expect(tern.getByText('No answer assigned to you')).toBeVisible();
  const stops = tern.getByRole('navigation', { name: 'Stops of the study' });
  await expect(stops.getByRole('listitem')).toHaveCount(1);

  await page.getByRole('link', { name: /^Code\b/ }).click();
  await page.getByRole('button', { name: 'Assign …' }).click();
  await expect(page.getByLabel('Who codes them')).toContainText('Tern (coder)');
  await page.getByLabel('How many').fill('2');
  await page.getByRole('button', { name: 'Assign 2 answers' }).click();
  await expect(page.getByText('0 of 2 settled')).toBeVisible();
  await expectAccessible(page);

  // she hears of it where she is, and codes by keyboard
  const answers = tern.getByRole('feed').getByRole('article');
  await expect(answers).toHaveCount(2);
  await expect(codeField(tern)).toBeFocused();
  for (const last of [false, true]) {
    await tern.keyboard.type('Fares');
    await tern.keyboard.press(last ? 'Enter' : 'Shift+Enter');
    await tern.keyboard.press('Enter');
  }
  await saved(tern);
  await expect(page.getByText('2 of 2 settled')).toBeVisible();
  await expectAccessible(tern);

  // asked for a second reading, she codes it unseen, and is not led to what only others may see
  await page.keyboard.press('Escape');
  const fewer = page.getByRole('article').filter({ hasText: 'fewer steps' });
  await fewer.getByText('fewer steps').click();
  await page.keyboard.type('Steps');
  await page.keyboard.press('Shift+Enter');
  await page.keyboard.press('Enter');
  await saved(page);
  await page.keyboard.press('Control+K');
  await page.keyboard.type('second readings');
  await page.keyboard.press('Enter');
  await page.getByLabel('coded again by').selectOption('Tern');
  await page.getByRole('button', { name: /^Draw \d answers?$/ }).click();
  await tern.getByRole('link', { name: 'Code them' }).click();
  await expect(tern.getByRole('feed').getByRole('article').first()).toBeVisible();
  await expect(tern.getByRole('feed')).not.toContainText('Steps');
  await expect(tern.getByRole('combobox', { name: 'Code for this answer' })).toBeFocused();
  const left = await tern.getByRole('feed').getByRole('article').count();
  for (let n = 0; n < left; n++) {
    await tern.keyboard.type('Steps');
    await tern.keyboard.press('Enter');
    await tern.keyboard.press('Enter');
  }
  await expect(tern.getByRole('heading', { name: 'All of these are coded' })).toBeVisible();
  await expectAccessible(tern);

  // what was not for a coder is for a reader, whose names can be masked
  await page.getByRole('link', { name: 'Team' }).click();
  await page.getByRole('combobox', { name: 'Role of Tern' }).selectOption('reader');
  await page.getByLabel(/^Mask names/).check();
  await expect(tern.getByText('You are a reader in this study')).toBeVisible();
  await tern.getByRole('link', { name: 'Go to your work' }).click();
  await tern.getByRole('button', { name: /^Fares, Total: / }).click();
  await expect(tern.getByText('ask Mrs [name], the fares')).toBeVisible();
  await expect(tern.getByRole('button', { name: /Write-up|Make a group/ })).toHaveCount(0);
  await expectAccessible(tern);
  await tern.keyboard.press('Escape');
  await tern.getByRole('link', { name: 'Write-ups' }).first().click();
  await expect(tern.getByRole('heading', { name: 'Nothing is written up yet' })).toBeVisible();
  expect(refused).toEqual([]);
  await context.close();
});

test('a respondent is deleted by their id, and a session elsewhere is ended', async ({
  page,
  browser,
}) => {
  await enterDemo(page);
  await bringIn(page, 'Asked to go', sheet);
  // what reads the answers ends first
  await page.getByRole('link', { name: /^Import\b/ }).click();
  await expect(page.getByText('Answers are read for meaning.')).toBeVisible({ timeout: 120_000 });
  await page.getByRole('link', { name: 'Respondents', exact: true }).click();
  await page.getByRole('button', { name: 'Personal data …' }).click();
  const drawer = page.getByRole('dialog');
  await drawer.getByLabel('Id of the respondent').fill('2');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    drawer.getByRole('link', { name: 'Download' }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/^personal-data_.*\.json$/);
  await drawer.getByRole('button', { name: 'Delete …' }).click();
  await drawer.getByRole('button', { name: 'Delete for good' }).click();
  await expect(drawer.getByText('Deleted, with 1 answer.')).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(page.getByText('3 respondents', { exact: true })).toBeVisible();

  const elsewhere = await browser.newContext();
  const other = await elsewhere.newPage();
  await other.goto('/');
  await other.getByRole('button', { name: 'Enter as the demo researcher' }).click();
  await expect(other.getByRole('heading', { name: 'Studies' })).toBeVisible();
  await page.goto('/password');
  const ends = page.getByRole('button', { name: 'Sign out there' });
  await expect(ends.first()).toBeVisible();
  const before = await ends.count();
  await expectAccessible(page);
  // the one used last stands first behind this one
  await ends.first().click();
  await expect(ends).toHaveCount(before - 1);
  await other.reload();
  await expect(other.getByRole('button', { name: 'Enter as the demo researcher' })).toBeVisible();
  await elsewhere.close();
});
