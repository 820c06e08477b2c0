import { expect, test, type Page } from '@playwright/test';
import { acceptAbove, expectAccessible, openDemo, saved } from './steps.js';

test('the bulk is spot-checked by keyboard: read blind, measured, told in the report', async ({
  page,
}) => {
  await openDemo(page, 'Review');
  await page.getByRole('link', { name: '2 Value' }).click();
  await page.getByRole('link', { name: /^Family and friends/ }).click();
  await acceptAbove(page);
  await page.getByRole('button', { name: 'Spot check' }).click();
  const drawer = page.getByRole('dialog');
  await drawer.getByLabel('How many of those accepted to read').selectOption('25');
  await expect(drawer).toContainText('if .90 are right: 0.72 to 0.97');
  await expectAccessible(page);
  await drawer.getByRole('button', { name: 'Draw 25' }).click();
  await drawer.getByRole('link', { name: 'Read them', exact: true }).click();
  await drawer.getByRole('button', { name: 'Close the drawer' }).click();
  const read = page.getByRole('status').filter({ hasText: /of 25 read/ });
  await expect(read).toHaveText('0 of 25 read');
  await expectAccessible(page);
  for (let n = 0; n < 23; n++) await page.keyboard.press('a');
  await page.keyboard.press('r');
  await page.keyboard.press('u');
  await expect(read).toHaveText('25 of 25 read');
  await saved(page);
  await page.getByRole('button', { name: 'See what was found' }).click();
  await expect(drawer).toContainText('25 read, 1 unsure');
  await expect(
    drawer.getByRole('img', { name: 'right 0.96, between 0.80 and 0.99' }),
  ).toBeVisible();
  await drawer.getByRole('button', { name: 'Close the drawer' }).click();
  await page.getByRole('link', { name: /^Report\b/ }).click();
  await expect(
    page.getByText('A spot check of Family and friends read 24 answers accepted in bulk'),
  ).toContainText('it applied to 0.96 of them (95% interval 0.80 to 0.99), before anything');
});

test('suggestions stand beside an answer in the ledger, are accepted and refused by key, and undone', async ({
  page,
}) => {
  await openDemo(page, 'Code');
  await page.getByRole('link', { name: '3 Decided against' }).click();
  await page.getByLabel('Which answers').selectOption('with suggestions');
  await page.getByLabel('Order', { exact: true }).selectOption('most likely first');
  // until they come, the answers in the order before stand there
  await page.reload();
  const first = page.getByRole('article').first();
  const suggested = first.getByTitle(/^suggested, probability/);
  await expect(suggested.first()).toBeVisible();
  const count = await suggested.count();
  const name = (await first
    .getByRole('button', { name: /^Accept / })
    .first()
    .getAttribute('aria-label'))!.replace('Accept ', '');
  await expectAccessible(page);
  await page.keyboard.press('Alt+a');
  await expect(suggested).toHaveCount(count - 1);
  await expect(first.locator('[data-label]').filter({ hasText: name })).toBeVisible();
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(page.getByText(`Undid: accepting “${name}”`)).toBeVisible();
  await expect(suggested).toHaveCount(count);
  await page.keyboard.press('Alt+o');
  await expect(suggested).toHaveCount(count - 1);
  await expect(first.getByRole('button', { name: `Accept ${name}` })).toHaveCount(0);
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(suggested).toHaveCount(count);
});

test('where no code is likely “nothing applies” is suggested, and settled by one key', async ({
  page,
}) => {
  await openDemo(page, 'Code');
  await page.getByRole('link', { name: '3 Decided against' }).click();
  await page.getByLabel('Which answers').selectOption('no code likely');
  const first = page.getByRole('article').first();
  await expect(first).toContainText('nothing applies?');
  await page.keyboard.press('Control+Enter');
  await expect(first).toContainText('· nothing applies');
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(first).not.toContainText('· nothing applies');
});

