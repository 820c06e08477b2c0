import { expect, test } from '@playwright/test';
import { bringIn, codeField, csvFile, enterDemo, expectAccessible } from './steps.js';

const sheet = csvFile('few.csv', 'id,home,Why?\n1,Tye,more boats please\n2,Hask,it is too dear\n');

test('a study opens where one stopped, is archived and brought back, and deleted by its name', async ({
  page,
}) => {
  await enterDemo(page);
  await bringIn(page, 'To be deleted', sheet);
  const rail = page.getByRole('navigation', { name: 'Stops of the study' });
  await rail.getByRole('link', { name: /^Code\b/ }).click();
  await expect(codeField(page)).toBeFocused();
  /** Where one is has been kept. */
  const remembered = (place: string) =>
    page.waitForResponse((reply) => reply.request().postData()?.includes(`${place}"`) ?? false);
  let kept = remembered('code?words=boats');
  await page.goto(`${page.url()}?words=boats`);
  await kept;
  await rail.getByRole('link', { name: 'Studies' }).click();
  const card = page.getByRole('link', { name: /^To be deleted/ });
  await expect(card).toContainText('0 of 2 settled');
  await card.click();
  await expect(page).toHaveURL(/\/code\?words=boats$/);
  await expect(page.getByText('1 answer', { exact: true })).toBeVisible();

  // what to do next, until one has had enough of it
  await expect(page.getByText('Draw a random sample to code by hand')).toBeVisible();
  await page.getByRole('link', { name: 'Draw a sample' }).click();
  await expect(page.getByRole('dialog', { name: 'A sample to code by hand' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Hide these hints' }).click();
  await expect(page.getByText('Draw a random sample to code by hand')).toHaveCount(0);

  kept = remembered('about');
  await rail.getByRole('link', { name: 'Study', exact: true }).click();
  await kept;
  await page.getByRole('button', { name: 'Archive the study' }).click();
  await expect(page.getByText('This study is archived.')).toBeVisible();
  await rail.getByRole('link', { name: 'Studies' }).click();
  await expect(page.getByRole('button', { name: /^Show \d+ archived stud/ })).toBeVisible();
  await expect(card).toHaveCount(0);
  await page.getByRole('button', { name: /^Show \d+ archived stud/ }).click();
  await card.click();
  await expect(page).toHaveURL(/\/about$/);
  await page.getByRole('button', { name: 'Unarchive it' }).click();
  await expect(page.getByRole('button', { name: 'Archive the study' })).toBeVisible();

  const address = page.url();
  await page.getByRole('button', { name: 'Delete the study …' }).click();
  await expect(
    page.getByText(/2 respondents, 2 answers to 1 question, .* cannot be undone/),
  ).toBeVisible();
  await expectAccessible(page);
  const remove = page.getByRole('button', { name: 'Delete the study', exact: true });
  await page.getByRole('textbox', { name: 'Name of the study' }).fill('to be deleted');
  await expect(remove).toBeDisabled();
  await page.getByRole('textbox', { name: 'Name of the study' }).fill('To be deleted');
  await remove.click();
  await expect(page.getByText('“To be deleted” was deleted.')).toBeVisible();
  await expect(page).toHaveURL(/\/studies$/);
  await expect(card).toHaveCount(0);
  await page.goto(address);
  await expect(
    page.getByText('There is no such study here, or you have no access to it.'),
  ).toBeVisible();
  await page.goto('/nowhere');
  await expect(page.getByText('There is no page at this address')).toBeVisible();
});
