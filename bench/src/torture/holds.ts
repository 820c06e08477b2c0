import { openAsBlob } from 'node:fs';
import { heldIn } from '../held.js';
import { writeFiles } from '../importing.js';
import { bringInto, enter, FOLDER, type Product } from '../product.js';
import { newCode, smallStudy, waits, type Trial } from './people.js';

/** Everything that reads a study of 100,000 answers, while the server watches for how long each holds up all others. */
export async function holds(product: Product): Promise<Trial[]> {
  const { call: before } = await enter();
  const study = await smallStudy(before, 10);
  const file = `${FOLDER}/holds.csv`;
  await writeFiles(file, null);
  await bringInto(before, study.id, await openAsBlob(file), 'large.csv');
  for (let c = 0; c < 40; c++) await newCode(before, study.id, `Code ${c}`);
  product.sql(`insert into mention (id, response_id, code_id, coder_id, origin, created_at)
    select gen_random_uuid(), r.id, c.id, 1, 'hand', now() from response r
    join lateral (select id from code where study_id = ${study.id}
      order by id offset r.id % 40 limit 1) c on true
    where r.question_id in (select id from question where study_id = ${study.id})
      and not r.no_answer`);
  product.sql(`insert into settlement (response_id, coder_id, settled_at)
    select id, 1, now() from response where not no_answer and id % 2 = 0 on conflict do nothing`);
  await product.restart({ watch: true });
  const { call, take } = await enter();
  const path = `/studies/${study.id}`;
  const detail = await call<{ questions: { id: number }[]; variables: { id: number }[] }>(
    'GET',
    path,
  );
  const question = `${path}/questions/${detail.questions.at(-1)!.id}`;
  const [variable] = detail.variables;
  const waited = waits();
  const asked = [
    path,
    `${path}/codebook`,
    `${path}/history`,
    `${path}/respondents`,
    `${path}/imports`,
    `${question}/ledger`,
    `${question}/ledger?order=similar`,
    `${question}/look`,
    ...['plain', 'word', 'stem', 'wildcard'].flatMap((match) =>
      [`${question}/ledger?words=the`, `${question}/hits?words=the`].map(
        (address) => `${address}&match=${match}`,
      ),
    ),
    `${question}/ledger?match=wildcard&words=${encodeURIComponent('*a*e*i*o*u*n*t*')}`,
    `${question}/hits?match=wildcard&words=${encodeURIComponent('*e*')}`,
    `${question}/report`,
    `${question}/report?by=${variable!.id}`,
    `${question}/left`,
    `${question}/together`,
    `${question}/saturation`,
  ];
  for (const address of asked) await waited.of(() => call('GET', address));
  const files = [
    ...['csv', 'xlsx', 'docx', 'html'].map((format) => `${question}/report/files/${format}`),
    ...['zip', 'xlsx'].map((format) => `${path}/respondents/files/${format}`),
  ];
  for (const address of files) await waited.of(() => take(address));
  const held = heldIn(product.lines());
  for (const { ms, requests } of held)
    console.error(`${Math.round(ms)} ms: ${requests.join(', ')}`);
  const longest = held.reduce((most, { ms }) => Math.max(most, ms), 0);
  return [
    waited.told('readings and files of 100,000 respondents'),
    {
      what: 'the longest that one of them held up all others (told from 100 ms on)',
      tried: asked.length + files.length,
      survived: asked.length + files.length - held.length,
      lost: 0,
      longestWait: Math.round(longest),
    },
  ];
}
