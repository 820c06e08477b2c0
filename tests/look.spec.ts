import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { bringIn, csvFile, enterDemo, openDemo } from './steps.js';

const peopleIn = async (page: Page, name: RegExp) =>
  Number(/(\d+)/.exec((await page.getByRole('button', { name }).getAttribute('aria-label'))!)![1]);

test('a group’s words against all others lead to its answers', async ({ page }) => {
  await openDemo(page, 'Look');
  await page.getByRole('link', { name: 'Groups compared' }).click();
  await expect(page.getByRole('heading', { name: 'Whose words are compared?' })).toBeVisible();
  await page.getByLabel('Compare', { exact: true }).selectOption('Home');
  await page.getByLabel('those of').selectOption('Hask');
  const row = page.getByRole('row').filter({ hasText: 'cancellations' });
  const [people] = /\d+/.exec((await row.getByRole('cell').nth(1).textContent())!)!;
  await row.getByRole('button').click();
  await expect(page.getByRole('dialog')).toContainText(`in ${people} answers`);
  await page.getByRole('link', { name: 'Read them in Code' }).click();
  await expect(page.getByText(`${people} answers`)).toBeVisible();
  await page.goBack();
  await page.getByLabel('Compare', { exact: true }).selectOption('What is mentioned');
  await page.getByLabel('those of').selectOption('Price: any of its codes');
  await expect(page.getByRole('heading', { name: 'Price: more than all others' })).toBeVisible();
});

test('words together are walked by keyboard, hidden and brought back; the picture leaves whole', async ({
  page,
}) => {
  await openDemo(page, 'Look');
  await page.getByRole('link', { name: 'Words together' }).click();
  const picture = page.getByRole('region', { name: 'Words that stand in one line' });
  const words = picture.locator('[data-word]');
  await expect(words.first()).toBeVisible();
  const places = () => words.evaluateAll((all) => all.map((one) => one.innerHTML));
  const before = await places();
  await page.reload();
  await expect(words.first()).toBeVisible();
  expect(await places()).toEqual(before);

  const people = await peopleIn(page, /^queue: /);
  await words.first().focus();
  await page.keyboard.press('ArrowRight');
  await expect(words.first()).not.toBeFocused();
  await picture.getByRole('button', { name: /^queue: / }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText(`in ${people} answers`);
  await page.keyboard.press('Escape');
  await picture.getByRole('button', { name: /^queue: / }).focus();
  await page.keyboard.press('+');
  await page.keyboard.press('+');
  await expect(picture.getByRole('button', { name: 'Whole' })).toBeEnabled();

  const take = async (name: RegExp) => {
    await picture.getByRole('button', { name: 'Files' }).click();
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name }).click(),
    ]);
    return readFile(await file.path());
  };
  const svg = (await take(/^Picture, SVG/)).toString();
  for (const word of ['queue', 'carrow', 'winter']) expect(svg).toContain(`>${word}</text>`);
  expect(svg).not.toContain('var(--');
  const png = await take(/^Picture, PNG/);
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  // twice as fine as the drawing
  expect(png.readUInt32BE(16)).toBe(2 * Number(/<svg[^>]* width="(\d+)"/.exec(svg)![1]));
  expect((await take(/^Network, GraphML/)).toString()).toContain(
    '<data key="node-label">queue</data>',
  );

  await picture.getByRole('button', { name: /^queue: / }).focus();
  await page.keyboard.press('h');
  const back = page.getByRole('button', { name: 'Bring back queue' });
  await expect(back).toBeVisible();
  await expect(picture.getByRole('button', { name: /^queue: / })).toHaveCount(0);
  await back.click();
  await expect(picture.getByRole('button', { name: /^queue: / })).toBeVisible();
});

test('each place of a word stands below the other, sorted by either side', async ({ page }) => {
  await openDemo(page, 'Look');
  await page.getByRole('link', { name: 'In context' }).click();
  await page.getByLabel('Word or phrase').fill('boats');
  await page.keyboard.press('Enter');
  const places = page.getByRole('region', { name: 'every place' }).getByRole('row');
  await expect(page.getByText(/^\d+ places in \d+ answers$/)).toBeVisible();
  await page.getByLabel('Sorted by').selectOption('what stands before');
  const last = (await places.getByRole('cell').nth(0).textContent())!;
  const wordsBefore = await places.evaluateAll((rows) =>
    rows
      .slice(1)
      .map((row) => (row.firstChild!.textContent ?? '').split(' ').at(-1)!.toLowerCase()),
  );
  expect(last).not.toBe('');
  const said = wordsBefore.filter((word) => word !== '');
  expect(said).toEqual(
    said.toSorted((x, y) => x.localeCompare(y, 'en', { ignorePunctuation: true })),
  );
  await places.getByRole('button').first().click();
  await expect(page.getByRole('dialog').getByRole('listitem')).toHaveCount(1);
  await expect(page.getByRole('dialog').getByRole('listitem')).toContainText(/boat/i);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Code these places' }).click();
  await expect(page.getByRole('dialog').getByRole('checkbox').first()).toBeVisible();
});

