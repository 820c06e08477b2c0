import { describe, expect, test } from '@jest/globals';
import { readMails } from '../../../test/mail.js';
import { tinyTable } from '../../../test/tinyTable.js';
import { randomSource } from '../../statistics/index.js';
import { simpleRandomSample } from '../../sampling/index.js';
import { findConfused } from '../evaluation/confusion.js';
import { likelyGain } from '../evaluation/curve.js';
import { latentTable } from '../features/latentTable.js';
import { readMaterial, type TrainingAnswer, type TrainingInput } from './material.js';
import { averagePrecision, f1, outcomeAt } from '../evaluation/metrics.js';
import { scoreByNearest, findNeighbours } from '../evaluation/nearest.js';
import { listSuggestions } from '../suggesting/suggestions.js';
import { trainQuestion } from './trainQuestion.js';
import { NO_SENTENCES } from '../../sentences/index.js';
import { readWordTable } from '../features/wordTable.js';

const answer = (text: string, settled: boolean, ...codes: string[]): TrainingAnswer => ({
  text,
  settled,
  codes: new Set(codes),
});
const code = (id: string, name = '') => ({ id, name, definition: '', include: '' });
const fareAnswers = (open: string[]): TrainingAnswer[] => [
  ...[
    'the fare is too high',
    'high fare',
    'fare again',
    'a fair fare please',
    'that fare!',
    'fares, fare',
  ].map((text) => answer(text, true, 'fare')),
  ...[
    'lovely crew',
    'the crew',
    'a kind crew',
    'the view',
    'more boats',
    'a later boat',
    'the queue',
  ].map((text) => answer(text, true)),
  ...open.map((text) => answer(text, false)),
];
function trained(input: TrainingInput, id: string, table = tinyTable().table) {
  const found = trainQuestion(input, { table, sentences: null }).codes.find(
    (one) => one.codeId === id,
  );
  if (!found || found.state === 'too_few') throw new Error(`${id} was not trained`);
  return { ...found, suggestions: listSuggestions(found.suggestions) };
}

describe('word vectors', () => {
  test('a table that is cut off is refused', () => {
    expect(() => readWordTable(tinyTable().file.slice(0, -3))).toThrow(RangeError);
  });

  test('made of the texts: what often stands together is kept; fewer words than directions keep their angles', () => {
    const likeness = (texts: string[]) => {
      const table = latentTable(texts, new Set(['again']));
      const vectors = new Map(
        [...table.rowOf].map(([word, row]) => {
          const vector = new Float64Array(table.size);
          table.addTo(vector, row, 1);
          return [word, vector];
        }),
      );
      const dot = (one: string, other: string) =>
        vectors.get(one)!.reduce((sum, value, i) => sum + value * vectors.get(other)![i]!, 0);
      return { words: [...table.rowOf.keys()], dot };
    };
    const few = likeness([
      'boat late',
      'late crew',
      'crew boat late',
      'boat',
      'fare crew',
      'fare again',
    ]);
    expect(few.words).toEqual(['boat', 'late', 'crew', 'fare']);
    for (const one of few.words)
      for (const other of few.words)
        expect(few.dot(one, other)).toBeCloseTo(one === other ? 1 : 0, 9);

    // three words that often stand together are kept, of 150 that come by chance a third or so
    const next = randomSource(5);
    const fillers = () => Array.from({ length: 6 }, () => `filler${next() % 150}`).join(' ');
    const many = likeness(
      Array.from({ length: 400 }, (_, i) => (i % 4 === 0 ? 'crew sail deck' : fillers())),
    );
    const together = ['crew', 'sail', 'deck'];
    const kept = together.flatMap((one) => together.map((other) => many.dot(one, other)));
    expect(kept.reduce((sum, product) => sum + product, 0) / 3).toBeGreaterThan(0.99);
    const byChance = many.words.filter((word) => word.startsWith('filler'));
    const left = byChance.reduce((sum, word) => sum + many.dot(word, word), 0) / byChance.length;
    expect(left).toBeLessThan(0.4);
  });

  test('a word that nobody coded is known by words like it; one that no table knows does no harm', () => {
    const answers = [
      ...['the boat', 'boat again', 'my boat', 'a boat', 'boat, late'].map((text) =>
        answer(text, true, 'boat'),
      ),
      ...['a fare', 'the crew', 'crew again', 'fare, late', 'my fare', 'my crew'].map((text) =>
        answer(text, true),
      ),
      ...['ship', 'qwertz', 'crew'].map((text) => answer(text, false)),
    ];
    const input = { answers, codes: [code('boat')], seed: 1, leastProbability: 0 };
    const p = trained(input, 'boat').suggestions.map(({ probability }) => probability);
    expect(p[0]).toBeGreaterThan(p[1]!);
    expect(p[1]).toBeGreaterThan(p[2]!);
  });
});

