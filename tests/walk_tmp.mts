import { open } from './look_tmp.mts';
const { browser, page, study, shoot } = await open();
const q = `http://127.0.0.1:4400/studies/${study}/questions/2`;
await page.goto(`${q}/code?show=open&order=surest&reading=on`);
await page.getByRole('article').first().waitFor();
await page.waitForTimeout(500);
await shoot('reading2');
for (let n = 0; n < 6; n++) {
  await page.keyboard.press('Enter');
  await page.waitForTimeout(120);
}
await page.keyboard.press('2');
await page.waitForTimeout(200);
await shoot('reading3');
await page.goto(`${q}/review`);
await page.getByRole('slider').waitFor();
await shoot('review');
await page.keyboard.press('End');
await page.getByRole('slider', { name: 'The line' }).focus();
await page.keyboard.press('Home');
await page.waitForTimeout(600);
await page.getByRole('button', { name: /^Accept \d+ above$/ }).click();
await shoot('review-ask');
await browser.close();
