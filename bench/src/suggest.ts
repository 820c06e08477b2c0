import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import {
  averagePrecision,
  brierScore,
  f1,
  outcomeAt,
  precision,
  readWordTable,
  recall,
  trainQuestion,
  type Outcome,
  type TrainingVectors,
} from '@yellow-thread/core/learning';
import { nearnessTo, type SentenceVectors } from '@yellow-thread/core/sentences';
import { simpleRandomSample } from '@yellow-thread/core/sampling';
import { splitLines } from '@yellow-thread/core/text';
import { parse } from 'csv-parse/sync';
import { mails, packages } from './openSets.js';
import {
  askPython,
  demoCodes,
  demoQuestions,
  encodedOnce,
  readSentenceEncoder,
  rounded,
  type CodedText,
} from './material.js';

type CodeWords = (typeof demoCodes)[number];

/** Answers with their true codes, and the codes that are asked about. */
interface Labelled {
  name: string;
  answers: (CodedText & { id: string })[];
  codes: CodeWords[];
}

const usage = `suggest [--file F.csv --id COL --text COL --codes a,b,c [--codebook B.csv] | --open mails|packages]
  [--train N,N] [--seeds 1..10] [--draws draws.json] [--no-vectors] [--encoder none|default] [--sklearn] [--json]`;

/**
 * How good suggestions are on answers that nobody coded, by the product's own models: on any labelled sheet (a 0/1
 * column a code), on open data, or on the demo's true codes without either. Each seed draws another random sample to learn from;
 * `draws` gives the samples instead, as a list of lists of ids. `--sklearn` has scikit-learn learn from the same
 * samples: its F1 over all codes, and its average precision for those codes and samples that the product has a model of.
 */
export function suggest(args: string[]) {
  const { values } = parseArgs({
    args,
    options: {
      file: { type: 'string' },
      id: { type: 'string' },
      text: { type: 'string' },
      codes: { type: 'string' },
      codebook: { type: 'string' },
      train: { type: 'string', default: '50,100,200' },
      seeds: { type: 'string', default: '1..5' },
      draws: { type: 'string' },
      'no-vectors': { type: 'boolean', default: false },
      encoder: { type: 'string', default: 'default' },
      sklearn: { type: 'boolean', default: false },
      open: { type: 'string' },
      json: { type: 'boolean', default: false },
    },
  });
  const { file, id, text, codes } = values;
  if (file && !(id && text && codes)) throw new Error(`Say what to read: ${usage}`);
  const sets = file
    ? [readSheet(file, { id: id!, text: text!, codes: codes!.split(','), book: values.codebook })]
    : values.open
      ? [readOpen(values.open)]
      : demoSets();
  const table = values['no-vectors'] ? null : readTable();
  const encoder = values.encoder === 'none' ? null : readSentenceEncoder();
  const draws = values.draws
    ? (JSON.parse(readFileSync(values.draws, 'utf8')) as string[][])
    : null;
  const sizes = draws ? [draws[0]!.length] : values.train.split(',').map(Number);
  return sets.flatMap((set) =>
    sizes
      .filter((size) => size <= set.answers.length / 2)
      .flatMap((size) => {
        const samples = draws
          ? draws.map((ids) => placesOf(set, ids))
          : seedsIn(values.seeds).map((seed) => simpleRandomSample(set.answers.length, size, seed));
        const measured = measureSet(
          set,
          samples,
          { table, sentences: encoder && encodedOnce(encoder) },
          values.sklearn,
        );
        return file || values.open ? measured : [measured.at(-1)!];
      }),
  );
}

function seedsIn(range: string): number[] {
  const [from, to = from] = range.split('..').map(Number);
  return Array.from({ length: to! - from! + 1 }, (_, i) => from! + i);
}

function placesOf({ answers }: Labelled, ids: readonly string[]): number[] {
  const placeOf = new Map(answers.map((answer, place) => [answer.id, place]));
  return ids.map((id) => {
    const place = placeOf.get(String(id));
    if (place === undefined) throw new Error(`The draws name “${id}”, which the sheet has not.`);
    return place;
  });
}

const demoSets = (): Labelled[] =>
  demoQuestions().map((answers, q) => ({
    name: `demo ${q + 1}`,
    answers: answers.map((answer, i) => ({ ...answer, id: String(i) })),
    codes: demoCodes,
  }));

function readOpen(name: string): Labelled {
  const read = { mails, packages }[name];
  if (!read) throw new Error(`No open data “${name}”: ${usage}`);
  const { codes, ...set } = read();
  return { ...set, codes: codes.map((id) => ({ id, name: '', definition: '', include: '' })) };
}

const readTable = () =>
  readWordTable(readFileSync(new URL('../../server/words/english.bin', import.meta.url)));

