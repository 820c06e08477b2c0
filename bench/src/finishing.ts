import { parseArgs } from 'node:util';
import { findCodes } from '@yellow-thread/core/codebook';
import {
  listSuggestions,
  readWordTable,
  trainQuestion,
  type CodeResult,
  type TrainingResult,
} from '@yellow-thread/core/learning';
import {
  addKnownPart,
  boundByParts,
  estimateAny,
  estimateOf,
  type SampledCode,
  type SampleWithin,
  type ShareEstimate,
} from '@yellow-thread/core/report';
import { simpleRandomSample } from '@yellow-thread/core/sampling';
import {
  CROSS_FITTED,
  randomSource,
  wilsonInterval,
  type EstimatedShare,
} from '@yellow-thread/core/statistics';
import { duplicateKey } from '@yellow-thread/core/text';
import { codebook } from '@yellow-thread/demo';
import { readFileSync } from 'node:fs';
import { demoCodes, demoQuestions, rounded, type CodedText } from './material.js';

/** Answers hand-coded to begin with, and drawn to check what the models decided. */
const BEGIN = 100;
const CHECK = 50;
/** Seconds an answer takes, and a key beside it: the stated pace. */
const PACE = { answer: 6, key: 0.4 };
/** Where a perfect coder reads suggestions one by one, code by code; the rest is decided in bulk. */
const UNSURE = [0.2, 0.8] as const;

const themes = codebook.map(({ name, codes }) => ({
  id: name,
  parts: codes.map((code) => code.key),
}));
/** What a table has rows of: codes, and themes with their codes. */
const rows = [...demoCodes.map(({ id }) => ({ id, parts: [id] })), ...themes];

/** One code typed and applied: the fewest letters that bring it to the top, and Enter. */
const keysOfCode = new Map(demoCodes.map(({ id }) => [id, typedKeys(id)]));
/** The same for somebody who does not know the fewest letters by heart and types three. */
const LETTERS = 3;
function typedKeys(id: string): number {
  const codes = codebook.flatMap((theme) =>
    theme.codes.map((code) => ({
      id: code.key,
      name: code.name,
      themeName: theme.name,
      definition: code.definition,
      people: 0,
    })),
  );
  const { name } = codes.find((code) => code.id === id)!;
  for (let letters = 1; letters <= name.length; letters++)
    if (findCodes(codes, name.slice(0, letters))[0]?.id === id) return letters + 1;
  return name.length + 1;
}

/** What a way took, and how far its shares are off. */
interface Outcome {
  read: number;
  /** Single keys, each of which decides something. */
  pressed: number;
  /** Codes that were typed. */
  typed: string[];
  /** By row: the share that is reported, and its interval; null where none is. */
  shares: { value: number; interval: readonly [number, number] | null }[];
}

/**
 * How a question is finished: on the demo's true codes a perfect coder codes a hundred answers at random, trains, and
 * goes each of the ways to the end. Prints what each takes and how far its shares are off.
 */
export function finishing(args: string[]) {
  const { values } = parseArgs({
    args,
    options: { seeds: { type: 'string', default: '10' }, json: { type: 'boolean' } },
  });
  const table = readWordTable(
    readFileSync(new URL('../../server/words/english.bin', import.meta.url)),
  );
  const outcomes = new Map<string, Outcome[]>();
  const truths: number[][] = [];
  for (const answers of demoQuestions()) {
    const truth = rows.map(({ parts }) => shareWith(answers, parts));
    for (let seed = 1; seed <= Number(values.seeds); seed++) {
      truths.push(truth);
      const story = begin(answers, seed, table);
      for (const [way, outcome] of Object.entries(goEachWay(story, seed)))
        outcomes.set(way, [...(outcomes.get(way) ?? []), outcome]);
    }
  }
  const plain = outcomes.get('by hand')!;
  return [...outcomes].map(([way, runs]) => summary(way, runs, plain, truths));
}

