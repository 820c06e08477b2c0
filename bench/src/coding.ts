import { randomUUID } from 'node:crypto';
import {
  firstScreen,
  inFrames,
  keyToFrame,
  quantile,
  replyToFrame,
  scrolling,
  withPages,
} from './browser.js';
import { rounded } from './material.js';
import { writeFiles } from './importing.js';
import {
  address,
  bringIn,
  enter,
  FOLDER,
  timedAsync,
  withProduct,
  type Caller,
  type Product,
} from './product.js';

const CODES = 200;
/** Enough repetitions that the slowest lies beyond the 95th percentile. */
const RUNS = 24;
/** So often a first screen is opened: one alone is at the mercy of the moment. */
const FIRSTS = 5;

/**
 * The ledger over 100,000 answers and 200 codes: what the server takes by the API, and what a browser takes from a
 * key to what is drawn. Each beside the same query run bare in PostgreSQL, or beside a frame of 16.7 ms.
 */
export const coding = () =>
  withProduct(async (product) => {
    const csv = `${FOLDER}/large.csv`;
    await writeFiles(csv, null);
    const { call, take, cookie } = await enter();
    const { study } = await bringIn(call, csv);
    const detail = await call<{
      questions: { id: number; answered: number }[];
      variables: { id: number }[];
    }>('GET', `/studies/${study}`);
    const question = detail.questions[0]!;
    const codes = await makeCodes(call, product, study, question.id);
    const path = `/studies/${study}/questions/${question.id}`;
    const ledger = (query: string) => () =>
      call<{ ids: number[]; total: number }>('GET', `${path}/ledger?${query}`);
    const { ids } = await ledger('')();
    const first = () => call('GET', `${path}/answers?ids=${ids.slice(0, 50).join(',')}`);
    const its = await ms95(() =>
      Promise.resolve(
        product.sql(
          `select count(*) from response where question_id = ${question.id} and text ilike '%boat%'`,
        ),
      ),
    );
    const rows: object[] = [];
    const row = async (
      what: string,
      work: () => Promise<unknown>,
      before?: () => Promise<unknown>,
    ) => {
      const ms = await ms95(work, before);
      rows.push({
        what,
        'ms (95th)': Math.round(ms),
        'compared with': 'a count by ilike, psql and all',
        ratio: rounded(ms / its),
      });
    };
    await row('list of all answers', ledger(''));
    await row('50 answers with everything in them', first);
    await row('codes of similar answers', () =>
      call('GET', `/studies/${study}/responses/${ids.at(-1)!}/near`),
    );
    await row('filter: containing', ledger('words=boat'));
    await row('filter: any form of a word', ledger('words=boats&match=stem'));
    await row('filter: coded with', ledger(`all=${codes[0]}`));
    await row('filter: open, not coded with', ledger(`show=open&none=${codes[0]}`));
    await row('filter: background', ledger(`where=${detail.variables[0]!.id}:Tye`));
    await row('order: at random', ledger('order=random&seed=3'));
    await row('codebook with counts', () => call('GET', `/studies/${study}/codebook`));
    const report = (query: string) => () => call('GET', `${path}/report?base=answered&${query}`);
    let n = 0;
    const code = () =>
      call('POST', `/studies/${study}/mentions`, {
        id: randomUUID(),
        responseId: ids[(n += 1)],
        codeId: codes[n % CODES],
        start: null,
        end: null,
      });
    // what is read for one report serves the next, until something is changed
    await row('report: total, after a change', report('by=none'), code);
    await row(
      'report: by background, weighted, after a change',
      report(`by=${detail.variables[0]!.id}&weighted=true`),
      code,
    );
    await row('report: total', report('by=none'));
    await row('report: by background', report(`by=${detail.variables[0]!.id}`));
    await row(
      'report: by background, weighted',
      report(`by=${detail.variables[0]!.id}&weighted=true`),
    );
    const group = randomUUID();
    await call('PUT', `/studies/${study}/groups/${group}`, {
      name: 'Who mentions the first code',
      description: '',
      rule: {
        is: 'mentions',
        which: 'none',
        codeIds: [codes[0]],
        themeIds: [],
        questionId: question.id,
      },
    });
    await row('report: restricted to a group', report(`by=none&group=${group}`));
    await row('list restricted to a group', ledger(`group=${group}`));
    await row('a code, saved', code);
    await call('POST', `${path}/samples`, { kind: 'random', size: 500, variableId: null, seed: 3 });
    await row('filter: open in sample', ledger('show=sample_open'));
    const similar = await timedAsync(ledger('order=similar'));
    rows.push({ what: 'order: similar together (once)', 'ms (95th)': Math.round(similar) });
    rows.push(...(await inBrowser(cookie(), `${address}${path}`)));
    // alone, as what else is kept in memory has nothing to do with it
    await product.restart();
    const workbook = await timedAsync(() => take(`/studies/${study}/respondents/files/xlsx`));
    rows.push(
      { what: 'respondents × 200 columns as XLSX (once)', 'ms (95th)': Math.round(workbook) },
      { what: 'most memory of a server that does so, MB', 'ms (95th)': product.peak() },
    );
    return rows;
  });

