import { duplicateKey, splitWords, type Span } from '../../text/index.js';
import { factorsOf } from '../features/factors.js';
import { rowBuilder, vectoriser } from '../features/features.js';
import type { SparseRows } from '../features/sparseRows.js';
import { learnVocabulary, type Vocabulary } from '../features/vocabulary.js';
import { Tokenizer } from '../features/tokenizedTexts.js';
import type { SentenceBlock } from '../../sentences/index.js';
import type { WordTable } from '../features/wordTable.js';

/** An answer as training takes it. */
export interface TrainingAnswer {
  text: string;
  settled: boolean;
  codes: ReadonlySet<string>;
  /** Its lines in order, each with the codes that rest on it; a code on none of them is on the whole answer. */
  lines?: (Span & { codes: ReadonlySet<string> })[];
  /**
   * Codes that were decided by reading a suggestion while the answer as a whole is open: examples for and against,
   * learnt from and never measured on, since the model chose which ones were read.
   */
  decided?: ReadonlyMap<string, boolean>;
  /** Member of a random sample that is settled to the last: what shares may be estimated from. */
  random?: boolean;
  /** Whether codes may be suggested for it; they may unless told otherwise. */
  inScope?: boolean;
}

/** What the models of one question learn from. */
export interface TrainingInput {
  /** All substantive answers to the question, in a fixed order. */
  answers: TrainingAnswer[];
  codes: {
    id: string;
    name: string;
    definition: string;
    include: string;
    /** Codes that it stands for, where it is a theme: what the codebook says of these, it says of the theme. */
    parts?: readonly string[];
  }[];
  /** Codes that models are fitted for, where not for all: the others still teach what these are not. */
  only?: ReadonlySet<string>;
  /** Suggestions below this probability are not listed; LEAST_PROBABILITY unless told otherwise. */
  leastProbability?: number;
  /** Words without any effect: for one code, or for all of them. Forms as `splitWords` gives them. */
  excluded?: { word: string; codeId: string | null }[];
  /** Decides the folds and the resampling; the same seed gives the same models to the last bit. */
  seed: number;
}

/**
 * From this number of lines in a settled answer on average, where most codes are given to lines, models are fitted to
 * lines and an answer is as likely as its most likely line. Measured on the demo: with 1.0 to 1.2 lines reading answers whole is better by .005 of average
 * precision, with 1.8 lines reading by line is better by .05, with 2.5 by .17.
 */
const FEWEST_LINES_TO_READ_BY_LINE = 1.4;

/** What is learnt from as numbers, and how to read the other answers, with some words excluded. */
export interface Material {
  input: TrainingInput;
  keys: string[];
  codebookExamples: { codeId: string; row: number }[];
  vocabulary: Vocabulary;
  /** Answers that are learnt from first, then lessons, then the lines of these answers that have several. */
  x: SparseRows;
  /** The row of each answer that is learnt from, read whole. */
  rowOf: ReadonlyMap<number, number>;
  /** Rows of its lines; its own row where it is read whole. */
  unitsOf: ReadonlyMap<number, Int32Array>;
  /** The texts that an answer is read as: its lines, or the whole of it. */
  textsOf: (answer: number) => string[];
  /** Inverse strength of the penalty on weights. */
  penaltyC: number;
  /** Positions of the settled answers, of others with decisions to learn from, and of those that may get suggestions. */
  settled: number[];
  decided: number[];
  open: number[];
}

/** How texts are made into numbers, and how strongly weights are held back. */
export interface FeatureOptions {
  table: WordTable | null;
  sentences: SentenceBlock;
  /** Inverse strength of the penalty on weights. */
  penaltyC: number;
}

