import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { bringIn, csvFile, enterDemo, expectAccessible, expectReflow, saved } from './steps.js';

/** Fares and steps go together; the queue and the crew go with nobody. */
const rows = Array.from({ length: 24 }, (_, i) => {
  const both = i % 3 === 0;
  const said = both ? 'dear fares, steep steps' : `number ${i} has no more to say`;
  return `${i},"${said}",${Number(both)},${Number(both)},${Number(i % 4 === 0)},${Number(i % 5 === 1)}`;
});
const sheet = csvFile('coded.csv', `id,Why?,Fares,Steps,Queue,Crew\n${rows.join('\n')}\n`);

const map = (page: Page) => page.getByRole('region', { name: 'Map of codes' });
const node = (page: Page, name: string) =>
  map(page).getByRole('group', { name: new RegExp(`^${name},`) });
const panel = (page: Page) => page.getByRole('complementary', { name: 'What is on the map' });

async function openNewMap(page: Page, name: string): Promise<void> {
  await enterDemo(page);
  await bringIn(page, name, sheet);
  await page.getByRole('link', { name: 'Codebook', exact: true }).click();
  await page.getByRole('link', { name: 'Maps of codes' }).click();
  await page.getByLabel('Name of a new map').fill('What drives what');
  await page.getByRole('button', { name: 'Add map' }).click();
  await page.getByRole('button', { name: 'Put all themes and codes on it' }).click();
  await expect(node(page, 'Fares')).toBeVisible();
}

test('codes are laid out and joined by hand, by mouse and by keys; it is undone, and leaves as files', async ({
  page,
}) => {
  await openNewMap(page, 'Mapped');
  // what goes together more than by chance is offered, and becomes a relation when it is taken
  await panel(page).getByRole('button', { name: 'Relate Fares and Steps' }).click();
  await panel(page).getByLabel('Relation', { exact: true }).fill('makes worse');
  await panel(page).getByLabel('Direction').selectOption('Steps → Fares');
  await panel(page).getByLabel('Note').fill('they say so');
  await panel(page).getByText('Pin what people said').click();
  await panel(page)
    .getByRole('button', { name: /^Pin “/ })
    .first()
    .click();
  await expect(panel(page).getByRole('button', { name: /^Unpin/ })).toHaveCount(1);
  await panel(page).getByRole('button', { name: 'All relations' }).click();
  await expect(
    panel(page).getByRole('button', { name: 'Steps makes worse → Fares' }),
  ).toBeVisible();

  // from one node to another: by its edge, and by keys alone
  const queue = (await node(page, 'Queue').boundingBox())!;
  const crew = (await node(page, 'Crew').boundingBox())!;
  await page.mouse.move(queue.x + queue.width / 2, queue.y + 5);
  await page.mouse.move(queue.x + queue.width, queue.y + queue.height / 2);
  await page.mouse.down();
  await page.mouse.move(crew.x + crew.width - 2, crew.y + crew.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect(panel(page).getByLabel('Relation', { exact: true })).toHaveValue('leads to');
  await saved(page);
  await panel(page).getByRole('button', { name: 'All relations' }).click();
  await node(page, 'Crew').focus();
  await page.keyboard.press('Enter');
  await expect(panel(page).getByRole('heading', { name: 'Crew' })).toBeVisible();
  const before = (await node(page, 'Crew').boundingBox())!;
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight');
  await expect
    .poll(async () => (await node(page, 'Crew').boundingBox())!.x)
    .toBeGreaterThan(before.x);
  await saved(page);
  await page.reload();
  await expect(node(page, 'Crew')).toBeVisible();
  await panel(page).getByLabel('Relate to').selectOption('Fares');
  await panel(page).getByRole('button', { name: 'Add relation' }).click();
  await expect(panel(page).getByRole('button', { name: 'Crew leads to → Fares' })).toBeVisible();

  const take = async (name: RegExp) => {
    await page.getByRole('button', { name: 'Save as' }).click();
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name }).click(),
    ]);
    return readFile(await file.path());
  };
  const svg = (await take(/^Drawing/)).toString();
  for (const words of ['>Fares</text>', '>makes worse</text>', '>Crew</text>'])
    expect(svg).toContain(words);
  const png = await take(/^Picture/);
  expect(png.readUInt32BE(16)).toBe(2 * Number(/<svg[^>]* width="(\d+)"/.exec(svg)![1]));
  expect((await take(/^Graph/)).toString()).toContain('makes worse');
  expect((await take(/^Relations/)).toString()).toContain('dear fares, steep steps');

  // a node goes with its relations, and comes back with them
  // the menu gives its focus back when it is closed
  await expect(page.getByRole('menu')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Save as' })).toBeFocused();
  await node(page, 'Fares').focus();
  await page.keyboard.press('Enter');
  await expect(panel(page).getByRole('heading', { name: 'Fares' })).toBeVisible();
  await page.keyboard.press('Delete');
  await expect(node(page, 'Fares')).toHaveCount(0);
  await expect(panel(page).getByRole('button', { name: /Queue leads to/ })).toBeVisible();
  await expect(panel(page).getByRole('button', { name: /makes worse/ })).toHaveCount(0);
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(node(page, 'Fares')).toBeVisible();
  await expect(panel(page).getByRole('button', { name: /makes worse/ })).toBeVisible();
});

test('a map is accessible in both schemes and fits small windows', async ({ page }) => {
  await openNewMap(page, 'Mapped for all');
  await expectAccessible(page);
  await page.emulateMedia({ colorScheme: 'dark' });
  await node(page, 'Fares').click();
  await expect(panel(page).getByRole('heading', { name: 'Fares' })).toBeVisible();
  await expectAccessible(page);
  await expectReflow(page);
});
