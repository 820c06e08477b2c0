import { randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { randomSource } from '@yellow-thread/core/statistics';
import { demoQuestions, rounded } from './material.js';
import { bringIn, ended, enter, FOLDER, timedAsync, withProduct } from './product.js';
import { quantile } from './browser.js';

const ANSWERS = 100_000;
const WORDS = 13;

/**
 * Reading for meaning of 100,000 different answers of 13 words by the product as it is started, while somebody saves
 * codes: how many answers a second, the server's most memory with its threads, and how long a save takes meanwhile and
 * without it.
 */
export const encoding = (args: string[]) =>
  withProduct(
    async (product) => {
      const count = Number(args.find((one) => /^\d+$/u.test(one)) ?? ANSWERS);
      const file = `${FOLDER}/answers.csv`;
      writeFileSync(
        file,
        ['id,Why?', ...answersOf13(count).map((text, i) => `${i},"${text}"`)].join('\n'),
      );
      const { call } = await enter();
      const { study } = await bringIn(call, file);
      const begun = performance.now();
      product.peak();
      const { questions } = await call<{ questions: { id: number }[] }>('GET', `/studies/${study}`);
      const path = `/studies/${study}/questions/${questions[0]!.id}`;
      const { ids } = await call<{ ids: number[] }>('GET', `${path}/ledger?`);
      const { job } = await call<{ job: { id: number } }>('GET', `/studies/${study}/meaning`);
      await call('POST', `/studies/${study}/codebook/list`, {
        codes: [{ theme: 'Boats', name: 'Boats', definition: '', include: '', exclude: '' }],
      });
      const { codes } = await call<{ codes: { id: string }[] }>(
        'GET',
        `/studies/${study}/codebook`,
      );
      const save = async (at: number) =>
        timedAsync(() =>
          call('POST', `/studies/${study}/mentions`, {
            id: randomUUID(),
            responseId: ids[at]!,
            codeId: codes[0]!.id,
            start: null,
            end: null,
          }),
        );
      const during: number[] = [];
      let isOver = false;
      const reading = ended(call, `/studies/${study}`, job.id).then(() => (isOver = true));
      for (let at = 0; !isOver && at < ids.length; at++) {
        during.push(await save(at));
        await new Promise((resolve) => setTimeout(resolve, 500));
      }
      await reading;
      const seconds = (performance.now() - begun) / 1000;
      const alone: number[] = [];
      for (let at = 0; at < 60; at++) alone.push(await save(ids.length - 1 - at));
      return [
        {
          answers: count,
          minutes: rounded(seconds / 60, 1),
          'answers a second': Math.round(count / seconds),
          'peak MB': product.peak(),
          'save, ms (95th)': Math.round(quantile(during, 0.95)),
          'the same without reading': Math.round(quantile(alone, 0.95)),
        },
      ];
    },
    { encoder: true },
  );

/** Different answers of 13 words, made of the demo's. */
export function answersOf13(count: number): string[] {
  const next = randomSource(5);
  const draw = (below: number) => Math.floor((next() / 2 ** 32) * below);
  const pool = demoQuestions().flat();
  const made = new Set<string>();
  while (made.size < count) {
    const parts: string[] = [];
    let words = 0;
    while (words < WORDS - 3) {
      const { text } = pool[draw(pool.length)]!;
      parts.push(text.replaceAll('"', '').replaceAll('\n', ' '));
      words += text.split(/\s+/u).length;
    }
    made.add(parts.join(' '));
  }
  return [...made];
}
