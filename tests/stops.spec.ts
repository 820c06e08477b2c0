import { expect, test, type Page } from '@playwright/test';
import { beginWith, bringIn, codeField, csvFile, enterDemo, openDemo, saved } from './steps.js';

/** The question that most of the demo's answers to are suggested a code for. */
async function valueQuestion(page: Page): Promise<string> {
  const href = await page.getByRole('link', { name: '2 Value' }).getAttribute('href');
  return /questions\/(\d+)/.exec(href!)![1]!;
}

test('look: a word opens the answers that were counted; a word set aside stays so with the study', async ({
  page,
}) => {
  await openDemo(page, 'Look');
  await page.getByRole('button', { name: 'Set boat aside' }).click();
  await saved(page);
  await page.reload();
  await page.getByRole('button', { name: 'Bring back boat' }).click();
  await expect(page.getByRole('button', { name: 'Set boat aside' })).toBeVisible();
  const word = page
    .getByRole('listitem')
    .filter({ has: page.getByRole('button', { name: 'winter', exact: true }) });
  const answers = Number(/\d+/.exec((await word.textContent())!)![0]);
  await word.getByRole('button', { name: 'winter', exact: true }).click();
  await expect(page.getByRole('dialog')).toContainText(`in ${answers} answers`);
  await page.getByRole('link', { name: 'Read them in Code' }).click();
  await expect(page.getByText(`${answers} answers`)).toBeVisible();
  for (const article of await page.getByRole('article').all())
    await expect(article).toContainText(/winter/i);
  const containing = page.getByLabel('Answers containing');
  await containing.fill('');
  await containing.pressSequentially('sunday boat');
  await expect(containing).toHaveValue('sunday boat');
  await expect(page).toHaveURL(/words=sunday(\+|%20)boat/);
  await page.keyboard.press('Enter');
  await expect(codeField(page)).toBeFocused();
});

test('a study with nothing in it yet says at every stop what to do next, and offers it', async ({
  page,
}) => {
  await enterDemo(page);
  await bringIn(
    page,
    'Just begun',
    csvFile('a.csv', 'id,What else?\n1,more boats please\n2,fewer steps please\n'),
  );
  const go = (stop: string) => page.getByRole('link', { name: new RegExp(`^${stop}\\b`) }).click();
  for (const [stop, words, offered] of [
    ['Train', 'Nothing to learn from yet', 'Code some answers'],
    ['Review', 'No suggestions yet', 'Go to Train'],
    ['Report', 'Nothing to count yet', 'Code some answers'],
  ] as const) {
    await go(stop);
    await expect(page.getByRole('heading', { name: words })).toBeVisible();
    await page.getByRole('link', { name: offered }).click();
    await expect(page.getByRole('heading', { name: words })).toHaveCount(0);
  }
  await go('Code');
  await page.getByLabel('Which answers').selectOption('settled');
  await expect(page.getByRole('heading', { name: 'No answer matches' })).toBeVisible();
});

test('codebook: a code gets a theme, and with it its ink and stitch wherever it stands', async ({
  page,
}) => {
  await enterDemo(page);
  await bringIn(
    page,
    'A codebook',
    csvFile('a.csv', 'id,What would you change?\n1,the fares are mad\n2,more boats at night\n'),
  );
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await codeField(page).fill('Fares');
  await page.keyboard.press('Enter');
  const label = page.getByRole('article').first().getByText('Fares', { exact: true });
  await expect(label).toHaveCSS('color', 'rgb(101, 95, 83)');
  await saved(page);

  await page.getByRole('link', { name: 'Codebook', exact: true }).click();
  await page.getByLabel('Name of a new code or theme').fill('Price');
  await page.getByRole('button', { name: 'Add theme' }).click();
  await page.getByLabel('Theme', { exact: true }).selectOption('Price');
  await page.getByLabel('Name', { exact: true }).fill('Fares and tickets');
  await page.getByLabel('Definition: what belongs here').fill('What it costs to cross');
  await page.getByLabel('Include').click();
  await saved(page);
  await expect(page.getByRole('region', { name: 'Price' })).toContainText('Fares and tickets');

  await page.keyboard.press('Control+k');
  await page.keyboard.type('What would');
  await page.keyboard.press('Enter');
  const renamed = page.getByRole('article').first().getByText('Fares and tickets', { exact: true });
  await expect(renamed).toHaveCSS('color', 'rgb(63, 76, 154)');
  // found by a word of its definition
  await codeField(page).fill('cross');
  await expect(page.getByRole('option', { name: /Fares and tickets/ })).toBeVisible();
});