/** 200 codes, 100 mentions each, on answers that are settled. */
async function makeCodes(call: Caller, product: Product, study: number, question: number) {
  const codes = Array.from({ length: CODES }, () => randomUUID());
  await call('POST', `/studies/${study}/codebook/list`, {
    codes: codes.map((_, c) => ({
      theme: `Theme ${c % 12}`,
      name: `Code number ${c}`,
      definition: `About ${c}`,
      include: '',
      exclude: '',
    })),
  });
  product.sql(
    `insert into mention (id, response_id, code_id, coder_id, origin, created_at)
     select gen_random_uuid(), r.id, c.id, a.id, 'hand', now()
     from (select id, row_number() over (order by id) as place from response
       where question_id = ${question} and not no_answer) r
     join (select id, row_number() over (order by position) - 1 as place from code
       where study_id = ${study}) c on r.place % ${CODES} = c.place
     cross join (select min(id) as id from account) a where r.place <= ${CODES * 100}`,
  );
  // what is not settled is in no cell of a report
  product.sql(
    `insert into settlement (response_id, coder_id, settled_at)
     select distinct response_id, coder_id, now() from mention m join response r on r.id = m.response_id
     where r.question_id = ${question} on conflict do nothing;
     analyze mention, settlement`,
  );
  const { codes: made } = await call<{ codes: { id: string }[] }>(
    'GET',
    `/studies/${study}/codebook`,
  );
  return made.map(({ id }) => id);
}

/** What one feels: the first screen, a key to its code, scrolling; another table of the report. */
const inBrowser = (cookie: string, question: string) =>
  withPages(cookie, async (open) => {
    const firsts: number[] = [];
    let page = await open();
    for (let n = 0; n < FIRSTS; n++) {
      if (n > 0) {
        await page.close();
        page = await open();
      }
      firsts.push(await firstScreen(page, `${question}/code`));
    }
    await page.getByRole('combobox', { name: 'Code for this line' }).waitFor();
    const { painted: keys } = await keyToFrame(page, 'Enter', 40, async (n) => {
      if (n > 0) await page.keyboard.press('PageDown');
      // as fast as somebody types
      await page.keyboard.type(`number ${n}`, { delay: 60 });
    });
    const frames = await scrolling(page, '[role=feed]');
    await page.goto(`${question}/report?base=answered`);
    const tables = [];
    for (const change of [
      () => page.getByLabel('Across', { exact: true }).selectOption({ label: 'car' }),
      () => page.getByLabel('Percent of', { exact: true }).selectOption('asked'),
      () => page.getByLabel('weighted').check(),
    ])
      tables.push(await replyToFrame(page, '/report?', 'table', change));
    return [
      inFrames(
        'another table, from its reply to its drawing (the slowest of three)',
        Math.max(...tables),
      ),
      inFrames('first screen of the ledger (the median of five)', quantile(firsts, 0.5)),
      inFrames('Enter to the code drawn', quantile(keys, 0.95)),
      inFrames('a frame of scrolling through all', quantile(frames, 0.95)),
      inFrames('the longest of these frames (once)', Math.max(...frames)),
    ];
  });

async function ms95(
  work: () => Promise<unknown>,
  before: () => Promise<unknown> = () => Promise.resolve(),
): Promise<number> {
  const times: number[] = [];
  for (let n = 0; n < RUNS; n++) {
    await before();
    times.push(await timedAsync(work));
  }
  return quantile(times, 0.95);
}
