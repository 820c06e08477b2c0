import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { expect, test, type Browser, type Page } from '@playwright/test';
import {
  acceptAbove,
  beginGroup,
  codeField,
  enterDemo,
  inviteSomebody,
  joinAnew,
  saved,
} from './steps.js';
import { demoFile } from './product.js';

const shoot = async (page: Page, name: string) => {
  await expect(page.getByText(/^Fetching/)).toHaveCount(0);
  await page.evaluate(() => document.fonts.ready);
  await page.screenshot({
    path: fileURLToPath(new URL(`../docs/screenshots/${name}.png`, import.meta.url)),
    animations: 'disabled',
    caret: 'hide',
  });
};

const relations = [
  ['More sailings', 'would ease', 'Cancelled sailings'],
  ['Price for vehicles', 'goes with', 'Booking'],
  ['Seats and shelter', 'matters to', 'Lifeline'],
] as const;

test('the main views, from the demo study', async ({ page, browser }) => {
  test.setTimeout(240_000);
  await page.goto('/');
  await enterDemo(page);

  await page.getByLabel('Name').fill('Passengers, second wave');
  await page.getByRole('button', { name: 'Create study' }).click();
  await page.locator('input[type=file]').setInputFiles(demoFile('brindle-sound.xlsx'));
  await expect(page.getByText('What will be imported')).toBeVisible();
  await expect(page.getByText('counting …')).toHaveCount(0);
  await shoot(page, 'import');

  await page.goto('/studies');
  await page.getByRole('link', { name: /^Brindle Sound ferry/ }).click();
  const go = (stop: string) => page.getByRole('link', { name: new RegExp(`^${stop}\\b`) }).click();
  await go('Look');
  await expect(page.getByRole('heading', { name: 'Words people use' })).toBeVisible();
  await shoot(page, 'look');
  await page.getByRole('link', { name: 'Words together' }).click();
  await expect(page.getByRole('button', { name: /^queue: / })).toBeVisible();
  await shoot(page, 'look-together');
  await page.getByRole('link', { name: 'What people say' }).click();
  await expect(page.getByText(/^These 6 stand for/)).toBeVisible();
  await expect(page.getByRole('heading', { level: 3 }).first()).toBeVisible();
  await go('Code');
  await page.getByLabel('Which answers').selectOption('settled');
  await expect(page.getByText(/^88 answers/)).toBeVisible();
  await expect(codeField(page)).toBeFocused();
  for (let n = 0; n < 9; n++) await page.keyboard.press('PageDown');
  await shoot(page, 'code');
  await page.getByLabel('Which answers').selectOption('open');
  await page.getByLabel('containing').first().fill('shouty');
  await expect(page.getByRole('status').filter({ hasText: /^1 answer/ })).toBeVisible();
  await codeField(page).focus();
  await page.keyboard.press('Alt+h');
  await expect(page.getByRole('dialog').getByText('Codes that may fit')).toBeVisible();
  await shoot(page, 'hard-answer');
  await page.keyboard.press('Escape');
  await go('Train');
  await expect(page.getByRole('heading', { name: 'What would help' })).toBeVisible();
  await expect(page.getByText('Answers are read for meaning.')).toBeVisible();
  await expect(page.getByText(/Last trained/)).toBeVisible();
  await shoot(page, 'train');
  await page.getByRole('link', { name: '2 Value' }).click();
  await go('Review');
  await expect(page.getByRole('slider', { name: 'The line' })).toBeVisible();
  await shoot(page, 'review');
  await acceptAbove(page);
  await page.getByRole('link', { name: 'Tone of lines' }).click();
  await expect(page.getByRole('feed').getByRole('article')).toHaveCount(20);
  await page.keyboard.press('Enter');
  await page.keyboard.press('0');
  await page.keyboard.press('Enter');
  await saved(page);
  await expect(page.getByText(/lines, 3 checked/)).toBeVisible();
  await shoot(page, 'tone');
  await page.getByRole('link', { name: /settled of \d+ answered$/ }).click();
  await expect(page.getByText('Reading what is open takes')).toBeVisible();
  await shoot(page, 'left');
  await go('Report');
  await expect(page.getByText('Theme and code')).toBeVisible();
  await page.getByRole('link', { name: '1 Improve' }).click();
  await expect(page.getByRole('button', { name: /^Reliability, Total/ })).toBeVisible();
  await shoot(page, 'report');
  await page.getByLabel('Counts', { exact: true }).selectOption('all settled by hand');
  await page.getByRole('button', { name: /^Reliability, Hask/ }).click();
  await expect(page.getByRole('dialog').getByRole('listitem').first()).toBeVisible();
  for (const n of [0, 1])
    await page
      .getByRole('dialog')
      .getByRole('button', { name: 'quote', exact: true })
      .nth(n)
      .click();
  await page.keyboard.press('Escape');
  await page.getByLabel('Across', { exact: true }).selectOption('Traveller');
  await page.getByRole('link', { name: 'Charts' }).click();
  await page.getByLabel('Chart', { exact: true }).selectOption('map of rows and columns');
  await expect(page.getByRole('img', { name: /^map of rows and columns/ })).toBeVisible();
  await shoot(page, 'charts');
  await page.getByRole('link', { name: 'Table', exact: true }).click();
  // the charts have a button of this name too
  await expect(page.getByRole('columnheader').first()).toBeVisible();
  await page.getByRole('button', { name: 'Write up' }).click();
  await page.getByRole('menuitem', { name: 'This table in a new write-up' }).click();
  await page.getByLabel('Home', { exact: true }).check();
  await saved(page);
  await expect(page.getByText('Cancelled sailings · Hask').first()).toBeVisible();
  await page.getByRole('button', { name: 'Draft the findings' }).click();
  await saved(page);
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await shoot(page, 'write-up');
  await go('Groups');
  await beginGroup(page);
  await expect(page.getByText(/^[1-9]\d* people$/)).toBeVisible();
  await expect(page.locator('[aria-busy=true]')).toHaveCount(0);
  await shoot(page, 'groups');
  await go('Respondents');
  await page.getByRole('button', { name: 'About Satisfaction' }).click();
  await page.getByLabel('Bands begin at').fill('0, 7, 9');
  await shoot(page, 'respondents');
  await page.keyboard.press('Escape');
  await go('Study');
  await go('Codebook');
  await expect(page.getByLabel('Definition: what belongs here')).toBeVisible();
  await shoot(page, 'codebook');
  await page.getByRole('link', { name: 'Maps of codes' }).click();
  await page.getByLabel('Name of a new map').fill('What keeps people from crossing');
  await page.getByRole('button', { name: 'Add map' }).click();
  await page.getByRole('button', { name: 'Put all themes and codes on it' }).click();
  for (const [from, how, to] of relations) {
    await page.getByRole('group', { name: new RegExp(`^${from},`) }).click();
    await page.getByLabel('How', { exact: true }).fill(how);
    await page.getByLabel('Relate to').selectOption(to);
    await page.getByRole('button', { name: 'Add relation' }).click();
  }
  await page.getByRole('button', { name: 'All relations' }).click();
  await saved(page);
  await shoot(page, 'map');

  await page.getByRole('link', { name: /^Code\b/ }).click();
  await page.getByRole('link', { name: '1 Improve' }).click();
  const question = /\/studies\/\d+\/questions\/\d+/.exec(page.url())![0];
  const first = await firstCodes(page, question);
  await page.goto(`${question}/second-reading`);
  await page.getByLabel('coded again by').selectOption('Demo researcher (you)');
  await page.getByLabel('How many').fill('88');
  await page.getByRole('button', { name: 'Draw 88 answers' }).click();
  await page.waitForURL(/second-reading\/[\w-]+$/);
  await codeAgain(page, question, page.url().split('/').at(-1)!, first);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Code by code' })).toBeVisible();
  await shoot(page, 'agreement');
  await workTogether(page, browser);
});