interface Story {
  answers: readonly CodedText[];
  /** Places of the random sample, in ascending order. */
  sample: number[];
  rest: number[];
  /** Of the rest, the first answer of each wording. */
  wordings: number[];
  table: WordTable;
  trained: TrainingResult;
  /** By code, what the model says of each answer, by place; nothing for a code without a model. */
  said: Said;
}

type WordTable = ReturnType<typeof readWordTable>;
type Said = ReadonlyMap<string, { threshold: number; probability: Map<number, number> }>;

function begin(answers: readonly CodedText[], seed: number, table: WordTable): Story {
  const sample = simpleRandomSample(answers.length, BEGIN, seed).sort((x, y) => x - y);
  const inSample = new Set(sample);
  const trained = train(answers, { table, seed, settled: inSample, random: inSample });
  const rest = answers.map((_, i) => i).filter((i) => !inSample.has(i));
  const met = new Set<string>();
  const wordings = rest.filter((i) => {
    const key = duplicateKey(answers[i]!.text);
    return !met.has(key) && met.add(key);
  });
  return { answers, sample, rest, wordings, table, trained, said: saidBy(trained) };
}

interface TrainWith {
  table: WordTable;
  seed: number;
  settled: ReadonlySet<number>;
  random: ReadonlySet<number>;
}
const train = (
  answers: readonly CodedText[],
  { table, seed, settled, random }: TrainWith,
): TrainingResult =>
  trainQuestion(
    {
      seed,
      codes: demoCodes,
      answers: answers.map(({ text, codes }, i) => ({
        text,
        settled: settled.has(i),
        random: random.has(i),
        codes: settled.has(i) ? codes : new Set<string>(),
      })),
    },
    { table, sentences: null },
  );

const trainAgain = ({ answers, sample, table }: Story, settled: ReadonlySet<number>): Said =>
  saidBy(train(answers, { table, seed: 1, settled, random: new Set(sample) }));

const saidBy = ({ codes }: TrainingResult): Said =>
  new Map(codes.flatMap((code) => (code.state === 'too_few' ? [] : [saidOf(code)])));

const saidOf = (code: Exclude<CodeResult, { state: 'too_few' }>) =>
  [
    code.codeId,
    {
      threshold: code.threshold,
      probability: new Map(
        listSuggestions(code.suggestions).map(({ answer, probability }) => [answer, probability]),
      ),
    },
  ] as const;

const goEachWay = (story: Story, seed: number): Record<string, Outcome> => ({
  'by hand': byHand(story),
  'answer by answer': answerByAnswer(story),
  'code by code': codeByCode(story),
  estimates: estimates(story),
  'models, corrected by a check': byModels(story, seed),
  'models, counted as they are': counted(story),
});

/** A coder without suggestions types the codes of each answer, and settles it by one key. */
const typedFor = (answers: readonly CodedText[], read: readonly number[]) => ({
  read: read.length,
  pressed: read.length,
  typed: read.flatMap((i) => [...answers[i]!.codes]),
});

function byHand({ answers, wordings }: Story): Outcome {
  return { ...typedFor(answers, wordings), shares: exactly(answers) };
}

/** Codes that have a digit beside an answer: the proposed ones first, then other likely ones. */
const DIGITS = 9;
/** Answers read before the reading page retrains the question. */
const RETRAIN = 50;

/**
 * Enter accepts what is shown; a digit takes a proposal away or gives another code; what has no digit is typed. The
 * models are retrained after every RETRAIN answers, on all that is settled by then.
 */
