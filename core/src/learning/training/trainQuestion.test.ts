import { describe, expect, test } from '@jest/globals';
import { fitCodes } from './fitCodes.js';
import { trainQuestion, type CodeResult, type TrainingProgress } from './trainQuestion.js';
import { NO_SENTENCES } from '../../sentences/index.js';
import { readMaterial, type TrainingInput } from './material.js';
import { listSuggestions } from '../suggesting/suggestions.js';

const settledTexts: [text: string, ...codes: string[]][] = [
  ...['the fares', 'fares too high', 'such high fares', 'fares again', 'cheaper fares please'].map(
    (text): [string, string] => [text, 'price'],
  ),
  ...['the fares and the ramp', 'fares, ramp'].map((text): [string, ...string[]] => [
    text,
    'price',
    'ramp',
  ]),
  ...[
    'lovely crew',
    'the crew',
    'crew are kind',
    'kind people',
    'the view',
    'a fine view',
    'seals',
    'more boats',
    'boats at night',
    'a later boat',
    'the queue',
    'queue at the slip',
  ].map((text): [string] => [text]),
];
const openTexts = ['your fares', 'fares!!', 'the crew again', 'queue and fares', 'nothing at all'];

const input = (seed = 7): TrainingInput => ({
  seed,
  codes: [
    { id: 'price', name: 'Price', definition: 'What it costs', include: '' },
    { id: 'ramp', name: 'Ramps', definition: '', include: '' },
  ],
  answers: [
    ...settledTexts.map(([text, ...codes]) => ({ text, settled: true, codes: new Set(codes) })),
    ...openTexts.map((text) => ({ text, settled: false, codes: new Set<string>() })),
  ],
});
const trained = (results: CodeResult[], id: string) => {
  const found = results.find((one) => one.codeId === id);
  if (!found || found.state === 'too_few') throw new Error(`${id} was not trained`);
  return { ...found, suggestions: listSuggestions(found.suggestions) };
};

describe('trainQuestion', () => {
  const results = trainQuestion(input()).codes;

  test('a code with fewer than three settled examples gets no model, and says so', () => {
    expect(results[1]).toEqual({ codeId: 'ramp', state: 'too_few', examples: 2, share: null });
    // a random sample tells its share all the same
    const { answers, ...rest } = input();
    const drawn = answers.map((answer) => ({ ...answer, random: answer.settled }));
    expect(trainQuestion({ ...rest, answers: drawn }).codes[1]).toMatchObject({
      state: 'too_few',
      share: { sampled: settledTexts.length, mentioned: 2, estimate: null },
    });
  });

  test('marks few examples as weak and suggests for open answers only, with the words behind it', () => {
    const price = trained(results, 'price');
    expect(price).toMatchObject({ state: 'weak', examples: 7 });
    expect(price.wordsFor[0]?.word).toBe('fares');
    const first = settledTexts.length;
    const byAnswer = new Map(price.suggestions.map((one) => [one.answer - first, one]));
    expect([...byAnswer.keys()].every((answer) => answer >= 0)).toBe(true);
    const probability = (answer: number) => byAnswer.get(answer)?.probability ?? 0;
    for (const about of [0, 1, 3]) {
      expect(byAnswer.get(about)!.evidence[0]?.word).toBe('fares');
      for (const other of [2, 4]) expect(probability(about)).toBeGreaterThan(probability(other));
    }
    expect(probability(0)).toBeGreaterThan(price.threshold);
    expect(probability(4)).toBeLessThan(price.threshold);
  });

  test('what is not suggested is in the sum, so that expectations lose nobody', () => {
    const { suggestions, unsuggested } = trained(results, 'price');
    const missing = openTexts.length - suggestions.length;
    expect(unsuggested).toBeGreaterThanOrEqual(0);
    expect(unsuggested).toBeLessThan(0.05 * missing + 1e-9);
  });

  test('the same data and seed give the same models to the last bit; progress reaches its end', () => {
    const told: TrainingProgress[] = [];
    const again = trainQuestion(input(), undefined, (now) => told.push(now));
    expect(again.codes).toEqual(results);
    const steps = told.map(({ done, of }) => done / of);
    expect(steps.at(-1)).toBe(1);
    expect(steps).toEqual([...steps].sort((x, y) => x - y));
    // one of the two codes has too few examples
    expect([told[0]!.codes, told.at(-1)!.codes]).toEqual([
      { done: 0, of: 1 },
      { done: 1, of: 1 },
    ]);
  });

  test('log-odds are what words add, what the meaning adds, and the same for every answer', () => {
    const vectorOf = (text: string) => {
      const vector = Float32Array.from({ length: 8 }, (_, d) => ((text.length * (d + 3)) % 7) - 3);
      vector[0] = text.includes('fare') ? 9 : -9;
      const length = Math.hypot(...vector);
      return vector.map((one) => one / length);
    };
    const unread = 'nothing at all';
    const sentences = {
      size: 8,
      of: (text: string) => (text === unread ? null : vectorOf(text)),
    };
    const all = { ...input(), leastProbability: 0 };
    const { codes } = trainQuestion(all, { table: null, sentences });
    const { suggestions } = trained(codes, 'price');
    expect(suggestions).toHaveLength(openTexts.length);
    const rest = suggestions.map(
      ({ probability, fromWords, fromMeaning }) =>
        Math.log(probability / (1 - probability)) - fromWords - (fromMeaning ?? 0),
    );
    for (const one of rest) expect(one).toBeCloseTo(rest[0]!, 6);
    suggestions.forEach(({ answer, fromMeaning, line }) => {
      const { text } = all.answers[answer]!;
      expect(line).toBeNull();
      if (text === unread) expect(fromMeaning).toBeNull();
      else expect(fromMeaning! > 0).toBe(text.includes('fare'));
    });
  });

  test('answers that are not settled are never taken as negatives', () => {
    const more = input();
    more.answers.push(
      ...Array.from({ length: 30 }, () => ({
        text: 'fares of course',
        settled: false,
        codes: new Set<string>(),
      })),
    );
    const price = trained(trainQuestion(more).codes, 'price');
    expect(price.suggestions.filter((one) => one.probability > 0.5).length).toBeGreaterThan(30);
  });
});