test('one by one by keyboard: for marked words, another code instead and as well, unsure, beside what was coded by hand', async ({
  page,
}) => {
  await openDemo(page, 'Review');
  await page.getByRole('link', { name: '2 Value' }).click();
  await page.getByRole('link', { name: /^Lifeline/ }).click();
  // the list of the code before is shown until this one has loaded
  const list = page.getByRole('feed', { name: 'Suggestions of Lifeline' });
  const row = (at: number) => list.getByRole('article').nth(at);
  const active = list.locator('[aria-current=true]');
  await expect(active).toBeVisible();
  const decided = async () => {
    const said = page.getByText(/\d+ accepted/).filter({ hasText: 'refused' });
    return [...(await said.textContent())!.matchAll(/\d+/gu)].map(Number);
  };
  const [accepted, refused] = await decided();

  // words are marked, and the code is stitched to them
  await page.keyboard.press('Shift+ArrowRight');
  const marked = await active.locator('.bg-wash').textContent();
  await page.keyboard.press('a');
  await expect(row(0).locator('.box-decoration-clone')).toHaveText(marked!);

  const give = async (key: string, letters: string) => {
    await page.keyboard.press(key);
    await expect(active.getByRole('combobox')).toBeFocused();
    await page.keyboard.type(letters);
    await page.keyboard.press('Enter');
  };
  await give('w', 'told in');
  await expect(row(1)).toContainText('accepted · Demo researcher');
  await expect(row(1).getByText('Told in time', { exact: true })).toBeVisible();
  await give('i', 'sea and');
  await expect(row(2)).toContainText('refused · Demo researcher');
  await expect(row(2).getByText(/^Sea and scenery$/)).toBeVisible();
  await page.keyboard.press('u');
  await page.keyboard.press('ArrowDown');
  await expect(row(3)).toContainText('unsure');
  await saved(page);

  await page.keyboard.press('h');
  const drawer = page.getByRole('dialog');
  await expect(drawer.getByRole('list', { name: 'Coded by hand' })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Who decided what' }).click();
  await expect(drawer).toContainText('Demo researcher:');
  await page.keyboard.press('Escape');

  await page.reload();
  await expect(row(0).locator('.box-decoration-clone')).toHaveText(marked!);
  await expect(row(3)).toContainText('unsure');
  // answers of the same words are decided with them
  await expect.poll(async () => (await decided())[0]).toBeGreaterThanOrEqual(accepted! + 2);
  expect((await decided())[1]).toBeGreaterThanOrEqual(refused! + 1);
  for (let n = 0; n < 4; n++) {
    await page.keyboard.press('Control+z');
    await expect(page.getByText(/^Undid: /).nth(0)).toBeVisible();
    await saved(page);
  }
  await expect(list.getByText('Told in time', { exact: true })).toHaveCount(0);
});

test('two who decide the same suggestion at once end with the same decision, without a reload', async ({
  page,
  context,
}) => {
  await openDemo(page, 'Review');
  await page.getByRole('link', { name: '2 Value' }).click();
  await page.getByRole('link', { name: /^Sea and scenery/ }).click();
  await expect(page.getByRole('heading', { name: 'Sea and scenery' })).toBeVisible();
  const other = await context.newPage();
  await other.goto(page.url());
  const state = (one: typeof page, at: number) =>
    one.getByRole('feed').getByRole('article').nth(at).getByRole('img').last();
  await expect(state(other, 0)).toBeVisible();
  await page.keyboard.press('a');
  await expect(state(other, 0)).toHaveAccessibleName('accepted');

  await page.bringToFront();
  await Promise.all([
    page.keyboard.press('a'),
    other.keyboard.press('ArrowDown').then(() => other.keyboard.press('r')),
  ]);
  await saved(page);
  await saved(other);
  const decided = await decisionAfresh(page, 1);
  expect(['accepted', 'refused']).toContain(decided);
  for (const one of [page, other]) await expect(state(one, 1)).toHaveAccessibleName(decided);

  // the list that the other's decision has fetched is from before one's own, and comes after it
  let release = () => {};
  const held = new Promise<void>((resolve) => (release = resolve));
  let asked = 0;
  const early = new Promise<void>((resolve) => {
    void page.route('**/suggestions?*', async (route) => {
      if ((asked += 1) > 1) return route.continue();
      const response = await route.fetch();
      resolve();
      await held;
      await route.fulfill({ response }).catch(() => undefined); // called off by then
    });
  });
  await other.bringToFront();
  await other.keyboard.press('a');
  await early;
  await page.bringToFront();
  await page.keyboard.press('ArrowDown');
  const settled = page.waitForResponse('**/decide');
  await page.keyboard.press('r');
  await settled;
  release();
  await expect(state(page, 2)).toHaveAccessibleName('accepted');
  await expect(state(page, 3)).toHaveAccessibleName('refused');
});

/** What a page that is fetched again says of a suggestion. */
async function decisionAfresh(page: Page, at: number): Promise<string> {
  const fresh = await page.context().newPage();
  await fresh.goto(page.url());
  const knot = fresh.getByRole('feed').getByRole('article').nth(at).getByRole('img').last();
  const name = await knot.getAttribute('aria-label');
  await fresh.close();
  return name!;
}
