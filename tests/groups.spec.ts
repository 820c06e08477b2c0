import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { beginGroup, expectAccessible, openDemo, saved } from './steps.js';

test('a nested group restricts the study; its table is read, a cell opened, a draft written and removed', async ({
  page,
}) => {
  await openDemo(page, 'Groups');
  await beginGroup(page);
  await page.getByLabel('Which question').selectOption('Improve');
  await expect(
    page.getByText(
      'Respondents whose “Home” is Hask or Tye, and who mention “Price” or “Getting a place” answering “Improve”.',
    ),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Save the group' }).click();
  const row = page.getByRole('listitem').filter({ hasText: 'Islanders on price or room' });
  const people = Number(/(\d+) people/.exec((await row.textContent())!)![1]);
  expect(people).toBeGreaterThan(5);

  await row.getByRole('button', { name: 'Look at these only' }).click();
  const only = page.getByRole('status').filter({ hasText: 'Only Islanders on price or room' });
  await expect(only).toContainText(`${people} of 450 respondents`);
  await page.getByRole('link', { name: /^Code\b/ }).click();
  await expect(page.getByText(`${people} answers`)).toBeVisible();
  await page.getByRole('link', { name: /^Report\b/ }).click();
  await expect(
    page.getByText(`${people} settled of ${people} answered · ${people} asked`),
  ).toBeVisible();
  await expect(page.getByRole('columnheader', { name: /^Hask|^Tye/ })).toHaveCount(2);

  // the number on the screen, in the API, and in the drawer
  const cell = page.getByRole('button', { name: /^Price, Total:/ });
  const shown = /: (\d+%), (\d+) of (\d+)/.exec((await cell.getAttribute('aria-label'))!)!;
  expect(Number(shown[3])).toBe(people);
  await cell.click();
  const drawer = page.getByRole('dialog', { name: 'Price: Total' });
  await expect(drawer).toContainText(`${shown[2]} people`);
  await drawer.getByRole('button', { name: 'quote' }).first().click();
  const quoted = drawer.getByRole('listitem').first().getByRole('button', { name: 'quoted' });
  await expect(quoted).toBeVisible();
  const words = (await drawer.getByRole('listitem').first().locator('p').first().textContent())!;
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Write up' }).click();
  await page.getByRole('menuitem', { name: 'This table in a new write-up' }).click();
  await page.getByRole('button', { name: 'Draft the findings' }).click();
  const text = page.getByLabel('The text of the write-up');
  await expect(text).toContainText(
    `Price is mentioned by ${shown[1]} of people who answered (${shown[2]} of ${people}`,
  );
  await expect(text.getByRole('blockquote')).toContainText(words);
  await page.keyboard.type('Our own words. ');
  await expect(text).toContainText('Our own words.');
  await saved(page);
  await page.getByRole('button', { name: 'Files' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: /^CSV/ }).click(),
  ]);
  const lines = (await readFile(await download.path(), 'utf8')).split('\r\n');
  expect(lines.find((line) => line.startsWith('theme,,Price,'))).toContain(
    `theme,,Price,${shown[2]},${people},`,
  );
  expect(lines.some((line) => line.includes('Islanders on price or room: respondents whose'))).toBe(
    true,
  );

  // it reopens as it was; the group's change reaches its figures, which offer to follow
  await page.reload();
  await expect(text).toContainText('Our own words.');
  await page.getByRole('button', { name: 'Look at everybody' }).click();
  await page.getByRole('link', { name: 'Groups', exact: true }).click();
  await page.getByRole('button', { name: 'Change Islanders on price or room' }).click();
  await page.getByRole('button', { name: 'Carrow', exact: true }).click();
  await page.getByRole('button', { name: 'Save the group' }).click();
  await saved(page);
  await page.goBack();
  await page.getByRole('button', { name: 'Update' }).click();
  await expect(page.getByText(/figures? changed since/)).toBeHidden();
  await saved(page);
});

/** How far two pictures of one chart differ once both are pixels: the share of pixels that are clearly other. */
const differingPixels = (page: Page, png: Buffer, svg: Buffer) =>
  page.evaluate(
    async (sources) => {
      const drawn = await Promise.all(
        sources.map(async (source) => {
          const image = new Image();
          image.src = source;
          await image.decode();
          const canvas = document.createElement('canvas');
          canvas.width = image.naturalWidth;
          canvas.height = image.naturalHeight;
          return { image, canvas, context: canvas.getContext('2d')! };
        }),
      );
      const [{ canvas: size }] = drawn.toReversed() as [(typeof drawn)[number]];
      const [one, other] = drawn.map(({ image, context }) => {
        context.drawImage(image, 0, 0, size.width, size.height);
        return context.getImageData(0, 0, size.width, size.height).data;
      });
      let differing = 0;
      for (let i = 0; i < one!.length; i += 4)
        if ([0, 1, 2].some((k) => Math.abs(one![i + k]! - other![i + k]!) > 80)) differing++;
      return differing / (one!.length / 4);
    },
    [
      `data:image/png;base64,${png.toString('base64')}`,
      `data:image/svg+xml;base64,${svg.toString('base64')}`,
    ],
  );