export function readMaterial(
  input: TrainingInput,
  excluded: ReadonlySet<string>,
  { table, sentences, penaltyC }: FeatureOptions,
): Material {
  const texts = input.answers.map((answer) => answer.text);
  const keys = texts.map(duplicateKey);
  const lessons = codebookExamples(input, new Set(keys));
  const lessonTexts = lessons.map((lesson) => lesson.text);
  const settled = input.answers.flatMap((answer, i) => (answer.settled ? [i] : []));
  const decided = input.answers.flatMap((answer, i) =>
    !answer.settled && (answer.decided?.size ?? 0) > 0 ? [i] : [],
  );
  const learnt = [...settled, ...decided].sort((one, other) => one - other);
  const vocabulary = learnVocabulary(texts, {
    learntFrom: [...learnt.map((i) => texts[i]!), ...lessonTexts],
    table,
    sentences,
    excluded,
  });
  const vectorise = vectoriser(vocabulary);
  const builder = rowBuilder(vocabulary);
  const reader = new Tokenizer(vocabulary);
  const byLine = readsByLine(input.answers);
  const textsOf = (answer: number): string[] => {
    const { text, lines = [] } = input.answers[answer]!;
    return byLine && lines.length > 1
      ? lines.map(({ start, end }) => text.slice(start, end))
      : [text];
  };
  let rows = 0;
  const addRow = (text: string): number => {
    builder.add(vectorise(text));
    reader.read(text);
    return rows++;
  };
  const rowOf = new Map(learnt.map((answer) => [answer, addRow(texts[answer]!)]));
  const lessonRows = lessons.map(({ codeId, text }) => ({ codeId, row: addRow(text) }));
  const unitsOf = new Map(
    learnt.map((answer) => {
      const units = textsOf(answer);
      const whole = rowOf.get(answer)!;
      return [answer, units.length > 1 ? Int32Array.from(units, addRow) : Int32Array.of(whole)];
    }),
  );
  return {
    input,
    keys,
    codebookExamples: lessonRows,
    vocabulary,
    settled,
    decided,
    x: { ...builder.rows(), factors: factorsOf(reader.texts, vocabulary) },
    rowOf,
    unitsOf,
    textsOf,
    penaltyC,
    open: input.answers.flatMap(({ settled, inScope }, i) =>
      settled || inScope === false ? [] : [i],
    ),
  };
}

function readsByLine(answers: readonly TrainingAnswer[]): boolean {
  const settled = answers.filter((answer) => answer.settled);
  const lines = settled.reduce((sum, answer) => sum + (answer.lines?.length ?? 1), 0);
  if (lines < FEWEST_LINES_TO_READ_BY_LINE * settled.length) return false;
  let onLine = 0;
  let given = 0;
  for (const { codes, lines = [] } of settled) {
    if (lines.length < 2) continue;
    given += codes.size;
    onLine += new Set(lines.flatMap((line) => [...line.codes])).size;
  }
  return 2 * onLine > given;
}

/**
 * What an answer teaches of a code: the rows that show it with the code or without it. With the code on some lines
 * the others are without it; with the code on the whole answer nobody knows which words it was for.
 */
export function labelledRowsOf(
  { input, rowOf, unitsOf }: Pick<Material, 'input' | 'rowOf' | 'unitsOf'>,
  answer: number,
  codeId: string,
  hasCode: boolean,
): { row: number; label: 0 | 1 }[] {
  const units = [...unitsOf.get(answer)!];
  if (!hasCode) return units.map((row) => ({ row, label: 0 }));
  const { lines = [] } = input.answers[answer]!;
  if (units.length === 1 || !lines.some((line) => line.codes.has(codeId)))
    return [{ row: rowOf.get(answer)!, label: 1 }];
  return units.map((row, line) => ({ row, label: lines[line]!.codes.has(codeId) ? 1 : 0 }));
}

/** What the codebook says of a code, as texts to learn from: its name with its definition, and its inclusions. */
export const codebookTexts = ({
  name,
  definition,
  include,
}: Pick<TrainingInput['codes'][number], 'name' | 'definition' | 'include'>): string[] => [
  `${name}. ${definition}`,
  include,
];

/** What the codebook says of codes, where it is no answer too. */
function codebookExamples({ codes }: TrainingInput, answerKeys: Set<string>) {
  return codes.flatMap((code) =>
    codebookTexts(code)
      // what has no words would teach how frequent a code is, which nobody has said
      .filter((text) => splitWords(text).length > 0 && !answerKeys.has(duplicateKey(text)))
      .map((text) => ({ codeId: code.id, text })),
  );
}