test('review: the line is pulled by hand, asks no server while it moves, and stays where it was laid', async ({
  page,
}) => {
  await openDemo(page, 'Review');
  await page.getByRole('link', { name: '3 Decided against' }).click();
  const line = page.getByRole('slider', { name: 'The line' });
  const accept = page.getByRole('button', { name: /^Accept \d+ above$/ });
  // until then the threshold of the question before is shown
  await expect(page.getByText('If you decided against the ferry')).toBeVisible();
  // a code whose model can be right as often as is asked for below
  await page.getByRole('link', { name: /^Cancelled sailings/ }).click();
  await expect(page.getByRole('heading', { name: 'Cancelled sailings' })).toBeVisible();
  // waits until it stands still
  await line.hover();
  const box = (await line.boundingBox())!;
  const asked: string[] = [];
  // where one stopped is kept by itself, whenever a page has stood for a moment
  page.on('request', (request) => {
    if (!request.url().endsWith('/membership')) asked.push(request.method());
  });
  await page.mouse.down();
  const seen = new Set<string>();
  for (const dy of [40, 90, 140]) {
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + dy);
    seen.add((await accept.textContent())!);
  }
  expect(asked).toEqual([]);
  await page.mouse.up();
  expect(seen.size).toBeGreaterThan(1);
  await expect.poll(() => asked).toContain('PUT');
  await saved(page);
  const laid = await line.getAttribute('aria-valuenow');
  await page.reload();
  await expect(line).toHaveAttribute('aria-valuenow', laid!);
  // asking for a share that is right moves it too
  await page.getByLabel('wanted right').fill('0.7');
  await page.keyboard.press('Enter');
  await expect(page.getByText('expected right', { exact: true }).locator('..')).toContainText(
    /0\.[78]\d \(/,
  );
  await page.getByRole('button', { name: /^Back to/ }).click();
  await saved(page);

  // one by one, by pointer: refused, then open again
  const suggestions = page.getByRole('feed', { name: /^Suggestions of/ }).getByRole('article');
  const second = suggestions.nth(1);
  await second.click();
  await second.getByRole('button', { name: 'refuse' }).click();
  await expect(second.getByRole('img', { name: 'refused' })).toBeVisible();
  // those of the same words are refused with it
  await expect(page.getByText(/· [1-9]\d* refused ·/)).toBeVisible();
  await second.getByRole('button', { name: 'open' }).click();
  await expect(second.getByRole('img', { name: 'open' })).toBeVisible();

  // the line may lie further down than what was fetched: L goes there all the same
  await page.goto(page.url().replace(/questions\/\d+/, `questions/${await valueQuestion(page)}`));
  await page.getByRole('link', { name: /^Lifeline/ }).click();
  await expect(page.getByRole('heading', { name: 'Lifeline' })).toBeVisible();
  await expect(accept).toBeEnabled();
  const above = Number(/\d+/.exec((await accept.textContent())!)![0]);
  expect(above).toBeGreaterThan(100);
  await page.keyboard.press('l');
  const at = page.getByRole('feed', { name: /^Suggestions of/ }).locator('[aria-current=true]');
  const probability = async () => Number(/\d\.\d\d/.exec((await at.textContent())!)![0]);
  await expect
    .poll(probability)
    .toBeLessThanOrEqual(Number(await line.getAttribute('aria-valuenow')));
});

test('report: what is chosen stands in the address; questions stand side by side', async ({
  page,
}) => {
  await openDemo(page, 'Report');
  await page.getByLabel('Across').selectOption('the questions');
  await expect(page.getByRole('columnheader')).toHaveText([
    /^Theme and code/,
    /^Improve/,
    /^Value/,
    /^Decided against/,
  ]);
  await page.getByLabel('Counts', { exact: true }).selectOption('everybody, decided');
  await page.getByLabel('Percent of').selectOption('all who were asked');
  await page.getByLabel('weighted').check();
  await expect(page.getByText(/effective \d+/).first()).toBeVisible();
  const cell = page.getByRole('button', { name: /^Lifeline, Value:/ });
  await expect(cell).toContainText('of 450');
  const shown = await cell.textContent();
  await page.reload();
  await expect(cell).toHaveText(shown!);
  await expect(page.getByLabel('weighted')).toBeChecked();
  // from the number to the words and, the drawer standing open, to the next number
  await cell.click();
  await expect(page.getByRole('dialog')).toHaveAccessibleName('Lifeline: Value');
  await page.getByRole('button', { name: /^Getting a place, Improve:/ }).click();
  await expect(page.getByRole('dialog')).toHaveAccessibleName('Getting a place: Improve');
});

test('report and look: figures of one question never stand below the wording of another', async ({
  page,
}) => {
  await openDemo(page, 'Report');
  await page.getByRole('link', { name: '2 Value' }).click();
  for (const [stop, shown, asked] of [
    ['Report', page.getByText('Theme and code'), /\/report\?/u],
    ['Look', page.getByRole('heading', { name: 'Words people use' }), /\/look$/u],
  ] as const) {
    await page.getByRole('link', { name: new RegExp(`^${stop}\\b`) }).click();
    await expect(shown).toBeVisible();
    let release = () => undefined as void;
    const released = new Promise<void>((resolve) => (release = resolve));
    // the other question is not there yet
    await page.route(asked, async (route) => {
      await released;
      await route.continue();
    });
    await page.getByRole('link', { name: '1 Improve' }).click();
    await expect(page.getByText('What one thing would most improve')).toBeVisible();
    await expect(shown).toHaveCount(0);
    release();
    await expect(shown).toBeVisible();
    await page.unroute(asked);
    await page.getByRole('link', { name: '2 Value' }).click();
    await expect(shown).toBeVisible();
  }
});