test('an excluded word has no effect: an answer is as likely with it as without it', () => {
  const open = ['this fare of ours', 'this of ours', 'crew', 'the fare fare crew'];
  const input: TrainingInput = {
    answers: fareAnswers(open),
    codes: [code('fare'), code('other')],
    seed: 2,
    leastProbability: 0,
  };
  const settled = input.answers.filter((one) => one.settled).length;
  const probabilities = (excluded: { word: string; codeId: string | null }[]) =>
    new Map(
      trained({ ...input, excluded }, 'fare').suggestions.map((one) => [
        open[one.answer - settled]!,
        one.probability,
      ]),
    );
  const free = probabilities([]);
  expect(free.get('this fare of ours')).toBeGreaterThan(free.get('this of ours')! + 0.1);
  expect(probabilities([{ word: 'fare', codeId: 'other' }])).toEqual(free);
  for (const codeId of ['fare', null]) {
    const excluded = probabilities([{ word: 'fare', codeId }]);
    expect(excluded.get('this fare of ours')).toBe(excluded.get('this of ours'));
    expect(excluded.get('the fare fare crew')).not.toBe(free.get('the fare fare crew'));
  }
  const { wordsFor, wordsAgainst } = trained(
    { ...input, excluded: [{ word: 'fare', codeId: 'fare' }] },
    'fare',
  );
  expect([...wordsFor, ...wordsAgainst].map(({ word }) => word)).not.toContain('fare');
});

test('what is measured was not learnt: codes given by chance are not found again, nor by their duplicates', () => {
  const next = randomSource(5);
  // each text has a word of its own and stands twice with the same codes
  const answers = Array.from({ length: 120 }, (_, i) => {
    const text = `word${i >> 1} of ${['boat', 'crew', 'fare', 'pier'][(i >> 1) % 4]}`;
    return { text, pair: i >> 1 };
  });
  const chosen = new Set([...Array(60).keys()].filter(() => next() / 2 ** 32 < 0.4));
  const { quality } = trained(
    {
      answers: answers.map(({ text, pair }) =>
        answer(text, true, ...(chosen.has(pair) ? ['chance'] : [])),
      ),
      codes: [code('chance')],
      seed: 3,
    },
    'chance',
  );
  const share = chosen.size / 60;
  expect(quality.averagePrecision).toBeLessThan(share + 0.2);
});

