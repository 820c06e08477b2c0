import { expect, test } from '@playwright/test';
import {
  bringIn,
  codeField,
  csvFile,
  enterDemo,
  expectAccessible,
  openDemo,
  saved,
} from './steps.js';

const said = ['late boat', 'fares too high', 'the staff helped me', 'steep steps'];
const rows = Array.from({ length: 24 }, (_, i) => `${i},${said[i % 4]} ${i}`);

test('answers are read for meaning, and a code finds its first examples before any has it', async ({
  page,
}) => {
  await enterDemo(page);
  await bringIn(page, 'Read for meaning', csvFile('said.csv', `id,Why?\n${rows.join('\n')}\n`));
  await page.getByRole('link', { name: /^Import\b/ }).click();
  await expect(page.getByText('Answers are read for meaning.')).toBeVisible();
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await expect(codeField(page)).toBeFocused();
  await page.keyboard.type('Service / Staff');
  await page.keyboard.press('Enter');
  await saved(page);
  await page.getByRole('link', { name: 'Codebook', exact: true }).click();
  await page
    .getByRole('region', { name: 'Themes and codes' })
    .getByRole('button', { name: 'Staff' })
    .click();
  await page
    .getByLabel('Definition: what belongs here')
    .fill('The staff are friendly and helpful.');
  await page.getByLabel('Definition: what belongs here').blur();
  await saved(page);
  const nearest = page.getByRole('region', { name: 'Nearest in meaning to “Staff”, not learnt' });
  await expect(nearest.getByRole('listitem').first()).toContainText('the staff helped me');
  await expectAccessible(page);

  await page.getByRole('link', { name: /^Code\b/ }).click();
  await page.getByRole('button', { name: 'Sample' }).click();
  const drawer = page.getByRole('dialog');
  await drawer.getByRole('radio', { name: /^first examples/ }).check();
  await drawer.getByLabel('How many').fill('3');
  await drawer.getByRole('button', { name: 'Draw 3 answers and code them' }).click();
  await expect(page.getByRole('article')).toHaveCount(3);
  for (const answer of await page.getByRole('article').all())
    await expect(answer).toContainText('the staff helped me');
});

test('a reading is stopped, and goes on where it stopped', async ({ page }) => {
  await enterDemo(page);
  const many = Array.from(
    { length: 2000 },
    (_, i) => `${i},${said[i % 4]} and we waited for hours with number ${i}`,
  );
  await bringIn(page, 'A long reading', csvFile('many.csv', `id,Why?\n${many.join('\n')}\n`));
  await page.getByRole('link', { name: /^Import\b/ }).click();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  const stopped = page.getByText(/^[\d,]+ of 2,000 answers (?:are |were )?read/);
  await expect(page.getByRole('button', { name: 'Go on reading' })).toBeVisible();
  const read = Number(/^[\d,]+/.exec((await stopped.textContent())!)![0].replace(',', ''));
  expect(read).toBeLessThan(2000);
  await page.reload();
  await page.getByRole('button', { name: 'Go on reading' }).click();
  await expect(page.getByText('Answers are read for meaning.')).toBeVisible({ timeout: 120_000 });
});

test('a suggestion says why it is made, by one key, for each one comes to', async ({ page }) => {
  await openDemo(page, 'Review');
  await page.getByRole('link', { name: '2 Value' }).click();
  await page.getByRole('link', { name: /^Family and friends/ }).click();
  const first = page
    .getByRole('feed', { name: 'Suggestions of Family and friends' })
    .getByRole('article')
    .first();
  await expect(first).toHaveAttribute('aria-current', 'true');
  const why = page.getByRole('region', { name: 'Why Family and friends is suggested' });
  await page.keyboard.press('y');
  await expect(why).toContainText(/Meaning of the line\+\d/);
  await expect(why).toContainText(/Words[+−]\d/);
  // two lines with the code and two without it
  await expect(why.getByRole('listitem')).toHaveCount(4);
  await expectAccessible(page);
  const text = await why.textContent();
  await page.keyboard.press('ArrowDown');
  await expect(why.getByRole('listitem')).toHaveCount(4);
  expect(await why.textContent()).not.toBe(text);
  await page.keyboard.press('y');
  await expect(why).toHaveCount(0);
});
