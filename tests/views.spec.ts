import { expect, test, type Page } from '@playwright/test';
import {
  bringIn,
  codeField,
  enterDemo,
  expectAccessible,
  expectReflow,
  openDemo,
} from './steps.js';

const views: Record<string, (page: Page) => Promise<void>> = {
  door: async (page) => {
    await page.goto('/');
    await expect(page.getByLabel('Password')).toBeVisible();
  },
  studies: enterDemo,
  'an empty study': async (page) => {
    await enterDemo(page);
    await page.getByLabel('Name').fill('Empty');
    await page.getByRole('button', { name: 'Create study' }).click();
    await expect(page.getByText('Import a sheet')).toBeVisible();
    await page.getByRole('link', { name: 'Codebook', exact: true }).click();
    await expect(page.getByText(/No codes yet/)).toBeVisible();
  },
  'roles of a sheet': async (page) => {
    await enterDemo(page);
    await page.getByLabel('Name').fill('Roles');
    await page.getByRole('button', { name: 'Create study' }).click();
    await page.locator('input[type=file]').setInputFiles({
      name: 'a.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('id,age,Why?\n1,x,more boats please\n1,3,the steps are too steep\n'),
    });
    await page.getByLabel('Role of id').selectOption('respondent id');
    await expect(page.getByText(/Several rows have the same respondent id/)).toBeVisible();
    await expect(page.getByRole('button', { name: 'Import', exact: true })).toBeDisabled();
  },
  'a study that is not there': async (page) => {
    await enterDemo(page);
    page.removeAllListeners('console'); // the browser itself reports the 404
    await page.goto('/studies/9999/import');
    await expect(
      page.getByText('There is no such study here, or you have no access to it.'),
    ).toBeVisible();
    await expect(page.getByRole('link', { name: 'Go to your studies' })).toBeVisible();
  },
  import: async (page) => {
    await openDemo(page, 'Import');
    await page.getByRole('button', { name: 'brindle-sound.csv', exact: true }).click();
    await expect(page.getByRole('dialog')).toContainText('SHA-256');
  },
  respondents: async (page) => {
    await openDemo(page, 'Respondents');
    await expect(page.getByRole('rowheader', { name: 'BS-0001' })).toBeVisible();
    await page.getByRole('button', { name: 'About Satisfaction' }).click();
    await page.getByLabel('Bands begin at').fill('0, 7, 9');
    await expect(page.getByLabel('Name of the band from 7')).toHaveValue('7–8');
  },
  study: async (page) => {
    await openDemo(page, 'Study');
    await expect(page.getByLabel('Purpose')).toHaveValue(/harbour board/);
  },
  look: async (page) => {
    await openDemo(page, 'Look');
    const [aside, back] = ['Set boat aside', 'Bring back boat'].map((name) =>
      page.getByRole('button', { name }),
    );
    // it stays aside with the study, for whichever of the two schemes comes second
    await expect(aside!.or(back!)).toBeVisible();
    if (await aside!.isVisible()) await aside!.click();
    await expect(back!).toBeVisible();
  },
  'groups compared': async (page) => {
    await openDemo(page, 'Look');
    await page.getByRole('link', { name: 'Groups compared' }).click();
    await page.getByLabel('Compare', { exact: true }).selectOption('Home');
    await page.getByLabel('those of').selectOption('Hask');
    await page.getByRole('button', { name: 'sailing', exact: true }).click();
    await expect(page.getByRole('dialog').getByRole('checkbox').first()).toBeVisible();
  },
  'words together': async (page) => {
    await openDemo(page, 'Look');
    await page.getByRole('link', { name: 'Words together' }).click();
    await page.getByLabel('Topics by').selectOption('Home');
    await expect(page.getByRole('button', { name: /^queue: / })).toBeVisible();
    await expect(page.getByRole('columnheader', { name: /^Hask/ })).toBeVisible();
  },
  'what people say': async (page) => {
    await openDemo(page, 'Look');
    await page.getByRole('link', { name: 'What people say' }).click();
    await expect(page.getByText(/^These 6 stand for/)).toBeVisible();
    await page.getByRole('button', { name: 'Make it a code …' }).first().click();
    await expect(page.getByLabel('Name of the code')).toBeVisible();
  },
  'words in context': async (page) => {
    await openDemo(page, 'Look');
    await page.getByRole('link', { name: 'In context' }).click();
    await page.getByLabel('Word or phrase').fill('boat');
    await page.keyboard.press('Enter');
    await expect(page.getByText(/^\d+ places in \d+ answers$/)).toBeVisible();
  },
  code: async (page) => {
    await openDemo(page, 'Code');
    await page.getByRole('button', { name: 'Filter' }).click();
    await page.getByLabel('Answers containing').fill('sunday');
    await expect(page.getByText('Sunday', { exact: true }).first()).toBeVisible();
    await codeField(page).fill('fare');
    await expect(page.getByRole('listbox').getByRole('option').first()).toBeVisible();
  },
  'the sample drawer': async (page) => {
    await openDemo(page, 'Code');
    await page.getByRole('button', { name: 'Sample …' }).click();
    await expect(page.getByRole('dialog')).toContainText('New codes per further ten answers');
  },
  'every place of a word': async (page) => {
    await openDemo(page, 'Code');
    await page.getByLabel('Answers containing').fill('boat');
    await page.getByRole('button', { name: 'Code every one …' }).click();
    await expect(page.getByRole('dialog').getByRole('checkbox').first()).toBeVisible();
  },
  'a theme sorted into new codes': async (page) => {
    await openDemo(page, 'Codebook');
    await page.getByRole('button', { name: 'More about Price' }).click();
    await page.getByRole('menuitem', { name: /into new codes/ }).click();
    await page.getByLabel('Name of a new pile').fill('Dear');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('article', { name: 'Pile Dear' })).toBeVisible();
  },
  'the guide': async (page) => {
    await openDemo(page, 'Train');
    await expect(page.getByRole('heading', { name: 'What would help' })).toBeVisible();
    await page.getByRole('link', { name: 'Help' }).click();
    await expect(page.getByRole('heading', { name: 'Train', level: 1 })).toBeVisible();
    await page.getByRole('link', { name: 'Terms of statistics' }).click();
    await expect(page.getByRole('heading', { name: 'Kappa' })).toBeVisible();
  },
  team: async (page) => {
    await openDemo(page, 'Team');
    await page.getByRole('button', { name: 'Leave …' }).click();
    await expect(page.getByText('Leave this study?')).toBeVisible();
  },
  'a second reading, and what it shows': async (page) => {
    await openDemo(page, 'Code');
    await page.getByRole('button', { name: 'Sample …' }).click();
    await page.getByRole('link', { name: 'A second reading' }).click();
    await page.getByLabel('coded again by').selectOption('Demo researcher (you)');
    await page.getByLabel('How many').fill('3');
    await page.getByRole('button', { name: 'Draw 3 answers' }).click();
    const field = page.getByRole('combobox', { name: 'Code for this answer' });
    await field.fill('fare');
    await expect(page.getByRole('listbox').getByRole('option').first()).toBeVisible();
    await expectAccessible(page);
    await field.press('Enter');
    await field.press('Enter');
    await expect(page.getByText('1 of 3 coded')).toBeVisible();
    await page.getByRole('button', { name: 'End here and compare' }).click();
    await expect(page.getByRole('heading', { name: 'Demo researcher, twice' })).toBeVisible();
  },
  notes: (page) => openDemo(page, 'Notes'),
  history: async (page) => {
    await openDemo(page, 'Codebook');
    await page.getByRole('link', { name: 'What was changed, when and by whom' }).click();
    await expect(page.getByRole('heading', { name: 'History' })).toBeVisible();
  },
  train: async (page) => {
    await openDemo(page, 'Train');
    await page.getByRole('button', { name: 'Car deck full' }).click();
    await expect(page.getByRole('dialog')).toContainText('Words against it');
  },
  review: async (page) => {
    await openDemo(page, 'Review');
    await expect(page.getByRole('slider', { name: 'The line' })).toBeVisible();
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('accept it');
  },
  report: async (page) => {
    await openDemo(page, 'Report');
    await page.getByRole('button', { name: /^Reliability, Total/ }).click();
    await expect(page.getByRole('dialog')).toContainText('people');
  },
  charts: async (page) => {
    await openDemo(page, 'Report');
    await page.getByRole('button', { name: 'More choices' }).click();
    await page.getByRole('link', { name: 'Charts' }).click();
    await expect(page.getByRole('img', { name: /^bars with intervals/ })).toBeVisible();
  },
  'codes together': async (page) => {
    await openDemo(page, 'Report');
    await page.getByRole('link', { name: 'Codes together' }).click();
    await expect(page.getByRole('columnheader', { name: 'Jaccard' })).toBeVisible();
    await expectAccessible(page);
    await page.getByLabel('As', { exact: true }).selectOption('grid');
    await expect(page.getByRole('columnheader', { name: 'Running late' })).toBeVisible();
  },
  'a group being built': async (page) => {
    await openDemo(page, 'Groups');
    await page.getByRole('button', { name: 'New group' }).click();
    await page.getByRole('button', { name: 'Add a condition' }).click();
    await page.getByRole('button', { name: 'Add conditions in brackets' }).click();
    await expect(page.getByRole('button', { name: 'Hask', exact: true })).toBeVisible();
  },
  'a write-up': async (page) => {
    await openDemo(page, 'Report');
    await page.getByRole('button', { name: 'Write up' }).click();
    await page.getByRole('menuitem', { name: 'This table in a new write-up' }).click();
    await page.getByRole('button', { name: 'Draft the findings' }).click();
    await expect(page.getByRole('heading', { name: 'Limits' })).toBeVisible();
  },
  codebook: (page) => openDemo(page, 'Codebook'),
  palette: async (page) => {
    await openDemo(page, 'Import');
    await page.keyboard.press('Control+k');
    await page.keyboard.type('winter');
    await expect(page.getByRole('option', { name: /Winter and Sundays/ })).toBeVisible();
  },
};