test('of several lines the one that has the code teaches, and the most likely makes the answer', () => {
  const lines = ['the fare is high.', 'the crew is kind.', 'the pier is far.', 'the view is fine.'];
  const build = (picked: number[], settled: boolean): TrainingAnswer => {
    let at = 0;
    const parts = picked.map((p) => {
      const start = at;
      at += lines[p]!.length + 1;
      return { start, end: at - 1, codes: new Set(p === 0 && settled ? ['fare'] : []) };
    });
    const codes = new Set(parts.flatMap((part) => [...part.codes]));
    return { text: picked.map((p) => lines[p]).join(' '), settled, codes, lines: parts };
  };
  const answers = [
    ...[0, 1, 2, 3].flatMap((a) => [1, 2, 3].map((b) => build([a, b], true))),
    // the crew is only ever coded together with the fare: read whole, it would be evidence for it
    ...[0, 1, 2, 3, 4].map(() => build([0, 1], true)),
    build([1, 1], false),
    build([2, 3], false),
    build([3, 0], false),
  ];
  const input = { answers, codes: [code('fare')], seed: 1, leastProbability: 0 };
  const { suggestions, wordsFor } = trained(input, 'fare');
  const [crew, neither, fare] = suggestions.map(({ probability }) => probability);
  expect(fare).toBeGreaterThan(0.5);
  expect(crew).toBeLessThan(neither! + 0.1);
  expect(wordsFor[0]!.word).toBe('fare');
  // of the view and the fare, the second line is the one about the fare
  expect(suggestions[2]!.line).toBe(1);
  expect(suggestions[2]!.evidence.map(({ word }) => word)).not.toContain('view');
});

test('read suggestions teach and are not suggested again; bulk ones are not even told; scope holds', () => {
  const open = ['about the pier', 'pier and quay', 'pier again', 'the fare'];
  const answers = fareAnswers(open);
  const first = answers.length - open.length;
  const input = { answers, codes: [code('fare')], seed: 1, leastProbability: 0 };
  const before = trained(input, 'fare');
  const decided = answers.map((one, i) => ({
    ...one,
    ...(i === first || i === first + 1 ? { decided: new Map([['fare', true]]) } : {}),
    inScope: i !== first + 3,
  }));
  const after = trained({ ...input, answers: decided }, 'fare');
  expect(after).toMatchObject({ examples: before.examples, decidedFor: 2, decidedAgainst: 0 });
  expect(after.suggestions.map((one) => one.answer - first)).toEqual([2]);
  expect(after.suggestions[0]!.probability).toBeGreaterThan(
    before.suggestions.find((one) => one.answer === first + 2)!.probability,
  );
});

test('nearest coded answers are asked by similarity, and never within one’s own fold', () => {
  const input: TrainingInput = { answers: fareAnswers([]), codes: [code('fare')], seed: 1 };
  const { x, settled, rowOf } = readMaterial(input, new Set(), {
    table: null,
    sentences: NO_SENTENCES,
    penaltyC: 4,
  });
  const labels = Uint8Array.from(input.answers, ({ codes }) => codes.size);
  const neighbours = findNeighbours(x, settled, rowOf)!;
  const apart = scoreByNearest(neighbours, labels, Int32Array.from(settled.keys()));
  expect(averagePrecision(apart, labels)).toBeGreaterThan(0.8);
  const together = scoreByNearest(neighbours, labels, new Int32Array(settled.length));
  expect([...together]).toEqual(settled.map(() => 0));
});

test('a learning curve is carried on by its power law, and a flat one promises nothing', () => {
  const sizes = [50, 100, 200, 400];
  const law = sizes.map((n) => ({ answers: n, averagePrecision: 1 - 2 * n ** -0.5 }));
  const gain = likelyGain(law, 50)!;
  expect(gain.value).toBeCloseTo(2 * 400 ** -0.5 - 2 * 450 ** -0.5, 10);
  expect(gain.interval.map((end) => end.toFixed(8))).toEqual([
    gain.value.toFixed(8),
    gain.value.toFixed(8),
  ]);
  const flat = sizes.map((n) => ({ answers: n, averagePrecision: 0.6 }));
  expect(likelyGain(flat, 50)!.value).toBeCloseTo(0, 12);
  expect(likelyGain(law.slice(0, 2), 50)).toBeNull();
});

