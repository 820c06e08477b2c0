import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { beginWith, codeField, enterDemo, saved, inviteSomebody, joinAnew } from './steps.js';

const COST = 'die Fahrt ist mir viel zu teuer';
const PLACES = 'im Café gibt es zu wenig Plätze';

/** Semicolons, Windows-1252 and decimal commas; who has an odd number finds it dear, and counts for more. */
const sheet = (name: string, first: number, count: number) => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.from(
    [
      'Nr;Alter;Gewicht;Wohnort;Was würden Sie ändern?',
      ...Array.from({ length: count }, (_, i) => {
        const [nr, isOdd] = [first + i, (first + i) % 2 === 1];
        const home = nr % 3 === 0 ? 'Köln' : 'Münster';
        return `N${nr};${20 + nr};${isOdd ? '1,25' : '0,75'};${home};"${isOdd ? COST : PLACES}, Nummer ${nr}"`;
      }),
      '',
    ].join('\r\n'),
    'latin1',
  ),
});

async function importNow(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await page.getByRole('button', { name: 'See what was imported' }).click();
}

/** Gives each answer its code by keyboard, found without its accent. */
async function codeAll(page: Page, answers: readonly string[]): Promise<void> {
  for (const text of answers) {
    await page.keyboard.type(text.includes('Caf') ? 'cafe' : 'kost');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
  }
}

const stop = (page: Page, name: string) =>
  page
    .getByRole('navigation', { name: 'Stops of the study' })
    .getByRole('link', { name: new RegExp(`^${name}\\b`, 'u') });

for (const [width, height] of [
  [1280, 800],
  [640, 400],
] as const)
  test.describe(() => {
    test.use({ viewport: { width, height } });
    test(`a sheet of another shape is walked through, with a second coder and a second wave, at ${width}×${height}`, async ({
      page,
      browser,
    }) => {
      test.setTimeout(120_000);
      const name = `Andere Form ${width}`;
      await enterDemo(page);
      await beginWith(page, name, sheet('erste welle.csv', 1, 12));
      await expect(page.getByLabel('Role of Gewicht')).toHaveValue('weight');
      await expect(page.getByLabel('Role of Alter')).toHaveValue('number');
      await expect(page.getByLabel('Role of Was würden Sie ändern?')).toHaveValue('question');
      await importNow(page);
      await expect(page.getByText('Not imported yet')).toHaveCount(0);

      await stop(page, 'Code').click();
      await expect(codeField(page)).toBeFocused();
      for (const code of ['Kosten', 'Café']) {
        await page.keyboard.type(code);
        await page.keyboard.press('Shift+Enter');
        await page.keyboard.press('Enter');
      }
      await codeAll(
        page,
        Array.from({ length: 10 }, (_, i) => (i % 2 === 0 ? COST : PLACES)),
      );
      await expect(page.getByText('12 settled of 12 answered')).toBeVisible();
      await saved(page);

      // a second coder sees none of it, and agrees
      await page.getByRole('link', { name: 'Team' }).click();
      const link = await inviteSomebody(page, `Jonas ${width}`, 'Researcher');
      const context = await browser.newContext({ viewport: { width, height } });
      const jonas = await context.newPage();
      await joinAnew(jonas, link, 'drei lange Wörter am Fluss');
      await page.keyboard.press('Control+K');
      await page.keyboard.type('second readings');
      await page.keyboard.press('Enter');
      await page.getByLabel('coded again by').selectOption(`Jonas ${width}`);
      await page.getByLabel('How many').fill('4');
      await page.getByRole('button', { name: 'Draw 4 answers' }).click();
      const listed = page.getByRole('listitem').filter({ hasText: 'Jonas' });
      await expect(listed).toContainText('0 of 4 coded');
      await jonas.reload();
      await jonas.getByRole('link', { name }).click();
      const feed = jonas.getByRole('feed');
      await expect(feed.getByRole('article')).toHaveCount(4);
      await expect(jonas.getByRole('combobox', { name: 'Code for this answer' })).toBeFocused();
      await codeAll(jonas, await feed.locator('p.voice').allTextContents());
      await expect(jonas.getByText('100% (4 of 4)')).toBeVisible();
      await context.close();

      // another wave comes in, and the models learn from the first
      await stop(page, 'Import').click();
      await page.locator('input[type=file]').setInputFiles(sheet('zweite welle.csv', 101, 20));
      await expect(page.getByRole('radio', { name: /^new respondents/ })).toBeChecked();
      await page.getByLabel('Wave').fill('2027');
      await page.getByLabel('Wave').press('Tab');
      await importNow(page);
      await stop(page, 'Train').click();
      await page.getByRole('button', { name: 'Train', exact: true }).click();
      await expect(page.getByRole('row', { name: /Kosten/ })).toBeVisible();
      await stop(page, 'Review').click();
      await page.getByRole('link', { name: /^Kosten/ }).click();
      await expect(page.getByRole('heading', { name: 'Kosten' })).toBeVisible();
      await page.getByRole('feed').getByRole('article').first().click();
      await page.keyboard.press('a');
      await expect(page.getByText(/^1 accepted/)).toBeVisible();

      // weights: half of the people, but more of the weight
      await stop(page, 'Report').click();
      await page.getByLabel('Across').selectOption('imported waves');
      await page.getByLabel('Counts', { exact: true }).selectOption('settled');
      const total = page.getByRole('button', { name: /^Kosten, Total:/ });
      await expect(total).toContainText('50%');
      await page.getByLabel('weighted').check();
      await expect(total).toContainText('63%');
      await page.getByRole('button', { name: 'Files' }).click();
      const [download] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('menuitem', { name: /^CSV/ }).click(),
      ]);
      expect(download.suggestedFilename()).toMatch(
        new RegExp(
          `^andere-form-${width}_table_was-wurden-sie-andern_.*_\\d{4}-\\d{2}-\\d{2}\\.csv$`,
          'u',
        ),
      );
      expect(await readFile(await download.path(), 'utf8')).toContain('Café');
    });
  });