/** Invites a team, gives one of it answers to code, and merges what another one coded in a copy. */
async function workTogether(page: Page, browser: Browser): Promise<void> {
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await page.getByLabel('Which answers').selectOption('open');
  await page.getByLabel('Order').selectOption('imported');
  await page.getByRole('link', { name: 'Team' }).click();
  const joined: Page[] = [];
  for (const [name, role] of [
    ['Linnet Moor', 'Researcher'],
    ['Tern Arden', 'Coder'],
  ] as const) {
    const person = await (await browser.newContext()).newPage();
    await joinAnew(person, await inviteSomebody(page, name, role), 'seven quiet herons');
    joined.push(person);
  }
  const [linnet, tern] = [joined[0]!, joined[1]!];

  // Linnet takes a copy along, and codes the first open answers of it
  const studyFile = await saveStudyFile(page);
  const answers = async (at: Page, count: number, name: string) => {
    const rail = at.getByRole('navigation', { name: 'Stops of the study' });
    await rail.getByRole('link', { name: /^Code\b/ }).click();
    await at.getByLabel('Which answers').selectOption('open');
    await expect(codeField(at)).toBeFocused();
    for (let n = 0; n < count; n++) {
      await at.keyboard.type(n % 5 === 2 ? 'Price for vehicles' : name);
      await at.keyboard.press('Enter');
      await at.keyboard.press('Enter');
    }
    await saved(at);
  };
  await linnet.getByRole('button', { name: 'Open a copy of a study …' }).click();
  await linnet.getByLabel('File of a saved study').setInputFiles(studyFile);
  await linnet.waitForURL(/studies\/\d+\//);
  await answers(linnet, 24, 'Reliability');
  await linnet.keyboard.type('Ticket machine');
  await linnet.keyboard.press('Shift+Enter');
  await linnet.keyboard.press('Enter');
  await saved(linnet);
  const theirs = await saveStudyFile(linnet);

  await answers(page, 5, 'Reliability');
  await page.getByRole('button', { name: 'Assign …' }).click();
  await page.getByLabel('How many').fill('40');
  await page.getByRole('button', { name: 'Assign 40 answers' }).click();
  await expect(page.getByText(/^\d of 4\d settled/)).toBeVisible();
  await page.keyboard.press('Escape');
  await tern.getByRole('link', { name: /^Brindle Sound ferry/ }).click();
  await answers(tern, 9, 'Booking');
  await page.getByRole('link', { name: 'Team' }).click();
  await inviteSomebody(page, 'Wren Oakes', 'Reader');
  await expect(page.getByText(/^1\d of 4\d settled/)).toBeVisible();
  await shoot(page, 'team');

  await page.getByRole('link', { name: 'Study', exact: true }).click();
  await page.getByLabel('Saved copy to merge').setInputFiles(theirs);
  await expect(page.getByText(/settled in both, by Linnet Moor there/)).toBeVisible();
  await page.getByRole('heading', { name: 'Save a copy' }).evaluate((heading) => {
    heading.scrollIntoView({ block: 'start' });
  });
  await shoot(page, 'merge');
  for (const person of joined) await person.context().close();
}

async function saveStudyFile(page: Page) {
  await page.getByRole('link', { name: 'Study', exact: true }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save a copy (ZIP)' }).click(),
  ]);
  const buffer = await readFile(await file.path());
  return { name: 'copy.zip', mimeType: 'application/zip', buffer };
}

