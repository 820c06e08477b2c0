import { writeFileSync } from 'node:fs';
import { bestClusters, denseRows } from '@yellow-thread/core/cluster';
import { findTopics, linkWords, lookAt, readTermLines, readTerms } from '@yellow-thread/core/look';
import { answersOf13 } from './encoding.js';
import { askPython, rounded, timed } from './material.js';
import { bringIn, ended, enter, FOLDER, timedAsync, withProduct } from './product.js';

const ANSWERS = 100_000;
const NOTHING = { question: '', setAside: [] };

/**
 * Look on 100,000 answers of 13 words: each view by the product's API after an answer changed and when nothing did, and
 * its computation against scikit-learn's and networkx's same step. With `--encoder` answers are read for meaning first,
 * which takes minutes.
 */
export async function looking(args: string[]) {
  const count = Number(args.find((one) => /^\d+$/u.test(one)) ?? ANSWERS);
  const texts = answersOf13(count);
  const computed = computing(texts);
  const encoder = args.includes('--encoder');
  return [...computed, ...(await byApi(texts, encoder))];
}

async function byApi(texts: readonly string[], encoder: boolean) {
  return withProduct(
    async (product) => {
      const file = `${FOLDER}/answers.csv`;
      const isles = ['Hask', 'Tye', 'Carrow'];
      writeFileSync(
        file,
        ['id,Home,Why?', ...texts.map((text, i) => `${i},${isles[i % 3]},"${text}"`)].join('\n'),
      );
      const { call } = await enter();
      const { study } = await bringIn(call, file);
      const base = `/studies/${study}`;
      const reading = await timedAsync(async () => {
        const { job } = await call<{ job: { id: number } | null }>('GET', `${base}/meaning`);
        if (encoder && job) await ended(call, base, job.id);
      });
      const { questions, variables } = await call<{
        questions: { id: number }[];
        variables: { id: number }[];
      }>('GET', base);
      const path = `${base}/questions/${questions[0]!.id}/look`;
      const rule = { is: 'value', variableId: variables[0]!.id, test: 'any_of', labels: ['Tye'] };
      const of = encodeURIComponent(JSON.stringify(rule));
      const views = {
        words: path,
        'groups compared': `${path}/contrast?of=${of}`,
        'words together': `${path}/network?by=${variables[0]!.id}`,
        'answers that stand for most': `${path}/representatives`,
        'tone, the strongest twenty': `${base}/questions/${questions[0]!.id}/tone`,
      };
      const rows = [];
      for (const [name, address] of Object.entries(views)) {
        const ask = () => timedAsync(() => call('GET', address));
        // threads that rest are started again by whoever comes next
        await ask();
        product.sql(
          `update response set text = text || '.' where id = (select min(id) from response where question_id = ${questions[0]!.id})`,
        );
        rows.push({
          step: name,
          'after a change, ms': Math.round(await ask()),
          'when nothing changed, ms': Math.round(await ask()),
        });
      }
      const gathered = await timedAsync(async () => {
        const { id } = await call<{ id: number }>('POST', `${path}/clusters`);
        await ended(call, base, id);
      });
      rows.push({
        step: 'answers gathered, by a job',
        'after a change, ms': Math.round(gathered),
        'when nothing changed, ms': Math.round(
          await timedAsync(() => call('GET', `${path}/clusters`)),
        ),
      });
      return encoder
        ? [...rows, { step: 'read for meaning before', minutes: rounded(reading / 60_000, 1) }]
        : rows;
    },
    { encoder },
  );
}

/** The same steps by scikit-learn and networkx, in the same run. */
function computing(texts: readonly string[]) {
  const terms = timed(() => readTerms(texts));
  const words = timed(() => lookAt(terms.result, NOTHING, { words: 60, phrases: 30 }));
  const lines = readTermLines(texts);
  const linked = linkWords(lines, NOTHING, [], 150);
  const topics = timed(() => findTopics(linked));
  const rows = denseRows(texts, null);
  const clusters = timed(() => bestClusters(rows, 10));
  const theirs = askPython('look_reference.py', {
    texts,
    links: linked.links.map(({ from, to, npmi }) => [from, to, npmi]),
    size: rows.size,
    // of many rows the reference is given as many as are fitted here
    rows: Array.from(rows.values.subarray(0, 10_000 * rows.size), (one) => rounded(one, 5)),
    most: 10,
  }) as Record<'words' | 'topics' | 'clusters' | 'modularity' | 'silhouette', number>;
  const row = (step: string, ours: number, reference: number, quality = '') => ({
    step,
    ms: Math.round(ours),
    'reference, ms': Math.round(reference),
    ratio: rounded(ours / reference),
    quality,
  });
  return [
    row('words and phrases of 1 to 4 words', terms.ms + words.ms, theirs.words),
    row(
      'topics',
      topics.ms,
      theirs.topics,
      `modularity ${rounded(topics.result.modularity, 3)}, theirs ${rounded(theirs.modularity, 3)}`,
    ),
    row(
      'clusters, 2 to 10',
      clusters.ms,
      theirs.clusters,
      `silhouette ${rounded(clusters.result.silhouette, 3)}, theirs ${rounded(theirs.silhouette, 3)}`,
    ),
  ];
}