test('codes taken for each other are named with how often', () => {
  const one = (codeId: string, settled: number[], p: number[]) => ({
    codeId,
    threshold: 0.5,
    settledLabels: Uint8Array.from(settled),
    outOfFold: Float64Array.from(p),
  });
  expect(
    findConfused([
      one('quay', [1, 1, 1, 0, 0], [0.1, 0.2, 0.9, 0.1, 0.1]),
      one('pier', [0, 0, 0, 1, 0], [0.8, 0.9, 0.1, 0.3, 0.6]),
    ]),
  ).toEqual([{ codeId: 'quay', takenFor: 'pier', answers: 2 }]);
});

test('shares are estimated from a random sample with an interval that holds them', () => {
  // a population of two kinds of words with some noise, and 80 samples of it
  const next = randomSource(11);
  const population = Array.from({ length: 400 }, () => {
    const about = next() / 2 ** 32 < 0.3;
    const wrong = next() / 2 ** 32 < 0.1;
    const word = about !== wrong ? 'fare' : 'crew';
    const filler = ['early', 'late', 'again', 'today'][next() % 4];
    return { text: `${word} ${filler}`, about };
  });
  const truth = population.filter(({ about }) => about).length / population.length;
  let [covered, narrower, sum] = [0, 0, 0];
  const draws = 80;
  for (let seed = 0; seed < draws; seed++) {
    const sample = new Set(simpleRandomSample(population.length, 60, seed));
    const { share } = trained(
      {
        answers: population.map(({ text, about }, i) => ({
          ...answer(text, sample.has(i), ...(about ? ['fare'] : [])),
          random: sample.has(i),
        })),
        codes: [code('fare')],
        seed,
      },
      'fare',
    );
    const [low, high] = share!.estimate!.interval;
    sum += share!.estimate!.value;
    if (low <= truth && truth <= high) covered++;
    if (high - low < share!.sampleInterval[1] - share!.sampleInterval[0]) narrower++;
  }
  // 95% of 80 draws, less what chance may take with probability .001
  expect(covered / draws).toBeGreaterThan(0.86);
  expect(Math.abs(sum / draws - truth)).toBeLessThan(0.02);
  expect(narrower / draws).toBeGreaterThan(0.9);
});

test('how long texts are read does not depend on which of the models are wanted', () => {
  const mails = readMails().filter((_, i) => i % 60 === 0);
  const input: TrainingInput = {
    answers: mails.map((mail, i) => ({ ...mail, settled: i < 80 })),
    codes: [code('spam'), code('hard-ham'), code('none of these')],
    seed: 2,
  };
  const whole = trainQuestion(input).codes.filter(({ codeId }) => codeId === 'spam');
  expect(whole[0]!.state).toBe('ready');
  expect(trainQuestion({ ...input, only: new Set(['spam']) }).codes).toEqual(whole);
});

test('open data: spam and hard ham in the SpamAssassin corpus are told from 400 labelled mails', () => {
  const mails = readMails().filter((_, i) => i % 3 === 0);
  const sample = new Set(simpleRandomSample(mails.length, 400, 1));
  const { codes } = trainQuestion({
    answers: mails.map((mail, i) => ({ ...mail, settled: sample.has(i) })),
    codes: [code('spam'), code('hard-ham')],
    seed: 1,
    leastProbability: 0,
  });
  const measured = codes.map((found) => {
    if (found.state === 'too_few') throw new Error(`${found.codeId} was not learnt`);
    const { answers, probabilities: p } = found.suggestions;
    const labels = Uint8Array.from(answers, (i) => Number(mails[i]!.codes.has(found.codeId)));
    return {
      precision: averagePrecision(p, labels),
      atLine: f1(outcomeAt(p, labels, found.threshold)),
    };
  });
  // what the mean of ten draws from all mails reaches, which the benchmark measures
  const [spam, hardHam] = measured;
  expect((spam!.precision + hardHam!.precision) / 2).toBeGreaterThan(0.8);
  expect((spam!.atLine + hardHam!.atLine) / 2).toBeGreaterThan(0.75);
});