test('themes that may have been missed are adopted, kept for later and dismissed, one by one', async ({
  page,
}) => {
  await openDemo(page, 'Look');
  await page.getByRole('link', { name: 'What people say' }).click();
  const typical = page.getByRole('region', { name: 'Answers that stand for most' });
  const first = typical.getByRole('listitem').first();
  const quote = (await first.getByRole('blockquote').textContent())!;
  const like = Number(/(\d+) answers? like it/.exec((await first.textContent())!)![1]);
  await first.getByRole('button', { name: /like it$/ }).click();
  const drawer = page.getByRole('dialog');
  await expect(drawer.getByRole('listitem')).toHaveCount(like + 1);
  await expect(drawer.getByRole('listitem').first()).toContainText(quote);
  await page.keyboard.press('Escape');

  const missed = page.getByRole('region', { name: 'Themes that may have been missed' });
  await missed.getByRole('slider').focus();
  await page.keyboard.press('Home');
  await expect(missed.getByRole('heading', { level: 3 })).toHaveCount(2);
  await page.keyboard.press('End');
  await expect(page).toHaveURL(/clusters=20/);
  // at most ten are shown
  await expect(missed.getByRole('heading', { level: 3 })).toHaveCount(10);
  await missed.getByRole('button', { name: 'as many as fit best' }).click();
  const cluster = (n: number) =>
    missed
      .locator('li')
      .filter({ has: page.getByRole('heading', { level: 3 }) })
      .nth(n);
  await expect(cluster(1)).toBeVisible();
  const answers = Number(
    /\d+/.exec(
      (await cluster(0)
        .getByRole('button', { name: /^\d+ answers?$/ })
        .textContent())!,
    )![0],
  );
  await cluster(0).getByRole('button', { name: 'Make it a code …' }).click();
  await page.getByLabel('Name of the code').fill('Waiting on the slip');
  await page.keyboard.press('Enter');
  const decided = page.getByRole('region', { name: 'Decided' }).getByRole('listitem');
  await expect(decided).toContainText(`Waiting on the slipa code${answers} answers`);
  await cluster(0).getByRole('button', { name: 'No theme' }).click();
  await expect(decided).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await expect(decided).toHaveCount(1);
  await decided.getByRole('link', { name: 'Check them in Code' }).click();
  await page.waitForURL(/\/code\?cluster=/);
  await expect(page.getByText(`${answers} answers`).first()).toBeVisible();
  await expect(page.getByRole('article').first()).not.toContainText('Waiting on the slip');
});

test('many answers are gathered when asked for; what stands for most of those filtered in Code', async ({
  page,
}) => {
  await enterDemo(page);
  const said = ['The toilets and seats on deck', 'late boats every winter', 'dear fares for cars'];
  const rows = Array.from({ length: 5100 }, (_, i) => `${i},${said[i % 3]} ${i}`);
  await bringIn(page, 'Many', csvFile('many.csv', `id,What else?\n${rows.join('\n')}\n`));
  await page.getByRole('link', { name: /^Look\b/ }).click();
  await page.getByRole('link', { name: 'What people say' }).click();
  await page.getByRole('button', { name: 'Gather them' }).click();
  await expect(page.getByRole('button', { name: 'Make it a code …' })).toHaveCount(3);

  await page.getByRole('link', { name: /^Code\b/ }).click();
  await page.getByLabel('containing').first().fill('winter');
  await expect(page.getByRole('status').filter({ hasText: /^1,700 answers/ })).toBeVisible();
  await page.getByRole('link', { name: 'What they say' }).click();
  await expect(page.getByText(/of 1,700 answers;/)).toBeVisible();
  await page.getByRole('link', { name: 'only those filtered in Code' }).click();
  await expect(page.getByRole('status').filter({ hasText: /^1,700 answers/ })).toBeVisible();
});