test('learns from languages that write no spaces, and says which words it went by', () => {
  const late = ['船が遅い', '船はいつも遅い', '遅い船', 'また遅い', '遅いです', '朝の船が遅い'];
  const other = [
    '景色がいい',
    '海がきれい',
    '家族に会える',
    '島の生活',
    '病院に行く',
    '料金が高い',
  ];
  const [result] = trainQuestion({
    seed: 3,
    codes: [{ id: 'late', name: 'Late', definition: '', include: '' }],
    answers: [
      ...late.map((text) => ({ text, settled: true, codes: new Set(['late']) })),
      ...other.map((text) => ({ text, settled: true, codes: new Set<string>() })),
      ...['船が遅い日', '海の景色'].map((text) => ({
        text,
        settled: false,
        codes: new Set<string>(),
      })),
    ],
  }).codes;
  const { suggestions, wordsFor } = trained([result!], 'late');
  expect(wordsFor.map((one) => one.word)).toContain('遅い');
  const [first] = suggestions.toSorted((x, y) => y.probability - x.probability);
  expect(first).toMatchObject({ answer: late.length + other.length });
});

test('the learning curve rests on 800 answers held out: on fewer folds the more are settled', () => {
  const codes = [{ id: 'late', name: '', definition: '', include: '' }];
  const fitsOf = (settled: number) => {
    const answers = Array.from({ length: settled }, (_, i) => ({
      text: `the boat was ${i % 3 === 0 ? 'late' : 'dear'} on day ${i}`,
      settled: true,
      codes: new Set(i % 3 === 0 ? ['late'] : []),
    }));
    const manner = { table: null, sentences: NO_SENTENCES, penaltyC: 4 };
    const material = readMaterial({ answers, codes, seed: 1 }, new Set(), manner);
    let told = 0;
    const [fits] = fitCodes(material, ['late'], (of) => {
      told += 1;
      expect(of).toBeGreaterThanOrEqual(told);
    });
    const curve = fits?.state === 'fitted' ? fits.curve.map((point) => point.answers) : [];
    expect(curve).toEqual([0.2, 0.4, 0.6, 0.8].map((share) => Math.round(share * settled)));
    return told;
  };
  // the whole, five folds, and three parts of each fold that shows the curve
  expect([800, 1000, 3990, 4000, 6000].map(fitsOf)).toEqual([21, 12, 12, 9, 9]);
});
