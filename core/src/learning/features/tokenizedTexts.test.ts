import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { near } from '../../../test/near.js';
import { scoreRows } from '../../../test/scoreRows.js';
import { tinyTable } from '../../../test/tinyTable.js';
import { weighWords, WordShareBuilder } from '../suggesting/evidence.js';
import { factorsOf } from './factors.js';
import { rowBuilder, vectoriser } from './features.js';
import type { CompressedRows, SparseRows } from './sparseRows.js';
import { TextScorer } from '../suggesting/textScorer.js';
import { fitLogistic } from '../solver/fitInterleaved.js';
import { formsOf } from './lexicon.js';
import { learnVocabulary } from './vocabulary.js';
import { Tokenizer } from './tokenizedTexts.js';

// words that share runs of characters with each other and with themselves, some of them in the table
const word = fc.constantFrom('boat', 'boats', 'ship', 'crew', 'aaaa', 'an', 'banana', 'x', 'é');
const text = fc.array(word, { maxLength: 12 }).map((words) => words.join(' '));
const texts = fc.array(text, { minLength: 1, maxLength: 8 });
const { table } = tinyTable();

function rowsOf(vocabulary: ReturnType<typeof learnVocabulary>, all: string[]) {
  const vectorise = vectoriser(vocabulary);
  const builder = rowBuilder(vocabulary);
  for (const one of all) builder.add(vectorise(one));
  return { x: builder.rows(), rows: Int32Array.from(all.keys()) };
}
const modelOf = (columns: number, shift: number) => ({
  weights: Float64Array.from({ length: columns }, (_, i) => Math.sin(i * 7 + shift)),
  intercept: shift / 10,
});

test('texts score by their words as by their vectors, and what the words contribute adds up to the score', () => {
  const known = fc.record({
    answers: texts,
    learntFrom: texts,
    others: fc.array(texts, { maxLength: 3 }),
  });
  fc.assert(
    fc.property(known, fc.boolean(), (given, hasTable) => {
      const { answers, learntFrom } = given;
      if (answers.length < 2) return;
      const options = { learntFrom, minAnswers: 1, table: hasTable ? table : null };
      const vocabulary = learnVocabulary([...answers, ...learntFrom], options);
      const models = [1, 2, 3].map((shift) => modelOf(vocabulary.learnt, shift));
      const reader = new Tokenizer(vocabulary);
      // with room for a word or two, it has to forget them all the time
      const scorer = new TextScorer(vocabulary, models, 'f64', 2);
      for (const chunk of [answers, ['quay of bananas', ...learntFrom], ...given.others]) {
        reader.forget();
        for (const one of chunk) reader.read(one);
        const scores = scorer.score(reader.texts);
        const { x, rows } = rowsOf(vocabulary, chunk);
        models.forEach((model, m) => {
          expect([...scores[m]!]).toEqual(near(scoreRows(x, rows, model)));
          const sums = chunk.map((_, t) =>
            scorer
              .contributions(reader.texts, t, m)
              .subarray(0, reader.texts.firstWord[t + 1]! - reader.texts.firstWord[t]!)
              .reduce((sum, one) => sum + one, model.intercept),
          );
          expect(sums).toEqual(near(scores[m]!));
        });
      }
    }),
  );
});