for (const [name, open] of Object.entries(views))
  test(`${name} is accessible in the light and in the dark, and fits small windows`, async ({
    page,
  }) => {
    const complaints: string[] = [];
    page.on('console', (message) => {
      if (message.type() === 'error') complaints.push(message.text());
    });
    page.on('pageerror', (error) => complaints.push(error.message));
    await open(page);
    await expect(page).toHaveTitle(/Yellow Thread/);
    await expectAccessible(page);
    await expectReflow(page);
    await page.emulateMedia({ colorScheme: 'dark' });
    await page.setViewportSize({ width: 1024, height: 800 });
    await expectAccessible(page);
    expect(complaints).toEqual([]);
  });

test('the job is walked by keyboard: from stop to stop, into a number and back', async ({
  page,
}) => {
  await openDemo(page, 'Import');
  for (const [typed, heading] of [
    ['look', 'How long answers are'],
    ['train', 'What would help'],
    ['codebook', 'Codebook'],
  ] as const) {
    await page.keyboard.press('Control+k');
    await page.keyboard.type(typed);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: heading })).toBeVisible();
  }
  await page.keyboard.press('Control+k');
  await page.keyboard.type('report');
  await page.keyboard.press('Enter');
  const number = page.getByRole('button', { name: /^Reliability, Total/ });
  await number.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(number).toBeFocused();

  // review: decide with one key, take it back with another
  await page.keyboard.press('Control+k');
  await page.keyboard.type('review');
  await page.keyboard.press('Enter');
  const suggestions = page.getByRole('feed', { name: /^Suggestions of/ }).getByRole('article');
  const first = suggestions.first();
  await expect(first).toHaveAttribute('aria-current', 'true');
  await page.keyboard.press('a');
  await expect(first).toContainText('accepted');
  await expect(suggestions.nth(1)).toHaveAttribute('aria-current', 'true');
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/^Undid: accepting/)).toBeVisible();
  await expect(first).not.toContainText('accepted');
});

test('a page-long answer can be read to its end, at the narrowest and the widest', async ({
  page,
}) => {
  const sentence =
    'We waited on the quay and nobody came to say whether the boat would sail at all that day. ';
  await enterDemo(page);
  await bringIn(page, 'A long answer', {
    name: 'long.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      `id,What happened?\n1,"${sentence.repeat(60)}The end of it."\n2,short one\n`,
    ),
  });
  await page.getByRole('link', { name: /^Code\b/ }).click();
  for (const width of [1024, 1920]) {
    await page.setViewportSize({ width, height: 800 });
    const end = page.getByText('The end of it.');
    await end.scrollIntoViewIfNeeded();
    await expect(end).toBeInViewport();
    await expectAccessible(page);
  }
});