function readSheet(
  file: string,
  columns: { id: string; text: string; codes: string[]; book: string | undefined },
): Labelled {
  const rows = (path: string) =>
    parse<Record<string, string>>(readFileSync(path), { columns: true, bom: true });
  const book = new Map((columns.book ? rows(columns.book) : []).map((one) => [one['code'], one]));
  return {
    name: file,
    answers: rows(file).map((one) => ({
      id: one[columns.id]!,
      text: one[columns.text]!,
      codes: new Set(columns.codes.filter((code) => Number(one[code]) > 0)),
    })),
    codes: columns.codes.map((code) => ({
      id: code,
      name: columns.book ? code : '',
      definition: book.get(code)?.['definition'] ?? '',
      include: book.get(code)?.['include'] ?? '',
    })),
  };
}

interface Tally {
  outcome: Outcome;
  positives: number;
  averagePrecision: number[];
  /** The samples that there was a model in. */
  trainedIn: number[];
  brier: number[];
  calibrationError: number[];
  covered: number[];
  width: number[];
}
const emptyTally = (): Tally => ({
  outcome: { truePositives: 0, falsePositives: 0, falseNegatives: 0 },
  positives: 0,
  averagePrecision: [],
  trainedIn: [],
  brier: [],
  calibrationError: [],
  covered: [],
  width: [],
});

/** A row a code, and one for all of them, over all samples. */
function measureSet(
  set: Labelled,
  samples: number[][],
  vectors: TrainingVectors,
  compare: boolean,
) {
  const { name, answers, codes } = set;
  const byCode = new Map(codes.map(({ id }) => [id, emptyTally()]));
  const begun = performance.now();
  for (const [draw, sample] of samples.entries()) measureDraw(set, sample, draw, vectors, byCode);
  const nearness = vectors.sentences && precisionByNearness(set, vectors.sentences);
  const seconds = (performance.now() - begun) / 1000 / samples.length;
  const coded = samples[0]!.length;
  const about = { set: name, coded, of: answers.length };
  const tallies = [...byCode.values()].filter(({ positives }) => positives > 0);
  const total = tallies.map(({ outcome }) => outcome).reduce(addOutcomes);
  const meanOf = (value: (tally: Tally) => number) =>
    mean(tallies.map(value).filter((one) => !Number.isNaN(one)));
  const rowOf = (tally: Tally) => ({
    positives: rounded(tally.positives / samples.length, 1),
    precision: rounded(precision(tally.outcome), 3),
    recall: rounded(recall(tally.outcome), 3),
    F1: rounded(f1(tally.outcome), 3),
    'average precision': rounded(mean(tally.averagePrecision), 3),
    Brier: rounded(mean(tally.brier), 4),
    'calibration error': rounded(mean(tally.calibrationError), 4),
    'share covered': rounded(mean(tally.covered)),
    'share width': rounded(mean(tally.width), 3),
  });
  return [
    ...codes.map(({ id }) => ({ ...about, code: id, ...rowOf(byCode.get(id)!) })),
    {
      ...about,
      code: 'all',
      positives: rounded(
        tallies.reduce((sum, { positives }) => sum + positives, 0) / samples.length,
        1,
      ),
      precision: rounded(precision(total), 3),
      recall: rounded(recall(total), 3),
      F1: rounded(f1(total), 3),
      'macro-F1': rounded(
        meanOf(({ outcome }) => f1(outcome)),
        3,
      ),
      'average precision': rounded(
        meanOf((tally) => mean(tally.averagePrecision)),
        3,
      ),
      ...(nearness !== null && { 'by nearness, nothing coded': rounded(nearness, 3) }),
      Brier: rounded(
        meanOf((tally) => mean(tally.brier)),
        4,
      ),
      'calibration error': rounded(
        meanOf((tally) => mean(tally.calibrationError)),
        4,
      ),
      'share covered': rounded(meanOf((tally) => mean(tally.covered))),
      'share width': rounded(
        meanOf((tally) => mean(tally.width)),
        3,
      ),
      ...(compare && scikitLearn(set, samples, [...byCode.values()])),
      seconds: rounded(seconds, 1),
      'peak MB': Math.round(process.resourceUsage().maxRSS / 1024),
    },
  ];
}

/**
 * Mean average precision of all answers by their nearness in meaning to what the codebook says of each code, with nothing
 * coded; null where it says nothing.
 */