test('taken apart into whole words, the numbers of texts are what they are, and are learnt from as such', () => {
  const multiplied = (
    { start, column, value }: CompressedRows,
    row: number,
    by: number,
    into: number[],
  ) => {
    for (let k = start[row]!; k < start[row + 1]!; k++)
      into[column[k]!] = (into[column[k]!] ?? 0) + by * value[k]!;
  };
  const expanded = (x: SparseRows, row: number, part: (column: number) => boolean) => {
    const { rows, wholes } = x.factors!;
    const parts: number[] = [];
    multiplied(rows, row, 1, parts);
    const sums = new Array<number>(x.columns).fill(0);
    parts.forEach((by, column) => {
      if (!part(column)) return;
      if (column < x.columns) sums[column]! += by;
      else multiplied(wholes, column - x.columns, by, sums);
    });
    return sums;
  };
  fc.assert(
    fc.property(texts, fc.integer({ min: 0, max: 20 }), (all, again) => {
      // with many texts of few words their vectors are wholes, with few texts they are not
      const answers = [...all, ...Array.from({ length: again }, () => 'boat')];
      const vocabulary = learnVocabulary(answers, { minAnswers: 1, table });
      const { x } = rowsOf(vocabulary, answers);
      const reader = new Tokenizer(vocabulary);
      for (const one of answers) reader.read(one);
      x.factors = factorsOf(reader.texts, vocabulary);
      const { rows, commonStop, common } = x.factors;
      answers.forEach((_, row) => {
        const numbers = new Array<number>(x.columns).fill(0);
        for (let k = x.start[row]!; k < x.start[row + 1]!; k++) numbers[x.column[k]!] = x.value[k]!;
        expect(expanded(x, row, () => true)).toEqual(near(numbers));
        const isCommon = (column: number) =>
          column < x.common || (column >= x.columns && column < x.columns + common);
        expect(expanded(x, row, isCommon)).toEqual(
          near(numbers.map((value, column) => (column < x.common ? value : 0))),
        );
        const columns = rows.column.subarray(rows.start[row], rows.start[row + 1]);
        expect(columns.findLastIndex(isCommon) + 1 + rows.start[row]!).toBe(commonStop[row]);
      });
      if (answers.length < 2) return;
      const options = {
        rows: Int32Array.from(answers.keys()),
        labels: Uint8Array.from(answers, (_, i) => Number(i % 3 === 1)),
        importance: new Float64Array(answers.length).fill(1),
        c: 4,
        tolerance: 1e-9,
      };
      const { weights, intercept } = fitLogistic(x, options);
      const whole = fitLogistic({ ...x, factors: undefined }, options);
      const off = weights.map((weight, column) => Math.abs(weight - whole.weights[column]!));
      expect(Math.max(0, ...off, Math.abs(intercept - whole.intercept))).toBeLessThan(1e-5);
    }),
  );
});

test('a word weighs what it contributes on average, in the answers that sums are of', () => {
  const answers = [
    'the boat is late',
    'boats, boats and boats',
    'the crew of the boat',
    'late again',
    'a fair fare',
    'the ship is fair',
    'the banana boat',
    'late boats again',
  ];
  const vocabulary = learnVocabulary(answers, { table });
  const model = modelOf(vocabulary.learnt, 1);
  const calibration = { slope: 1.3, shift: -0.4 };
  const reader = new Tokenizer(vocabulary);
  for (const one of answers) reader.read(one);
  const { texts } = reader;
  const scorer = new TextScorer(vocabulary, [model], 'f64');
  scorer.score(texts);
  const shares = new WordShareBuilder(vocabulary);
  const contributed = new Map<string, number[]>();
  answers.forEach((_, t) => {
    const words = texts.words.slice(texts.firstWord[t], texts.firstWord[t + 1]);
    shares.count(words);
    // every other text is only counted
    if (t % 2 > 0) return;
    shares.add(texts, t);
    const contributions = scorer.contributions(texts, t, 0);
    words.forEach((word, w) => {
      const form = vocabulary.words.forms[word]!;
      contributed.set(form, [
        ...(contributed.get(form) ?? []),
        calibration.slope * contributions[w]!,
      ]);
    });
  });
  const { wordsFor, wordsAgainst } = weighWords(shares.shares(), model, calibration, 100);
  const weighed = [...wordsFor, ...wordsAgainst];
  expect(weighed.length).toBeGreaterThan(4);
  for (const { word, weight, answers: using } of weighed) {
    const those = contributed.get(word)!;
    expect(weight).toBeCloseTo(those.reduce((sum, one) => sum + one, 0) / those.length, 10);
    expect(using).toBe(answers.filter((one) => formsOf(one, new Set()).includes(word)).length);
  }
});