test('report: a long table is drawn where it is in view, to its last row, by pointer and by key', async ({
  page,
}) => {
  await enterDemo(page);
  // each code is on one answer fewer than the one before it
  const codes = Array.from({ length: 80 }, (_, c) => `Point ${String(c + 1).padStart(2, '0')}`);
  const lines = codes.map(
    (_, a) => `r${a},it is the boat of ${a},${codes.slice(0, a + 1).join(';')}`,
  );
  await beginWith(page, 'Many codes', csvFile('many.csv', `id,Why?,Points\n${lines.join('\n')}`));
  await page.getByLabel('Role of Points').selectOption('existing codes');
  await page.getByLabel('How Points holds codes').selectOption(';');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await page.getByRole('button', { name: 'See what was imported' }).click();
  await page.getByRole('link', { name: /^Report\b/ }).click();
  const cell = (name: string) => page.getByRole('button', { name: new RegExp(`^${name}, Total`) });
  await expect(cell('Point 01')).toContainText('80 of 80');
  await expect(cell('Point 80')).toHaveCount(0);
  const width = (name: string) => cell(name).evaluate((one) => one.getBoundingClientRect().width);
  const before = await width('Point 02');
  await page.getByRole('table').hover();
  await page.mouse.wheel(0, 100_000);
  await expect(cell('Point 80')).toContainText('1 of 80');
  expect(await width('Point 80')).toBe(before);
  await cell('Point 70').focus();
  for (let n = 0; n < 10; n++) await page.keyboard.press('Shift+Tab');
  await expect(cell('Point 60')).toBeFocused();
});

test('what was asked for before a change and answered after it is asked for again', async ({
  page,
}) => {
  await enterDemo(page);
  await bringIn(
    page,
    'Racing',
    csvFile('a.csv', 'id,What else?\n1,more boats please\n2,fewer steps please\n'),
  );
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await codeField(page).fill('Boats');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await saved(page);
  // the settling of the second answer is on its way when the report is asked for, and lands before the
  // report's first answer, made without it, is delivered
  let release = () => {};
  const held = new Promise<void>((resolve) => (release = resolve));
  await page.route('**/settlement', async (route) => {
    await held;
    await route.continue();
  });
  let asked = 0;
  await page.route('**/report?*', async (route) => {
    if ((asked += 1) > 1) return route.continue();
    const early = await route.fetch();
    const settled = page.waitForResponse('**/settlement');
    release();
    await settled;
    await route.fulfill({ response: early }).catch(() => undefined); // called off by then
  });
  await page.keyboard.press('Control+Enter');
  await page.getByRole('link', { name: /^Report\b/ }).click();
  await expect(page.getByRole('button', { name: /^Boats, Total:/ })).toContainText('1 of 2');
});

test('who signs out in one tab is led to the door in the other; what they did there is kept for them', async ({
  browser,
}) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  await page.goto('/');
  await page.getByRole('button', { name: 'Enter as the demo researcher' }).click();
  await page.getByRole('link', { name: /^Brindle Sound ferry/ }).click();
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await expect(codeField(page)).toBeFocused();
  const other = await context.newPage();
  await other.goto('/studies');
  await other.getByRole('button', { name: 'Sign out' }).click();
  await expect(other.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await page.keyboard.type('A code of my own');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await page.getByRole('button', { name: 'Enter as the demo researcher' }).click();
  await page.getByRole('link', { name: 'Codebook', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Timetable' })).toBeVisible();
  await expect(
    page.getByRole('region', { name: 'Without a theme' }).getByText('A code of my own'),
  ).toBeVisible();
  await context.close();
});

test('a long list is read to its end: pages are fetched as one comes to them', async ({ page }) => {
  const rows = Array.from(
    { length: 1200 },
    (_, i) => `${i},"Answer number ${i}, on the boats and the quay."`,
  );
  await enterDemo(page);
  await bringIn(page, 'Long list', csvFile('long.csv', `id,What else?\n${rows.join('\n')}\n`));
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await expect(page.getByText('1,200 answers')).toBeVisible();
  const last = page.getByText('Answer number 1199,');
  await expect
    .poll(
      async () => {
        await page.getByRole('feed').evaluate((feed) => feed.scrollTo(0, feed.scrollHeight));
        return last.count();
      },
      { timeout: 30_000 },
    )
    .toBe(1);
  // far fewer rows are drawn than there are answers
  expect(await page.getByRole('article').count()).toBeLessThan(60);
});