function answerByAnswer(story: Story): Outcome {
  const { answers, sample, wordings } = story;
  const settled = new Set(sample);
  let { said } = story;
  const uses = new Map(
    demoCodes.map(({ id }) => [id, sample.filter((i) => answers[i]!.codes.has(id)).length]),
  );
  const typed: string[] = [];
  let pressed = 0;
  for (const [n, i] of wordings.entries()) {
    if (n > 0 && n % RETRAIN === 0) said = trainAgain(story, settled);
    const { codes, text } = answers[i]!;
    const wording = duplicateKey(text);
    answers.forEach((other, j) => duplicateKey(other.text) === wording && settled.add(j));
    const offered = demoCodes.map(({ id }) => {
      const model = said.get(id);
      const probability = model?.probability.get(i) ?? 0;
      return { id, probability, isShown: model !== undefined && probability >= model.threshold };
    });
    offered.sort(
      (x, y) =>
        Number(y.isShown) - Number(x.isShown) ||
        y.probability - x.probability ||
        uses.get(y.id)! - uses.get(x.id)!,
    );
    const numbered = offered.slice(0, DIGITS);
    const isNumbered = new Set(numbered.map(({ id }) => id));
    pressed += 1 + numbered.filter(({ id, isShown }) => isShown !== codes.has(id)).length;
    typed.push(...[...codes].filter((id) => !isNumbered.has(id)));
  }
  return { read: wordings.length, pressed, typed, shares: exactly(answers) };
}

/** Suggestions in the middle are read, one key each, the rest is decided in bulk; codes without a model are not found. */
function codeByCode({ answers, sample, rest, said }: Story): Outcome {
  const [low, high] = UNSURE;
  let decisions = 0;
  const found = answers.map((_, i) => new Set(sample.includes(i) ? answers[i]!.codes : []));
  for (const [id, { probability }] of said) {
    // two bulk decisions and the closing
    decisions += 3;
    for (const i of rest) {
      const p = probability.get(i) ?? 0;
      if (p > high) found[i]!.add(id);
      else if (p >= low) {
        decisions += 1;
        if (answers[i]!.codes.has(id)) found[i]!.add(id);
      }
    }
  }
  return {
    read: decisions,
    pressed: decisions,
    typed: [],
    shares: rows.map(({ parts }) => ({
      value: found.filter((codes) => parts.some((id) => codes.has(id))).length / answers.length,
      interval: null,
    })),
  };
}

const exactly = (answers: readonly CodedText[]): Outcome['shares'] =>
  rows.map(({ parts }) => {
    const value = shareWith(answers, parts);
    return { value, interval: [value, value] };
  });

const shareWith = (answers: readonly CodedText[], parts: readonly string[]): number =>
  answers.filter(({ codes }) => parts.some((id) => codes.has(id))).length / answers.length;

/** Shares of all rows, a theme's held to those of its codes, as the report's table has them. */
function sharesOf(estimate: (parts: readonly string[]) => EstimatedShare): ShareEstimate[] {
  const ofCode = new Map(demoCodes.map(({ id }) => [id, estimateOf(estimate([id]))]));
  return rows.map(({ id, parts }) =>
    ofCode.has(id)
      ? ofCode.get(id)!
      : boundByParts(
          estimateOf(estimate(parts)),
          parts.map((one) => ofCode.get(one)!),
        ),
  );
}

const sampledCode = (
  { answers, trained }: Story,
  id: string,
  among: readonly number[],
): SampledCode => ({
  mentioned: Uint8Array.from(among, (i) => Number(answers[i]!.codes.has(id))),
  predicted: trained.crossFitted.get(id) ?? null,
});

function estimates(story: Story): Outcome {
  const { answers, sample } = story;
  const within: SampleWithin = {
    answers: Int32Array.from(answers, (_, i) => i),
    sampled: sample,
    ofSample: sample.map((_, k) => k),
    weights: null,
    parameters: CROSS_FITTED,
  };
  const shares = sharesOf((parts) =>
    estimateAny(
      within,
      parts.map((id) => sampledCode(story, id, sample)),
    )!,
  );
  return { read: 0, pressed: 0, typed: [], shares };
}

