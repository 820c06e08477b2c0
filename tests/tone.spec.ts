import { expect, test, type Page } from '@playwright/test';
import { bringIn, csvFile, enterDemo, expectAccessible, expectReflow, saved } from './steps.js';

const GLAD = ['lovely', 'friendly', 'brilliant'];
const SAD = ['horrible', 'rude', 'terrible'];
/** Half are glad of the crew and half are not; all of them mention it. */
const rows = Array.from({ length: 24 }, (_, i) => {
  const word = i % 2 === 0 ? GLAD[i % 3] : SAD[i % 3];
  return `${i},"The crew were ${word} on day ${i}",1,0,0,0`;
});
const sheet = csvFile('crew.csv', `id,Why?,Crew,Meals,Boats,Stairs\n${rows.join('\n')}\n`);

const lines = (page: Page) => page.getByRole('feed', { name: 'Lines to be checked' });

async function openTone(page: Page, name: string): Promise<void> {
  await enterDemo(page);
  await bringIn(page, name, sheet);
  await page.getByRole('link', { name: /^Report\b/ }).click();
  await page.getByRole('link', { name: 'Tone', exact: true }).click();
  await expect(page.getByText('Nothing can be said of tone yet')).toBeVisible();
  await page.getByRole('link', { name: 'Check lines' }).click();
}

test('tone is proposed, checked by keys, read in a sample without a proposal, learnt, and then reported', async ({
  page,
}) => {
  await openTone(page, 'Toned');
  await page.getByRole('link', { name: 'Strongest first' }).click();
  await page.getByLabel('At a time').selectOption('10');
  await expect(lines(page).getByRole('article')).toHaveCount(10);
  await page.keyboard.press('Enter');
  await page.keyboard.press('x');
  await page.keyboard.press('0');
  await expect(page.getByText('3 of 10')).toBeVisible();
  await expect(
    page.getByText(/24 lines, 3 checked\. The lexicon was right in 33% of the 3/),
  ).toBeVisible();
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(
    page.getByText(/24 lines, 2 checked\. The lexicon was right in 50% of the 2/),
  ).toBeVisible();
  await expectAccessible(page);

  await page.getByRole('link', { name: 'Random sample' }).click();
  await page.getByLabel('Answers').selectOption('30');
  await page.getByRole('button', { name: 'Draw 30 answers' }).click();
  await expect(lines(page).getByRole('article')).toHaveCount(24);
  // no proposal in view
  await expect(lines(page).getByText(/^(?:positive|negative), /)).toHaveCount(0);
  for (let i = 0; i < 24; i++) {
    const text = (await lines(page).getByRole('article').nth(i).locator('p').innerText()).trim();
    await page.keyboard.press(GLAD.some((word) => text.includes(word)) ? 'p' : 'n');
  }
  await expect(page.getByText('24 of 24 answers read to the last line')).toBeVisible();
  await page.getByRole('button', { name: 'Train on what was checked' }).click();
  await expect(page.getByText(/^Trained .* on 24 checked lines\.$/)).toBeVisible();
  await expect(page.getByRole('img', { name: /^positive, right / })).toBeVisible();

  await page.getByRole('link', { name: 'Tone by theme and group' }).click();
  const crew = page.getByRole('row', { name: /^Crew/ });
  await expect(crew.getByText('24 people, 24 read')).toBeVisible();
  await expect(crew.getByText('50%').first()).toBeVisible();
  await expectAccessible(page);
  await expectReflow(page);
});
