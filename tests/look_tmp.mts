import { chromium } from '@playwright/test';
export async function open(width = 1280, height = 800) {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--disable-quic',
    ],
  });
  const page = await (
    await browser.newContext({ viewport: { width, height }, locale: 'en-GB' })
  ).newPage();
  page.on('console', (m) => {
    if (m.type() === 'error') console.log('CONSOLE', m.text());
  });
  page.on('pageerror', (e) => console.log('PAGEERROR', e.message));
  await page.goto('http://127.0.0.1:4400/');
  await page.getByRole('button', { name: 'Enter as the demo researcher' }).click();
  await page.getByRole('link', { name: /^Brindle Sound ferry/ }).click();
  await page.waitForURL(/studies\/\d+/);
  const study = /studies\/(\d+)/.exec(page.url())![1];
  const shoot = async (name: string) => {
    await page.waitForTimeout(700);
    await page.screenshot({
      path: `/tmp/shots/${name}.png`,
      animations: 'disabled',
      caret: 'hide',
    });
  };
  return { browser, page, study, shoot };
}