function precisionByNearness(
  { answers, codes }: Labelled,
  sentences: SentenceVectors,
): number | null {
  const said = codes.filter(({ definition }) => definition !== '');
  if (said.length === 0) return null;
  const nearness = nearnessTo(
    said.map(({ name, definition }) => [name, definition].map((text) => sentences.of(text))),
  );
  const near = answers.map(({ text }) => {
    const vector = sentences.of(text);
    return vector ? nearness(vector) : new Float64Array(said.length);
  });
  return mean(
    said.flatMap(({ id }, c) => {
      const labels = Uint8Array.from(answers, (answer) => Number(answer.codes.has(id)));
      if (!labels.includes(1)) return [];
      return [
        averagePrecision(
          Float64Array.from(near, (one) => one[c]!),
          labels,
        ),
      ];
    }),
  );
}

/** The same measured of scikit-learn, each figure with the strength of penalty that was best for it in hindsight. */
function scikitLearn({ answers, codes }: Labelled, samples: number[][], tallies: Tally[]) {
  type Measured = { averagePrecision: number | null; outcome: Outcome };
  const byStrength = askPython('sklearn_suggest.py', {
    samples,
    strengths: [1, 4, 16, 64],
    texts: answers.map(({ text }) => text),
    labels: answers.map((answer) => codes.map(({ id }) => Number(answer.codes.has(id)))),
  }) as Measured[][][];
  const f1Of = (measured: Measured[][]) =>
    f1(measured.flatMap((draw) => draw.map(({ outcome }) => outcome)).reduce(addOutcomes));
  const averagePrecisionOf = (measured: Measured[][]) =>
    mean(
      tallies.flatMap(({ trainedIn }, code) =>
        trainedIn.length === 0
          ? []
          : [mean(trainedIn.map((draw) => measured[draw]![code]!.averagePrecision ?? 0))],
      ),
    );
  const best = (of: (measured: Measured[][]) => number) =>
    rounded(Math.max(...byStrength.map(of)), 3);
  return {
    'scikit-learn F1': best(f1Of),
    'scikit-learn average precision': best(averagePrecisionOf),
  };
}

function measureDraw(
  { answers, codes }: Labelled,
  sample: readonly number[],
  draw: number,
  vectors: TrainingVectors,
  byCode: Map<string, Tally>,
) {
  const sampled = new Set(sample);
  const open = [...answers.keys()].filter((i) => !sampled.has(i));
  const result = trainQuestion(
    {
      answers: answers.map(({ text, codes }, i) => ({
        text,
        codes,
        settled: sampled.has(i),
        random: sampled.has(i),
        // which line a code rests on is not in such a sheet
        lines: splitLines(text).map((line) => ({ ...line, codes: new Set<string>() })),
      })),
      codes: codes.map((code) => ({ ...code })),
      seed: draw,
      leastProbability: 0,
    },
    vectors,
  );
  for (const one of result.codes) {
    const tally = byCode.get(one.codeId)!;
    const labels = Uint8Array.from(open, (i) => Number(answers[i]!.codes.has(one.codeId)));
    const positives = labels.reduce((sum, label) => sum + label, 0);
    tally.positives += positives;
    if (one.state === 'too_few') {
      tally.outcome.falseNegatives += positives;
      continue;
    }
    const { answers: suggested, probabilities } = one.suggestions;
    const probabilityOf = new Map(Array.from(suggested, (i, s) => [i, probabilities[s]!]));
    const p = Float64Array.from(open, (i) => probabilityOf.get(i) ?? 0);
    tally.outcome = addOutcomes(tally.outcome, outcomeAt(p, labels, one.threshold));
    if (positives > 0) {
      tally.averagePrecision.push(averagePrecision(p, labels));
      tally.trainedIn.push(draw);
    }
    tally.brier.push(brierScore(p, labels));
    tally.calibrationError.push(calibrationError(p, labels));
    const estimate = one.share?.estimate;
    if (!estimate) continue;
    const share = answers.filter((answer) => answer.codes.has(one.codeId)).length / answers.length;
    const [low, high] = estimate.interval;
    tally.covered.push(Number(low <= share && share <= high));
    tally.width.push(high - low);
  }
}

const addOutcomes = (one: Outcome, other: Outcome): Outcome => ({
  truePositives: one.truePositives + other.truePositives,
  falsePositives: one.falsePositives + other.falsePositives,
  falseNegatives: one.falseNegatives + other.falseNegatives,
});

/** Expected calibration error over ten equal steps of probability (Naeini, Cooper & Hauskrecht 2015). */
function calibrationError(p: Float64Array, labels: Uint8Array): number {
  const said = new Float64Array(10);
  const found = new Float64Array(10);
  p.forEach((value, i) => {
    const step = Math.min(9, Math.floor(value * 10));
    said[step]! += value;
    found[step]! += labels[i]!;
  });
  return said.reduce((sum, value, step) => sum + Math.abs(value - found[step]!), 0) / p.length;
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;
