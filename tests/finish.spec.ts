import { expect, test, type Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import { bringIn, codeField, csvFile, enterDemo, expectAccessible, saved } from './steps.js';

// each walks the whole job, thirty answers coded by keyboard among it
test.describe.configure({ timeout: 300_000 });

/** What somebody wrote on a day, and the code that it is given: by the words alone, so that models can learn it. */
const kinds = [
  { text: (day: number) => `the fare is too dear on day ${day}`, code: 'Fares', theme: 'Price' },
  { text: (day: number) => `the crew was so kind on day ${day}`, code: 'Crew', theme: 'People' },
  { text: (day: number) => `nothing to say of day ${day}, it went well`, code: null, theme: null },
] as const;
type Kind = (typeof kinds)[number] | { code: string; theme: string };
const ANSWERS = 48;
/** Answers that are coded by hand, from the first on. */
const BY_HAND = 30;
const rare = { text: 'the toilets were dirty', code: 'Toilets', theme: 'People' };
/** Where the rare code stands: once among what is coded by hand, and once in the rest. */
const withRare = [4, 40];

const textOf = (i: number, isRare: boolean) =>
  isRare ? `${rare.text} on day ${i}` : kinds[i % kinds.length]!.text(i);
const sheet = (hasRare: boolean) =>
  csvFile(
    'days.csv',
    `id,home,Why?\n${Array.from(
      { length: ANSWERS },
      (_, i) => `${i},${i % 2 ? 'Tye' : 'Hask'},"${textOf(i, hasRare && withRare.includes(i))}"`,
    ).join('\n')}\n`,
  );

/** Brings the sheet in, and codes its first answers by keyboard. */
async function begin(page: Page, name: string, hasRare: boolean): Promise<void> {
  await enterDemo(page);
  await bringIn(page, name, sheet(hasRare));
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await expect(codeField(page)).toBeFocused();
  const made = new Set<string>();
  for (let i = 0; i < BY_HAND; i++) {
    const kind: Kind = hasRare && withRare.includes(i) ? rare : kinds[i % kinds.length]!;
    if (kind.code === null) {
      await page.keyboard.press('Control+Enter');
      continue;
    }
    if (made.has(kind.code)) await page.keyboard.type(kind.code);
    else await page.keyboard.type(`${kind.theme} / ${kind.code}`);
    await page.keyboard.press(made.has(kind.code) ? 'Enter' : 'Shift+Enter');
    made.add(kind.code);
    await page.keyboard.press('Enter');
  }
  await saved(page);
  await expect(page.getByText(`${BY_HAND} settled of ${ANSWERS} answered`)).toBeVisible();
  await page.getByRole('link', { name: /^Train\b/ }).click();
  await page.getByRole('button', { name: 'Train', exact: true }).click();
  await expect(page.getByRole('row', { name: /^Fares/ })).toBeVisible();
}

interface Row {
  kind: string;
  name: string;
  id: string;
  parentId: string | null;
  cells: { people: number; undecided: number; base: { people: number } }[];
}

/** The table of the finished question holds its law, and says the same wherever it is carried. */
async function expectFinished(page: Page, expected: Record<string, number>): Promise<void> {
  await expect(page.getByText(`${ANSWERS} settled of ${ANSWERS} answered`)).toBeVisible();
  const stops = page.getByRole('navigation', { name: 'Stops of the study' });
  for (const stop of ['Code', 'Review', 'Report'])
    await expect(stops.getByRole('link', { name: new RegExp(`^${stop}\\b`) })).toContainText(
      '100 percent done',
    );
  await stops.getByRole('link', { name: /^Report/ }).click();
  await expect(page.getByTestId('what-counts')).toHaveText(
    `Counts everybody: all ${ANSWERS} who answered. Every answer is settled.`,
  );
  const base = `/api${/\/studies\/\d+\/questions\/\d+/.exec(page.url())![0]}`;
  const get = async (path: string) => (await page.request.get(`${base}/report${path}`)).body();
  const { rows } = JSON.parse((await get('?by=none')).toString()) as { rows: Row[] };
  const people = Object.fromEntries(rows.map(({ name, cells }) => [name, cells[0]!.people]));
  expect(people).toEqual(expected);
  for (const theme of rows.filter(({ kind }) => kind === 'theme')) {
    const parts = rows
      .filter(({ parentId }) => parentId === theme.id)
      .map(({ name }) => people[name]!);
    expect(people[theme.name]).toBeGreaterThanOrEqual(Math.max(...parts));
    expect(people[theme.name]).toBeLessThanOrEqual(parts.reduce((sum, one) => sum + one, 0));
  }
  // the same numbers in every file
  const csv = (await get('/files/csv?by=none')).toString();
  const html = (await get('/files/html?by=none')).toString();
  const docx = strFromU8(unzipSync(await get('/files/docx?by=none'))['word/document.xml']!);
  const xlsx = strFromU8(unzipSync(await get('/files/xlsx?by=none'))['xl/worksheets/sheet1.xml']!);
  for (const [name, count] of Object.entries(expected)) {
    expect(csv).toMatch(new RegExp(`,${name},${count},${ANSWERS},`));
    const cell = `${((100 * count) / ANSWERS).toFixed(0)}% (${count})`;
    expect(html).toContain(`<td>${cell}</td>`);
    expect(docx).toContain(cell);
    expect(xlsx).toContain(`<v>${count}</v>`);
  }
  for (const file of [csv, html, docx]) expect(file).toContain('Every answer is settled.');
}

/** A draft of the table says what it counts, and its figures are those of the table. */
async function expectDraft(page: Page, name: string, count: number): Promise<void> {
  await page.getByRole('button', { name: 'Write up' }).click();
  await page.getByRole('menuitem', { name: 'This table in a new write-up' }).click();
  await page.getByRole('button', { name: 'Draft the findings' }).click();
  const text = page.getByRole('textbox', { name: 'The text of the write-up' });
  await expect(text).toContainText(`Counts everybody: all ${ANSWERS} who answered.`);
  await expect(text).toContainText(`${name} is mentioned by`);
  await expect(text).toContainText(`(${count} of ${ANSWERS};`);
  await expect(text).not.toContainText('not settled');
  await expect(text).not.toContainText('at least');
  // what somebody writes stays when it is drafted again
  const heading = text.getByRole('heading', { name: 'Method' });
  await heading.click();
  await page.keyboard.press('Home');
  await page.keyboard.type('Our own ');
  await page.getByRole('button', { name: 'Redraft' }).click();
  await expect(page.getByText('1 paragraph that you wrote or changed was kept')).toBeVisible();
  await expect(text.getByRole('heading', { name: 'Our own Method' })).toBeVisible();
  await expect(text.getByRole('heading', { name: 'Limits' })).toHaveCount(1);
}

test('a question is finished by reading answer by answer, with suggestions filled in', async ({
  page,
}) => {
  await begin(page, 'Read to the end', false);
  await page.getByRole('link', { name: `${BY_HAND} settled of ${ANSWERS} answered` }).click();
  await expect(page.getByText('Reading what is open takes')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Read them' }).click();
  const active = page.locator('article[aria-current=true]');
  await expect(active).toBeVisible();
  await expectAccessible(page);
  for (let n = BY_HAND; n < ANSWERS; n++) {
    await expect(active).toHaveAttribute('aria-posinset', String(n - BY_HAND + 1));
    const isProposed = (code: string) =>
      active.locator('[data-proposed]').filter({ hasText: code });
    const text = (await active.locator('.voice').textContent())!;
    const code = kinds.find((kind) => text.startsWith(kind.text(0).slice(0, 10)))!.code;
    if (code === null) await page.keyboard.press('Control+Enter');
    else {
      // a digit takes a proposal away and gives it back
      if ((await isProposed(code).count()) === 0) await page.keyboard.type(code);
      if ((await isProposed(code).count()) === 0) await page.keyboard.press('Enter');
      for (const other of ['Fares', 'Crew'].filter((one) => one !== code))
        if (await isProposed(other).count())
          await active.getByRole('button', { name: `Remove ${other}` }).click();
      await page.keyboard.press('Enter');
    }
  }
  await saved(page);
  await expectFinished(page, { Price: 16, Fares: 16, People: 16, Crew: 16 });
  await expect(page.getByText('were coded by hand')).toBeVisible();
  await expectDraft(page, 'Price', 16);
});

test('a question is finished code by code, with one that has no model', async ({ page }) => {
  await begin(page, 'Decide to the end', true);
  await page.getByRole('link', { name: /^Review\b/ }).click();
  for (const code of ['Fares', 'Crew']) {
    await page.getByRole('link', { name: new RegExp(`^${code}`) }).click();
    await expect(page.getByRole('heading', { name: code, level: 1 })).toBeVisible();
    const list = page.getByRole('feed', { name: `Suggestions of ${code}` });
    await expect(list.getByRole('article').first()).toBeVisible();
    const rows = await list.getByRole('article').count();
    for (let n = 0; n < rows; n++) {
      const text = (await list.getByRole('article').nth(n).locator('.voice').textContent())!;
      await page.keyboard.press(text.includes(code === 'Fares' ? 'fare' : 'crew') ? 'a' : 'r');
    }
    await saved(page);
  }
  await page.getByRole('link', { name: 'What is left', exact: true }).click();
  const row = (name: string) => page.getByRole('row', { name: new RegExp(`^${name}`) });
  await expect(row('Toilets')).toContainText('no model: 1 example');
  await expectAccessible(page);
  for (const code of ['Fares', 'Crew']) {
    const close = row(code).getByRole('button', { name: `Close ${code}` });
    await expect(row(code)).toContainText(/every suggestion decided|decided$/);
    if (await close.isVisible()) await close.click();
    await expect(row(code)).toContainText(/closed by Demo researcher|decided/);
  }
  // a code without a model is searched for, and the rest is said not to mention it
  await row('Toilets').getByRole('link', { name: 'Search by similarity' }).click();
  const first = page.getByRole('article').first();
  await expect(first).toContainText('toilets');
  await expect(codeField(page)).toBeFocused();
  await page.keyboard.type('Toilets');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await saved(page);
  await page.getByRole('link', { name: /settled of 48 answered$/ }).click();
  await row('Toilets').getByRole('button', { name: 'Close Toilets' }).click();
  await expect(page.getByRole('heading', { name: 'Finished' })).toBeVisible();
  await expectFinished(page, { Price: 16, Fares: 16, People: 16, Crew: 14, Toilets: 2 });
  await expect(page.getByText(/Toilets .*closed: answers that nobody coded/)).toBeVisible();

  // it is undone like any change, and the table then says what it does not know
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undid: closing “Toilets”')).toBeVisible();
  await page.goto(`${page.url().split('?')[0]}?by=none&counts=decided`);
  const total = page.getByRole('button', { name: /^Toilets, Total/ });
  await expect(total).toHaveAccessibleName(/at least, \d+ undecided/);
  await page.keyboard.press('Control+Shift+z');
  await expect(total).not.toHaveAccessibleName(/undecided/);
  await expectDraft(page, 'Price', 16);
});
