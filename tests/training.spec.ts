import { expect, test } from '@playwright/test';
import { expectAccessible, openDemo } from './steps.js';

test('a word is excluded, a retrain shows what changed, and the run before is used again', async ({
  page,
}) => {
  await openDemo(page, 'Train');
  const code = page.getByRole('row', { name: /^Car deck full/ });
  const drawer = page.getByRole('dialog');
  await code.getByRole('button', { name: 'Car deck full' }).click();
  await drawer.getByRole('button', { name: 'Exclude “car” for this code' }).click();
  await drawer.getByRole('button', { name: 'Train now' }).click();
  await expect(code).toContainText(/was 0\.\d\d/);
  await expect(drawer.getByRole('button', { name: 'Train now' })).toHaveCount(0);
  await expect(drawer.getByRole('button', { name: /Exclude “car” for/ })).toHaveCount(0);
  await drawer.getByRole('button', { name: 'include again' }).click();
  await expect(drawer.getByRole('button', { name: 'Train now' })).toBeVisible();
  await expect(drawer.getByRole('button', { name: 'include again' })).toHaveCount(0);
  await drawer.getByRole('button', { name: 'Close the drawer' }).click();

  await page.getByRole('link', { name: 'Runs' }).click();
  await expectAccessible(page);
  const [newest, before] = [page.getByRole('row').nth(1), page.getByRole('row').nth(2)];
  await expect(newest).toContainText('car');
  await before.getByRole('button', { name: 'Use again' }).click();
  await expect(before).toContainText('in use');
  await expect(newest.getByRole('button', { name: 'Use again' })).toBeVisible();
});

test('shares are estimated from the random sample; what to code next leads to the ledger with that batch', async ({
  page,
}) => {
  await openDemo(page, 'Train');
  // a theme is found where its codes have too few examples yet
  const timetable = page.getByRole('listitem').filter({ hasText: /^Timetable/ });
  const read = timetable.getByRole('link', { name: /^Read \d+ open answers likely about it$/ });
  const likely = /\d+/.exec((await read.textContent())!)![0];
  await read.click();
  await expect(page.getByText('likely about Timetable')).toBeVisible();
  await expect(page.getByText(new RegExp(`^${likely} answers in \\d+ wordings`))).toBeVisible();
  await page.goBack();
  await page.getByRole('link', { name: 'Estimated shares' }).click();
  await expect(page.getByRole('row', { name: /^Car deck full/ })).toContainText(
    /9 of 88, .+ of 441, /,
  );
  await expectAccessible(page);
  await page.getByRole('link', { name: 'report with estimates' }).click();
  await expect(page.getByTestId('what-counts')).toHaveText(
    /^Estimates the share among all 441 who answered\. Models read all 441 answers, .+ by 88 that were drawn at random/,
  );
  // with too few of the sample in a group nothing is estimated of it
  const estimateOf = (column: string) =>
    page.getByRole('button', { name: new RegExp(`^Reliability, ${column}:`) });
  await expect(estimateOf('Total')).toContainText('%');
  await expect(estimateOf('Tye')).toContainText('%');
  await expect(page.getByRole('row', { name: /^Reliability/ })).toContainText('–');
  await expectAccessible(page);
  await page.goBack();
  await page.getByRole('link', { name: 'What to code next' }).click();
  await page.getByLabel('how many').selectOption('10');
  const answers = page.getByRole('main').getByRole('listitem');
  await expect(answers).toHaveCount(10);
  await expect(answers.first()).toContainText(
    /near the line for|nearest in meaning to|unlike anything coded/,
  );
  await expectAccessible(page);
  const text = (await answers.first().getByRole('paragraph').first().textContent())!;
  // the ledger has each of its lines by itself
  const [first] = text.split(/(?<=[.?!]) /u);
  await page.getByRole('heading', { name: 'What would help' }).click();
  await page.keyboard.press('c');
  await expect(page.getByRole('combobox', { name: 'Which answers' })).toHaveValue('sample_open');
  await expect(page.getByRole('feed')).toContainText(first!);
});
