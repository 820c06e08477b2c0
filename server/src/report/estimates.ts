import type { Report, ReportCell, ReportQuery } from '@yellow-thread/contract';
import { has, type Bitset } from '@yellow-thread/core/groups';
import { estimateShare } from '@yellow-thread/core/learning';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { People } from '../groups/index.js';
import { readEstimates, runInForce, type RunEstimates } from '../learning/index.js';
import type { PlacedColumn } from './columns.js';
import type { Line } from './lines.js';

type Estimate = ReportCell['estimated'];

/** A group has an estimate of its own with so many of the random sample in it. */
const FEWEST_SAMPLED = 30;

interface Asked {
  lines: readonly Line[];
  codeIds: readonly string[];
  columns: readonly PlacedColumn[];
  weights: Float64Array | null;
  query: Pick<ReportQuery, 'by' | 'questions'>;
}

/**
 * Shares of all who answered, by line and column, as the models and the random sample of the runs in force have them;
 * `why` says why there are none.
 */
export async function estimateShares(
  em: EntityManager,
  people: People,
  { lines, codeIds, columns, weights, query }: Asked,
): Promise<{ cells: Estimate[][]; from: Report['estimatedFrom']; why: string | null }> {
  const none = (why: string) => ({
    cells: lines.map(() => columns.map(() => null)),
    ...{ from: [], why },
  });
  if (query.questions === 'all') return none('Shares are estimated for one question at a time.');
  if (query.by === 'coder') return none('Shares are not estimated by who coded the answers.');
  const runs = new Map<number, RunEstimates>();
  for (const questionId of new Set(columns.map(questionOf))) {
    const run = await runInForce(em, questionId);
    const estimates = run && (await readEstimates(em, run.id, codeIds));
    if (estimates) runs.set(questionId, estimates);
  }
  if (runs.size === 0)
    return none(
      'Nothing is estimated: that takes a random sample that is settled to the last, and a training after it.',
    );
  const byColumn = columns.map((column): Estimate[] => {
    const run = runs.get(questionOf(column));
    const sample = run && sampleWithin(run, people, column.members, weights);
    return lines.map((line) => (sample ? estimateLine(run, sample, line) : null));
  });
  if (byColumn.every((column) => column.every((one) => one === null)))
    return none(`Nothing is estimated: that takes ${FEWEST_SAMPLED} of the random sample.`);
  return {
    cells: lines.map((_, l) => byColumn.map((column) => column[l]!)),
    from: [...runs.values()].map(({ sampled, respondents, trainedAt }) => ({
      ...{ sampled: sampled.length, answers: respondents.length, trainedAt },
    })),
    why: null,
  };
}

const questionOf = ({ material }: PlacedColumn): number => material.parts[0]!.questionId;

/** A run's answers that a column's people gave, with the sample among them. */
interface SampleWithin {
  /** Positions among the run's answers. */
  answers: number[];
  /** Places of the sample: in `answers`, and in the run's sample. */
  sampled: number[];
  ofRun: number[];
  weights: Float64Array | null;
}

/** Null where too few of the sample are in the column. */
function sampleWithin(
  { respondents, sampled }: RunEstimates,
  people: People,
  members: Bitset,
  weights: Float64Array | null,
): SampleWithin | null {
  const placeOf = new Map(Array.from(sampled, (answer, place) => [answer, place]));
  const within: SampleWithin = { answers: [], sampled: [], ofRun: [], weights: null };
  const weighed: number[] = [];
  respondents.forEach((id, answer) => {
    const person = people.indexOf(id);
    // who has left the study since is not estimated of
    if (person < 0 || !has(members, person)) return;
    const place = placeOf.get(answer);
    if (place !== undefined) {
      within.sampled.push(within.answers.length);
      within.ofRun.push(place);
    }
    within.answers.push(answer);
    if (weights) weighed.push(weights[person]!);
  });
  const isWhole = within.answers.length === respondents.length;
  if (!isWhole && within.sampled.length < FEWEST_SAMPLED) return null;
  return { ...within, weights: weights && Float64Array.from(weighed) };
}

/** A theme is as likely as any of its codes: how wrong that is, the sample puts right. */
function estimateLine(
  { codes }: RunEstimates,
  { answers, sampled, ofRun, weights }: SampleWithin,
  line: Line,
): Estimate {
  const known = line.codeIds.flatMap((id) => codes.get(id) ?? []);
  const models = known.flatMap(({ predicted }) => predicted ?? []);
  if (known.length === 0) return null;
  const anyOf = (answer: number) =>
    models.length === 1
      ? models[0]![answer]!
      : 1 - models.reduce((none, predicted) => none * (1 - predicted[answer]!), 1);
  return estimateShare({
    answers: answers.length,
    sampled,
    truth: Uint8Array.from(ofRun, (place) =>
      Number(known.some(({ mentioned }) => mentioned[place] === 1)),
    ),
    predicted: models.length === 0 ? null : Float64Array.from(answers, anyOf),
    weights,
  });
}
