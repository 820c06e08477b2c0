import type { Report, ReportCell, ReportQuery } from '@yellow-thread/contract';
import { estimateAny, FEWEST_SAMPLED, sampleWithin } from '@yellow-thread/core/report';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { People } from '../groups/index.js';
import { readEstimates, runInForce, type RunEstimates } from '../learning/index.js';
import type { PlacedColumn } from './columns.js';
import type { Line } from './lines.js';

type Estimate = ReportCell['estimated'];

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
  const runs = new Map<number, RunEstimates & { people: Int32Array }>();
  for (const questionId of new Set(columns.map(questionOf))) {
    const run = await runInForce(em, questionId);
    const estimates = run && (await readEstimates(em, run.id, codeIds));
    if (estimates)
      runs.set(questionId, { ...estimates, people: estimates.respondents.map(people.indexOf) });
  }
  if (runs.size === 0)
    return none(
      'Nothing is estimated: that takes a random sample that is settled to the last, and a training after it.',
    );
  const byColumn = columns.map((column): Estimate[] => {
    const run = runs.get(questionOf(column));
    const sample = run && sampleWithin(run.people, run.sampled, column.members, weights);
    return lines.map(({ codeIds }) => {
      const known = codeIds.flatMap((id) => run?.codes.get(id) ?? []);
      return sample && known.length > 0 ? estimateAny(sample, known) : null;
    });
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
