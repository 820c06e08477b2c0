import { expect, test, type Page } from '@playwright/test';
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
  'twice.csv',
  'id,What would you change?\n1,the fares\n2,cheaper fares\n3,fewer steps\n4,more boats\n',
);

/** Codes answers one after the other by keyboard alone; a blank code is none. */
async function codeAll(page: Page, codes: readonly string[], asNew: boolean): Promise<void> {
  for (const code of codes) {
    if (code === '') await page.keyboard.press('Control+Enter');
    else {
      await page.keyboard.type(code);
      await page.keyboard.press(asNew ? 'Shift+Enter' : 'Enter');
      await page.keyboard.press('Enter');
    }
  }
}

test('a second person is invited, codes the same answers unseen, and the two settle where they differ', async ({
  page,
  browser,
}) => {
  await enterDemo(page);
  await bringIn(page, 'Read twice', sheet);
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await expect(codeField(page)).toBeFocused();
  await codeAll(page, ['Fares', 'Fares', 'Steps', ''], true);
  await saved(page);

  await page.getByRole('link', { name: 'Team' }).click();
  const link = await inviteSomebody(page, 'Linnet', 'Researcher');
  await expectAccessible(page);
  const context = await browser.newContext();
  const linnet = await context.newPage();
  await joinAnew(linnet, link, 'seven quiet herons');
  await page.keyboard.press('Control+K');
  await page.keyboard.type('second readings');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('coded again by')).toContainText('Linnet');
  await page.getByRole('button', { name: 'Draw 4 answers' }).click();
  const listed = page.getByRole('listitem').filter({ hasText: 'Linnet after Demo researcher' });
  await expect(listed).toContainText('0 of 4 coded');
  await expectAccessible(page);

  await linnet.getByRole('link', { name: /^Read twice/ }).click();
  // she is led to what she was asked for; how it was coded she sees nowhere
  const answers = linnet.getByRole('feed').getByRole('article');
  await expect(linnet.getByText('0 of 4 coded')).toBeVisible();
  await linnet.getByRole('link', { name: /^Code\b/ }).click();
  await expect(answers.getByText('This answer is in your second reading')).toHaveCount(4);
  await expect(linnet.getByRole('feed')).not.toContainText(/Fares|Steps|nothing applies/u);
  await linnet.getByRole('link', { name: 'Code them' }).click();
  await expect(answers).toHaveCount(4);
  await expect(linnet.getByRole('feed')).not.toContainText('Steps');
  await expectAccessible(linnet);
  const words = await answers.locator('p.voice').allTextContents();
  const asLinnet = (text: string) => (text === 'more boats' ? '' : 'Fares');
  await codeAll(linnet, words.slice(0, 3).map(asLinnet), false);
  await expect(linnet.getByText('3 of 4 coded')).toBeVisible();
  await expect(linnet.getByRole('combobox', { name: 'Code for this answer' })).toBeFocused();
  await expect(listed).toContainText('3 of 4 coded');
  // what was settled a moment ago is changed, and changed back, by keyboard
  const up = words[2] === 'more boats' ? 2 : 1;
  for (let n = 0; n < up; n++) await linnet.keyboard.press('ArrowUp');
  const earlier = answers.nth(3 - up);
  await expect(earlier).toContainText('Fares');
  await linnet.keyboard.press('Backspace');
  await expect(earlier).toContainText('nothing applies');
  await linnet.keyboard.type('Fares');
  await linnet.keyboard.press('Enter');
  await expect(earlier).toContainText('Fares');
  for (let n = 0; n < up; n++) await linnet.keyboard.press('ArrowDown');
  await codeAll(linnet, words.slice(3).map(asLinnet), false);
  await expect(linnet.getByRole('heading', { name: 'Demo researcher and Linnet' })).toBeVisible();
  await context.close();

  await listed.getByRole('link', { name: 'See how far they agree' }).click();
  await expect(page.getByText('75% (3 of 4)')).toBeVisible();
  await expect(page.getByRole('row', { name: /^Fares/ })).toContainText(/2\s*0\s*1\s*1\s*75%/);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Steps applies' }).click();
  await page.getByRole('button', { name: 'Fares does not' }).click();
  await expect(page.getByText('2 of 2 discussed')).toBeVisible();
  await page.getByRole('button', { name: 'Fares applies' }).click();
  await saved(page);
  await page.getByRole('link', { name: '3', exact: true }).click();
  const answer = page.getByRole('article').filter({ hasText: 'fewer steps' });
  await expect(answer).toContainText('Steps');
  await expect(answer).toContainText('Fares');
  await page.keyboard.press('Control+z');
  await expect(answer).not.toContainText('Fares');
});