test('every chart is the same as PNG and as SVG', async ({ page }) => {
  await openDemo(page, 'Report');
  await page.getByRole('link', { name: 'Charts' }).click();
  await page.getByLabel('Across').selectOption('Home');
  const blank = await page.context().newPage();
  for (const [kind, part] of [
    ['bars with intervals', 'Carrow'],
    ['shares of all mentions, stacked', 'Carrow'],
    ['slope between two columns', ' → '],
    ['differences of two columns', 'percentage points'],
    ['heat grid', 'Carrow'],
    ['map of rows and columns', 'Axis 1'],
  ] as const) {
    await page.getByLabel('Chart', { exact: true }).selectOption(kind);
    const canvas = page.getByRole('img', { name: new RegExp(`^${kind}`, 'u') });
    await expect(canvas).toBeVisible();
    const take = async (name: 'PNG' | 'SVG') => {
      const [file] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('button', { name }).click(),
      ]);
      return readFile(await file.path());
    };
    const [png, svg] = [await take('PNG'), await take('SVG')];
    expect(svg.toString()).toContain(part);
    // letters are smoothed in other ways
    expect([kind, await differingPixels(blank, png, svg)]).toEqual([kind, expect.closeTo(0, 1.7)]);
  }
  await blank.close();
});

test('charts leave whole as PNG and SVG, and a group is made of a number in one action', async ({
  page,
}) => {
  await openDemo(page, 'Report');
  await page.getByRole('link', { name: 'Charts' }).click();
  await page.getByLabel('of the', { exact: true }).selectOption('whole table');
  const canvas = page.getByRole('img', { name: /^bars with intervals/ });
  // it is drawn once its letters are loaded, and then as high as it must be
  const drawn = () => canvas.evaluate((one: HTMLCanvasElement) => parseInt(one.style.height) || 0);
  await expect.poll(drawn).toBeGreaterThan(1500);
  const height = await drawn();
  const take = async (name: 'PNG' | 'SVG') => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name }).click(),
    ]);
    return readFile(await file.path());
  };
  const png = await take('PNG');
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  // twice as fine, and as high as the whole chart, most of which is not in the window
  expect(png.readUInt32BE(20)).toBe(2 * height);
  const svg = (await take('SVG')).toString();
  for (const part of ['What one thing would most improve', 'Bicycles and dogs', '95% intervals'])
    expect(svg).toContain(part);

  // put into a write-up it stands in its text, and in the document
  await page.getByRole('button', { name: 'Write up' }).click();
  await page.getByRole('menuitem', { name: 'This chart in a new write-up' }).click();
  const tray = page.getByRole('complementary', { name: 'Tables and quotes' });
  await tray.getByRole('button', { name: 'Insert into the text' }).click();
  const picture = page.getByLabel('The text of the write-up').getByRole('img');
  await expect
    .poll(() => picture.evaluate((one: HTMLImageElement) => one.naturalHeight))
    .toBe(2 * height);
  await saved(page);
  await page.reload();
  await expect(picture).toHaveAccessibleName(/^bars with intervals/);
  await expectAccessible(page);
  await page.getByRole('link', { name: /^Report\b/ }).click();

  await page.getByRole('link', { name: 'Codes together' }).click();
  await expect(page.getByRole('button', { name: 'Told in time + Running late' })).toBeVisible();
  await page.getByLabel('As', { exact: true }).selectOption('grid');
  await page.getByLabel('Shown', { exact: true }).selectOption('phi: correlation, −1 to 1');
  await page.getByRole('button', { name: /^Told in time with Running late:/ }).click();
  const drawer = page.getByRole('dialog', { name: 'Told in time with Running late' });
  await drawer.getByRole('button', { name: 'Make a group' }).click();
  await page.getByRole('button', { name: 'See it' }).click();
  await expect(page.getByRole('form', { name: /^The group Mentions Told in time/ })).toContainText(
    'Respondents who mention “Told in time” answering “Improve”, and who mention “Running late” answering “Improve”.',
  );
});

test('a variable of what is mentioned breaks the report down, and is what its rule says it is', async ({
  page,
}) => {
  await openDemo(page, 'Groups');
  await page.getByRole('button', { name: 'Make a variable' }).press('Enter');
  const drawer = page.getByRole('dialog', { name: 'A new variable' });
  await drawer.getByLabel('Its categories are').selectOption('whether something is mentioned');
  await drawer.getByLabel('Theme or code').selectOption('Price');
  await drawer.getByLabel('Mentioned in').selectOption('Improve');
  await expectAccessible(page);
  await drawer.getByLabel('Name of the new variable').press('Enter');
  await saved(page);
  await expect(drawer).toBeHidden();

  await page.getByRole('link', { name: /^Report\b/ }).click();
  await page.getByLabel('Counts').selectOption('all settled by hand');
  await page.getByLabel('Across', { exact: true }).selectOption('Mentions Price, Improve');
  await expect(page.getByRole('columnheader', { name: /^(YesA|NoB) / })).toHaveCount(2);
  const price = (column: string) => page.getByRole('button', { name: `Price, ${column}:` });
  await expect(price('Yes')).toContainText('100%');
  await expect(price('No')).toContainText('0%');

  await page.getByRole('link', { name: 'Respondents', exact: true }).click();
  await page.getByRole('button', { name: 'About Mentions Price, Improve' }).click();
  await expect(
    page.getByText('who are decided for and do not mention “Price” answering “Improve”'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Remove this variable' }).click();
  await saved(page);
  await expect(page.getByRole('columnheader', { name: /^Mentions Price/ })).toBeHidden();
});
