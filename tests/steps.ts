import { AxeBuilder } from '@axe-core/playwright';
import { expect, type Cookie, type Page } from '@playwright/test';

let cookies: Cookie[] = [];

/** Enters the product as the demo researcher: by the door once, then with the session kept. */
export async function enterDemo(page: Page): Promise<void> {
  await page.context().addCookies(cookies);
  await page.goto('/');
  if (cookies.length === 0)
    await page.getByRole('button', { name: 'Enter as the demo researcher' }).click();
  await expect(page.getByRole('heading', { name: 'Studies' })).toBeVisible();
  cookies = await page.context().cookies();
}

/** Opens the demo study, trained, at a stop of its first question. */
export async function openDemo(page: Page, stop: string): Promise<void> {
  await enterDemo(page);
  await page.getByRole('link', { name: /^Brindle Sound ferry/ }).click();
  const rail = page.getByRole('navigation', { name: 'Stops of the study' });
  // it opens where somebody stopped, perhaps at another question
  await rail.getByRole('link', { name: /^Import\b/ }).click();
  await page.waitForURL(/\/import$/);
  await expect.poll(() => hasModels(page)).toBe(true);
  await rail.getByRole('link', { name: new RegExp(`^${stop}\\b`) }).click();
}

/** Whether the demo's models are there: they are trained when somebody enters it first. */
async function hasModels(page: Page): Promise<boolean> {
  const study = `/api/studies/${/studies\/(\d+)/.exec(page.url())![1]!}`;
  const read = async <Reply>(path: string) =>
    (await (await page.request.get(path)).json()) as Reply;
  const { questions } = await read<{ questions: { id: number }[] }>(study);
  const trained = await Promise.all(
    questions.map(({ id }) => read<{ run: unknown }>(`${study}/questions/${id}/training`)),
  );
  return trained.every(({ run }) => run !== null);
}

export type SheetFile = string | { name: string; mimeType: string; buffer: Buffer };
export const csvFile = (name: string, text: string): SheetFile => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.from(text),
});

/** Begins a study and uploads a sheet to it. */
export async function beginWith(page: Page, name: string, file: SheetFile): Promise<void> {
  await page.goto('/studies');
  await page.getByLabel('Name').fill(name);
  await page.getByRole('button', { name: 'Create study' }).click();
  await page.locator('input[type=file]').setInputFiles(file);
}

/** Begins a study and brings a sheet into it, taking the guessed roles. */
export async function bringIn(page: Page, name: string, file: SheetFile): Promise<void> {
  await beginWith(page, name, file);
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await page.getByRole('button', { name: 'See what was imported' }).click();
}

/** Builds a group of conditions within conditions, as far as saving it. */
export async function beginGroup(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'New group' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Islanders on price or room');
  await page.getByRole('button', { name: 'Add a condition' }).click();
  for (const home of ['Hask', 'Tye'])
    await page.getByRole('button', { name: home, exact: true }).click();
  await page.getByRole('button', { name: 'Add conditions in brackets' }).click();
  await page.getByRole('button', { name: 'Add a condition' }).first().click();
  await page.getByLabel('What the condition is about').nth(1).selectOption('what they mention');
  await page.getByLabel('Themes that they mention').selectOption('Price');
  await page.getByLabel('Themes that they mention').selectOption('Getting a place');
}

/** Accepts what lies above the line in bulk, also where fewer are expected to be right than one wants. */
export async function acceptAbove(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Accept \d+ above$/ }).click();
  const sure = page.getByRole('button', { name: 'Accept anyway' });
  await expect(sure.or(page.getByRole('button', { name: 'Accept 0 above' }))).toBeVisible();
  if (await sure.isVisible()) await sure.click();
  await expect(page.getByRole('button', { name: 'Accept 0 above' })).toBeVisible();
}

/** The field in which codes are typed. */
export const codeField = (page: Page) => page.getByRole('combobox', { name: 'Code for this line' });

export const saved = (page: Page) =>
  expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible();

/** No view may break WCAG 2.2 A or AA as far as a program can tell, nor be wider than the window. */
export async function expectAccessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze();
  expect(
    violations.map(({ id, nodes }) => ({ id, at: nodes.map((node) => node.html.slice(0, 160)) })),
  ).toEqual([]);
  expect(
    await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
  ).toBeLessThanOrEqual(0);
}

const sizes = [
  [1024, 640],
  [640, 400],
  [320, 640],
  [320, 256],
] as const;

/**
 * A view must work in a small window, which is what a zoomed one is (WCAG 1.4.10): nothing is wider than the window but
 * what scrolls by itself, and a list keeps more than half of its height.
 */
export async function expectReflow(page: Page): Promise<void> {
  for (const [width, height] of sizes) {
    await page.setViewportSize({ width, height });
    const misfits = await page.evaluate(async () => {
      await new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn)));
      const scrolls = (element: Element) => getComputedStyle(element).overflowX !== 'visible';
      const isClipped = (element: Element): boolean => {
        const parent = element.parentElement;
        if (!parent || parent.matches('main, .frame-page, body')) return false;
        return scrolls(parent) || isClipped(parent);
      };
      const tooWide = [...document.querySelectorAll('body *')].filter((element) => {
        const { right, width: wide } = element.getBoundingClientRect();
        return (
          wide > 0 &&
          right > window.innerWidth + 1 &&
          !element.matches('main') &&
          !isClipped(element)
        );
      });
      const tooLow = [...document.querySelectorAll('.list')].filter(
        (list) => list.clientHeight < window.innerHeight / 2,
      );
      return [...tooWide, ...tooLow].map((element) => element.outerHTML.slice(0, 160));
    });
    expect({ width, height, misfits }).toEqual({ width, height, misfits: [] });
    if (width === 640) await expectAccessible(page);
  }
}

/** Invites somebody on the team page. @returns the link that they open */
export async function inviteSomebody(page: Page, name: string, role: string): Promise<string> {
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Role', { exact: true }).selectOption(role);
  await page.getByRole('button', { name: 'Make a link' }).click();
  await expect(page.getByText(`Send this link to ${name}.`)).toBeVisible();
  return (await page.getByRole('main').locator('code').textContent())!;
}

/** Opens an invitation as somebody new, by keyboard from the name on. */
export async function joinAnew(page: Page, link: string, password: string): Promise<void> {
  await page.goto(link);
  await page.getByLabel('Password').fill(password);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Studies' })).toBeVisible();
}
