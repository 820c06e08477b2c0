import { chromium, type Page } from 'playwright-core';
import { rounded } from './material.js';
import { address } from './product.js';

/** Runs something with a browser that opens pages that are signed in, each with nothing kept from the others. */
export async function withPages<Result>(
  cookie: string,
  work: (open: () => Promise<Page>) => Promise<Result>,
) {
  const browser = await chromium.launch({
    executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
    chromiumSandbox: false,
    args: ['--disable-gpu'],
  });
  try {
    return await work(async () => {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
      const [name, value] = cookie.split('=') as [string, string];
      await context.addCookies([{ name, value: decodeURIComponent(value), url: address }]);
      const page = await context.newPage();
      await page.goto(address);
      return page;
    });
  } finally {
    await browser.close();
  }
}

/** From going to an address to the frame that first shows an answer, measured inside the page. */
export async function firstScreen(page: Page, url: string): Promise<number> {
  await page.addInitScript(() => {
    new MutationObserver((_, observer) => {
      if (!document.querySelector('article')) return;
      observer.disconnect();
      requestAnimationFrame((at) => Object.assign(window, { firstShown: at }));
    }).observe(document, { childList: true, subtree: true });
  });
  await page.goto(url);
  const shown = await page.waitForFunction(
    () => (window as unknown as { firstShown?: number }).firstShown,
  );
  return Number(await shown.jsonValue());
}

/**
 * From a key to what it did standing in the page, and to the frame that shows it, measured inside the page.
 *
 * @param before what is done before each press
 */
export async function keyToFrame(
  page: Page,
  key: string,
  times: number,
  before: (n: number) => Promise<void> = () => Promise.resolve(),
): Promise<{ changed: number[]; painted: number[] }> {
  await page.evaluate((awaited) => {
    const measured = { changed: [] as number[], painted: [] as number[] };
    Object.assign(window, { measured });
    const all = { subtree: true, childList: true, attributes: true, characterData: true };
    window.addEventListener(
      'keydown',
      (event) => {
        if (event.key !== awaited) return;
        const at = performance.now();
        new MutationObserver((_, observer) => {
          observer.disconnect();
          measured.changed.push(performance.now() - at);
        }).observe(document, all);
        requestAnimationFrame(() => {
          const channel = new MessageChannel();
          // after the frame is painted
          channel.port1.onmessage = () => measured.painted.push(performance.now() - at);
          channel.port2.postMessage(null);
        });
      },
      true,
    );
  }, key);
  type Measured = Window & { measured: Awaited<ReturnType<typeof keyToFrame>> };
  for (let n = 0; n < times; n++) {
    await before(n);
    await page.keyboard.press(key);
    await page.waitForFunction(
      (count) => (window as unknown as Measured).measured.painted.length > count,
      n,
    );
  }
  return page.evaluate(() => (window as unknown as Measured).measured);
}

/** So long after the last key all that followed from it has come. */
const REST_MS = 3000;

/**
 * Times between frames while something is scrolled from its beginning to its end, which may grow meanwhile. Nothing is
 * fetched again beside it: the server would take the browser's processor.
 */
export async function scrolling(page: Page, selector: string): Promise<number[]> {
  await page.waitForTimeout(REST_MS);
  return page.evaluate(async (scrolled) => {
    const feed = document.querySelector(scrolled)!;
    const frames: number[] = [];
    let before = performance.now();
    for (let n = 0; n < 300; n++) {
      feed.scrollTop += feed.scrollHeight / 300;
      await new Promise((resolve) => requestAnimationFrame(resolve));
      const now = performance.now();
      frames.push(now - before);
      before = now;
    }
    return frames;
  }, selector);
}

/**
 * From a reply of the server to the first frame after which what it is drawn in changes no more, measured inside the
 * page.
 *
 * @param part of the address that is asked for
 * @param act what has it asked for
 */
export async function replyToFrame(
  page: Page,
  part: string,
  selector: string,
  act: () => Promise<unknown>,
): Promise<number> {
  await page.locator(selector).waitFor();
  await page.waitForTimeout(REST_MS);
  await page.evaluate((drawn) => {
    const seen: { at: number; text: string }[] = [];
    const its = window as unknown as { seen: typeof seen };
    its.seen = seen;
    void (async () => {
      while (its.seen === seen) {
        const at = await new Promise<number>(requestAnimationFrame);
        seen.push({ at, text: document.querySelector(drawn)?.textContent ?? '' });
      }
    })();
  }, selector);
  await act();
  await page.waitForTimeout(REST_MS);
  return page.evaluate((asked) => {
    const { seen } = window as unknown as { seen: { at: number; text: string }[] };
    const replied = performance
      .getEntriesByType('resource')
      .filter(({ name }) => name.includes(asked))
      .map((one) => (one as PerformanceResourceTiming).responseEnd)
      .at(-1)!;
    const last = seen.at(-1)!.text;
    // the frame after the one at whose beginning it stands in the page
    const at = seen.findIndex(({ text }) => text === last);
    return seen[at + 1]!.at - replied;
  }, part);
}

/** A row of a table of figures: so long, and how many frames that are. */
export const inFrames = (what: string, ms: number) => ({
  what,
  'ms (95th)': Math.round(ms),
  'compared with': 'a frame of 16.7 ms',
  ratio: rounded(ms / 16.7),
});

export const quantile = (values: readonly number[], q: number) =>
  values.toSorted((x, y) => x - y)[Math.min(values.length - 1, Math.floor(q * values.length))]!;