/** Codes the answers of a second reading as they were coded, but for some. */
async function codeAgain(
  page: Page,
  question: string,
  reading: string,
  first: ReadonlyMap<number, string[]>,
): Promise<void> {
  const answersOf = `/api${question}/readings/${reading}/answers`;
  const { csrfToken } = await fetchAs<{ csrfToken: string }>(page, '/api/session');
  const { answers } = await fetchAs<{ answers: { responseId: number }[] }>(page, answersOf);
  const ids = answers.map(({ responseId }) => responseId).sort((x, y) => x - y);
  const all = ids.map((id) => first.get(id) ?? []);
  for (const [i, codes] of all.entries()) {
    const other = all[(i * 7 + 3) % all.length]!;
    const again = i % 6 === 2 ? codes.slice(1) : i % 11 === 4 ? [...codes, ...other] : codes;
    await page.request.put(answersOf, {
      headers: { 'csrf-token': csrfToken },
      data: { responseId: ids[i], codes: again },
    });
  }
}

/** How settled answers are coded: asked for before they are drawn, since it is hidden from the second coder. */
async function firstCodes(page: Page, question: string): Promise<Map<number, string[]>> {
  const { ids } = await fetchAs<{ ids: number[] }>(
    page,
    `/api${question}/ledger?show=settled&same=apart`,
  );
  const codes = new Map<number, string[]>();
  for (let from = 0; from < ids.length; from += 50) {
    const { answers } = await fetchAs<{
      answers: { id: number; mentions: { codeId: string }[] }[];
    }>(page, `/api${question}/answers?ids=${ids.slice(from, from + 50).join(',')}`);
    for (const { id, mentions } of answers)
      codes.set(id, [...new Set(mentions.map((mention) => mention.codeId))]);
  }
  return codes;
}

const fetchAs = async <Body>(page: Page, path: string): Promise<Body> =>
  (await (await page.request.get(path)).json()) as Body;