/** What is settled is known; for the rest, the models are corrected by a random check that is coded by hand. */
function byModels(story: Story, seed: number): Outcome {
  const { answers, sample, rest } = story;
  const drawn = simpleRandomSample(rest.length, CHECK, checkSeed(seed)).sort((x, y) => x - y);
  const checked = drawn.map((place) => rest[place]!);
  const within: SampleWithin = {
    answers: Int32Array.from(rest),
    sampled: drawn,
    ofSample: drawn.map((_, k) => k),
    weights: null,
    parameters: 1,
  };
  const shares = sharesOf((parts) =>
    addKnownPart(
      estimateAny(
        within,
        parts.map((id) => sampledCode(story, id, checked)),
      )!,
      rest.length,
      {
        weight: sample.length,
        mentioned: sample.filter((i) => parts.some((id) => answers[i]!.codes.has(id))).length,
      },
    ),
  );
  return {
    ...typedFor(answers, checked),
    shares,
  };
}

const checkSeed = (seed: number): number => randomSource(1000 + seed)() >>> 1;

/** What the models say counted as if somebody had read it, with the interval that such a count would carry. */
function counted({ answers, sample, rest, said }: Story): Outcome {
  return {
    read: 0,
    pressed: 0,
    typed: [],
    shares: rows.map(({ parts }) => {
      const known = sample.filter((i) => parts.some((id) => answers[i]!.codes.has(id))).length;
      const above = rest.filter((i) =>
        parts.some((id) => {
          const model = said.get(id);
          return model && (model.probability.get(i) ?? 0) >= model.threshold;
        }),
      ).length;
      const value = (known + above) / answers.length;
      return { value, interval: wilsonInterval(value, answers.length) };
    }),
  };
}

const keysOf = ({ pressed, typed }: Outcome): number =>
  pressed + typed.reduce((sum, id) => sum + keysOfCode.get(id)!, 0);

/** A way in one row: what it takes on average, how far it is off, and how often its intervals hold the truth. */
function summary(
  way: string,
  runs: readonly Outcome[],
  plain: readonly Outcome[],
  truths: readonly number[][],
) {
  const mean = (of: (run: Outcome) => number) =>
    runs.reduce((sum, run) => sum + of(run), 0) / runs.length;
  const errors = { code: [] as number[], theme: [] as number[] };
  let [held, told] = [0, 0];
  runs.forEach(({ shares }, r) =>
    shares.forEach(({ value, interval }, row) => {
      const truth = truths[r]![row]!;
      // a code that nobody mentions is no news
      if (truth === 0) return;
      errors[row < demoCodes.length ? 'code' : 'theme'].push(Math.abs(value - truth));
      if (!interval) return;
      told += 1;
      if (truth >= interval[0] - 1e-12 && truth <= interval[1] + 1e-12) held += 1;
    }),
  );
  const keys = mean(keysOf);
  const threeLetters = (some: readonly Outcome[]) =>
    some.reduce((sum, run) => sum + run.pressed + run.typed.length * (LETTERS + 1), 0);
  const read = mean((run) => run.read);
  const average = (some: readonly number[]) =>
    rounded(some.reduce((sum, one) => sum + one, 0) / some.length, 4);
  return {
    way,
    read: Math.round(read),
    keys: Math.round(keys),
    'of the keys by hand': rounded(
      (keys * runs.length) / plain.reduce((sum, run) => sum + keysOf(run), 0),
    ),
    'of three letters a code': rounded(threeLetters(runs) / threeLetters(plain)),
    minutes: Math.round((read * (way === 'code by code' ? 3 : PACE.answer) + keys * PACE.key) / 60),
    'greatest error, codes': rounded(Math.max(...errors.code), 3),
    'greatest error, themes': rounded(Math.max(...errors.theme), 3),
    'mean error, codes': average(errors.code),
    'mean error, themes': average(errors.theme),
    coverage: told > 0 ? rounded(held / told, 3) : null,
  };
}
