import { firstScreen, inFrames, keyToFrame, quantile, scrolling, withPages } from './browser.js';
import { writeFiles } from './importing.js';
import { rounded } from './material.js';
import {
  address,
  bringIn,
  ended,
  enter,
  FOLDER,
  timedAsync,
  withProduct,
  type Product,
} from './product.js';

const CODES = 50;
const SETTLED = 300;
const IN_BULK = 10_000;

/**
 * Review over 100,000 answers with 50 codes suggested by a real training run: opening a code's list, deciding one,
 * settling 10,000 in bulk, and taking that back; beside a bare update of as many rows by psql.
 */
export const reviewing = () =>
  withProduct(async (product) => {
    const csv = `${FOLDER}/large.csv`;
    await writeFiles(csv, null);
    const { call, cookie } = await enter();
    const { study } = await bringIn(call, csv);
    const { questions } = await call<{ questions: { id: number }[] }>('GET', `/studies/${study}`);
    const question = questions[0]!.id;
    const path = `/studies/${study}/questions/${question}`;
    await call('POST', `/studies/${study}/codebook/list`, {
      codes: commonWords(product, question).map((name) => ({
        theme: 'Words',
        name,
        definition: '',
        include: '',
        exclude: '',
      })),
    });
    settleByWords(product, study, question);
    const trained = await timedAsync(async () => {
      const { id } = await call<{ id: number }>('POST', `${path}/training`, {});
      await ended(call, `/studies/${study}`, id);
    });
    const { codes } = await call<{ codes: { codeId: string; open: number }[] }>(
      'GET',
      `${path}/review`,
    );
    const listed = await worst(codes.slice(0, 20), ({ codeId }) =>
      Promise.all([
        call('GET', `${path}/review/${codeId}`),
        call('GET', `${path}/review/${codeId}/suggestions?limit=100`),
      ]),
    );
    const ledger = (query: string) => call<{ ids: number[] }>('GET', `${path}/ledger?${query}`);
    const likely = await timedAsync(() => ledger('show=suggested&order=likely'));
    const unlikely = await timedAsync(() => ledger('show=nothing_likely'));
    const { ids } = await ledger('');
    const answers = await timedAsync(() =>
      call('GET', `${path}/answers?ids=${ids.slice(0, 50).join(',')}`),
    );
    const code = codes[0]!.codeId;
    const { suggestions } = await call<{ suggestions: { responseId: number }[] }>(
      'GET',
      `${path}/review/${code}/suggestions?limit=100`,
    );
    const decided = await worst(suggestions.slice(0, 20), ({ responseId }) =>
      call('POST', `${path}/review/${code}/decide`, { responseId, state: 'accepted' }),
    );
    const { runId, open } = await call<{ runId: number; open: number[] }>(
      'GET',
      `${path}/review/${code}`,
    );
    const threshold = open[Math.min(open.length, IN_BULK) - 1]!;
    const bulk = { runId, threshold, side: 'above' };
    let count = 0;
    const settled = await timedAsync(async () => {
      const done = await call<{ decided: number }>('POST', `${path}/review/${code}/settle`, bulk);
      count = done.decided;
    });
    const bare = await timedAsync(() =>
      Promise.resolve(
        product.sql(
          `update suggestion set bulk = bulk where question_id = ${question} and code_id = '${code}'
             and state = 'accepted'`,
        ),
      ),
    );
    const undone = await timedAsync(() => call('POST', `/studies/${study}/undo`));
    const row = (what: string, ms: number) => ({
      what,
      'ms (95th)': Math.round(ms),
      'compared with': 'a bare update of these rows, psql and all',
      ratio: rounded(ms / bare),
    });
    return [
      row(`train on ${SETTLED} settled × ${CODES} codes, suggest for 100,000`, trained),
      row('open the list of a code (the slowest of 20)', listed),
      row('codes with their counts', await timedAsync(() => call('GET', `${path}/review`))),
      row('answers with suggestions, most likely first', likely),
      row('answers where no code is likely', unlikely),
      row('50 answers with what is suggested', answers),
      row('decide one (the slowest of 20)', decided),
      row(`settle ${count} in bulk, committed`, settled),
      row('undo of it', undone),
      ...(await inBrowser(cookie(), `${address}${path}/review/${code}`)),
    ];
  });

/** What a person notices: opening a code, deciding by key, moving the threshold by keys, scrolling. */
const inBrowser = (cookie: string, url: string) =>
  withPages(cookie, async (open) => {
    const page = await open();
    const opened = await firstScreen(page, url);
    const decided = await keyToFrame(page, 'a', 40);
    const frames = await scrolling(page, '[role=feed]');
    const slider = page.getByRole('slider', { name: 'The line' });
    await slider.focus();
    const moved = await keyToFrame(page, 'ArrowUp', 40);
    return [
      inFrames('open a code in the browser, page and all (once)', opened),
      inFrames('A to the decision drawn', quantile(decided.painted, 0.95)),
      inFrames(
        'a key that moves the line to its figures in the page',
        quantile(moved.changed, 0.95),
      ),
      inFrames('the same to the frame that shows them', quantile(moved.painted, 0.95)),
      inFrames('a frame of scrolling through the list', quantile(frames, 0.95)),
      inFrames('the longest of these frames (once)', Math.max(...frames)),
    ];
  });

async function worst<Item>(items: readonly Item[], work: (item: Item) => Promise<unknown>) {
  let most = 0;
  for (const item of items) most = Math.max(most, await timedAsync(() => work(item)));
  return most;
}

/** Words of five letters or more that stand in most answers. */
const commonWords = (product: Product, question: number) =>
  product
    .sql(
      `select word from response r, regexp_split_to_table(lower(r.text), '[^a-z]+') as word
       where r.question_id = ${question} and length(word) >= 5
       group by word order by count(distinct r.id) desc, word limit ${CODES}`,
    )
    .trim()
    .split('\n');

/** Codes some answers at random by the words that name the codes, and settles them. */
function settleByWords(product: Product, study: number, question: number) {
  product.sql(
    `create temporary table chosen as select id, lower(text) as text from response
     where question_id = ${question} and not no_answer order by md5(id::text) limit ${SETTLED};
     insert into mention (id, response_id, code_id, coder_id, origin, created_at)
     select gen_random_uuid(), r.id, c.id, a.id, 'hand', now() from chosen r
     join code c on c.study_id = ${study} and r.text like '%' || c.name || '%'
     cross join (select min(id) as id from account) a;
     insert into settlement (response_id, coder_id, settled_at)
     select r.id, a.id, now() from chosen r cross join (select min(id) as id from account) a;
     analyze mention, settlement`,
  );
}
