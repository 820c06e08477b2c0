import type { Report, ReportQuery } from '@yellow-thread/contract';
import {
  addTo,
  emptyBitset,
  forEachIn,
  has,
  intersect,
  isEmpty,
  subtract,
  type Bitset,
} from '@yellow-thread/core/groups';
import {
  addKnownPart,
  boundByParts,
  estimateAny,
  estimateOf,
  FEWEST_SAMPLED,
  measureBase,
  sampleWithin,
  type SampledCode,
  type SampledQuestion,
} from '@yellow-thread/core/report';
import type { EstimatedShare } from '@yellow-thread/core/statistics';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';
import { setOf, type People, type QuestionMaterial } from '../groups/index.js';
import { readEstimates, currentRun, wholeRandomSamples } from '../learning/index.js';
import type { PlacedColumn } from './columns.js';
import type { TableRow } from './tableRows.js';
import { estimatesTexts } from '../wording/report.js';

/** What shares of a question's answers are estimated from. */
interface EstimateSource extends SampledQuestion {
  material: QuestionMaterial;
  /** By code: how likely each answer mentions it, by models that did not see it. */
  predicted: ReadonlyMap<string, Float32Array | null>;
  trainedAt: string | null;
  /** People whose answers are known, and not estimated of; null for none. */
  known: Bitset | null;
}

interface Asked {
  lines: readonly TableRow[];
  columns: readonly PlacedColumn[];
  weights: Float64Array | null;
  level: number;
}
export interface Estimates {
  /** By line and column; null where there are too few of the sample. */
  cells: (EstimatedShare | null)[][];
  /** By column, how many answers that were read it rests on. */
  read: number[];
  from: Report['estimatedFrom'];
}

/** Why shares cannot be estimated for a table; null where its questions decide that. */
export function whyNotEstimated({ by, questions }: Pick<ReportQuery, 'by' | 'questions'>) {
  if (questions === 'all') return estimatesTexts.sharesEstimatedOneQuestion;
  return by === 'coder' ? estimatesTexts.sharesEstimatedWhoCoded : null;
}

/**
 * What the shares of some questions can be estimated from.
 *
 * @returns by question; and why one of them has nothing, null where all have
 */
export async function readSources(
  em: EntityManager,
  people: People,
  materials: readonly QuestionMaterial[],
  codeIds: readonly string[],
): Promise<{ sources: Map<number, EstimateSource>; why: string | null }> {
  const sources = new Map<number, EstimateSource>();
  let why: string | null = null;
  for (const material of materials) {
    const source = await readSource(em, people, material, codeIds);
    if (typeof source === 'string') why ??= source;
    else sources.set(material.questionId, source);
  }
  return { sources, why };
}

async function readSource(
  em: EntityManager,
  people: People,
  material: QuestionMaterial,
  codeIds: readonly string[],
): Promise<EstimateSource | string> {
  const { questionId } = material;
  const check = await readCheck(em, people, material);
  // later models may have learnt from the check
  const runId = check?.runId ?? (await currentRun(em, questionId))?.id;
  const kept = runId === undefined ? null : await readEstimates(em, runId, codeIds);
  const predicted = new Map(
    [...(kept?.codes ?? [])].map(([id, code]) => [id, code.predicted] as const),
  );
  if (check)
    return {
      ...places({
        material,
        people,
        respondents: kept?.respondents ?? null,
        sample: check.sampled,
        known: check.known,
      }),
      predicted,
      isLearntFrom: false,
      known: check.known,
      trainedAt: kept?.trainedAt ?? null,
    };
  if (kept) {
    const sample = setOf(
      people,
      Array.from(kept.sampled, (at) => kept.respondents[at]!),
    );
    if (!isEmpty(subtract(intersect(sample, material.answered), material.sampled)))
      return estimatesTexts.someAnswersRandomSample;
    return {
      ...places({ material, people, respondents: kept.respondents, sample, known: null }),
      predicted,
      isLearntFrom: true,
      known: null,
      trainedAt: kept.trainedAt,
    };
  }
  const sample = await readWholeSamples(em, people, material);
  if (isEmpty(sample)) return estimatesTexts.nothingCanEstimatedTakes;
  return {
    ...places({ material, people, respondents: null, sample, known: null }),
    predicted,
    isLearntFrom: false,
    known: null,
    trainedAt: null,
  };
}

/** Whose answers are estimated of, and which of them were drawn. */
function places({
  material,
  people,
  respondents,
  sample,
  known,
}: {
  material: QuestionMaterial;
  people: People;
  respondents: Int32Array | null;
  sample: Bitset;
  known: Bitset | null;
}): Pick<EstimateSource, 'material' | 'people' | 'sampled'> {
  const everybody: number[] = [];
  if (respondents) for (const id of respondents) everybody.push(people.indexOf(id));
  else forEachIn(material.answered, (i) => everybody.push(i));
  const placed = Int32Array.from(everybody, (i) =>
    i >= 0 && has(material.answered, i) && !(known && has(known, i)) ? i : -1,
  );
  const sampled: number[] = [];
  placed.forEach((i, at) => {
    if (i >= 0 && has(sample, i)) sampled.push(at);
  });
  return { material, people: placed, sampled: Int32Array.from(sampled) };
}

async function readWholeSamples(
  em: EntityManager,
  people: People,
  { questionId, answered }: QuestionMaterial,
): Promise<Bitset> {
  const members = await rows<{ id: number }>(
    em,
    `select r.respondent_id as id from sample_member m join response r on r.id = m.response_id
     where m.sample_id in (${wholeRandomSamples(questionId)})`,
  );
  return intersect(setOf(people, idsOf(members)), answered);
}

/**
 * The check of what the models decided, once it is settled to the last answer: it was drawn among what was open then,
 * and what was settled before is known.
 */
async function readCheck(
  em: EntityManager,
  people: People,
  { questionId, answered }: QuestionMaterial,
): Promise<{ runId: number; sampled: Bitset; known: Bitset } | null> {
  const members = await rows<{ id: number; settled: boolean; runId: number }>(
    em,
    `select r.respondent_id as id, d.run_id as "runId",
       exists (select 1 from settlement t where t.response_id = r.id and not t.assisted) as settled
     from model_decision d join sample_member m on m.sample_id = d.sample_id
     join response r on r.id = m.response_id and not r.no_answer where d.question_id = :questionId`,
    { questionId },
  );
  if (members.length < 2 || !members.every(({ settled }) => settled)) return null;
  const before = await rows<{ id: number }>(
    em,
    `select r.respondent_id as id from model_decision d
     join response r on r.question_id = d.question_id and not r.no_answer
     where d.question_id = :questionId and exists (
       select 1 from settlement t where t.response_id = r.id and t.settled_at <= d.decided_at)`,
    { questionId },
  );
  const sampled = intersect(setOf(people, idsOf(members)), answered);
  const { runId } = members[0]!;
  return { runId, sampled, known: subtract(setOf(people, idsOf(before)), sampled) };
}

const idsOf = (found: readonly { id: number }[]) => found.map(({ id }) => id);

/** Shares of all who answered, by line and column; a theme's are held to those of its codes. */
export function estimateShares(
  sources: ReadonlyMap<number, EstimateSource>,
  { lines, columns, weights, level }: Asked,
): Estimates {
  const truths = new Map<string, Uint8Array>();
  const sampledCode = (source: EstimateSource, codeId: string): SampledCode => {
    const key = `${source.material.questionId} ${codeId}`;
    let mentioned = truths.get(key);
    if (!mentioned) {
      const row = source.material.rowOf(codeId, 'sample');
      mentioned = Uint8Array.from(source.sampled, (at) =>
        Number(has(row.mentioned, source.people[at]!)),
      );
      truths.set(key, mentioned);
    }
    return { mentioned, predicted: source.predicted.get(codeId) ?? null };
  };
  const byColumn = columns.map((column): (EstimatedShare | null)[] => {
    const source = sources.get(questionOf(column));
    const sample = source && sampleWithin(source, column.members, weights);
    if (!source || !sample) return lines.map(() => null);
    const estimate = (codeIds: readonly string[]) => {
      const codes = codeIds.map((id) => sampledCode(source, id));
      const share = estimateAny(sample, codes, level);
      return share && withKnown(share, source, codeIds, column.members, weights);
    };
    const ofCode = new Map<string, EstimatedShare | null>();
    const codeEstimate = (id: string) => {
      const known = ofCode.get(id) ?? estimate([id]);
      ofCode.set(id, known);
      return known;
    };
    return lines.map(({ kind, codeIds }) => {
      if (kind === 'code') return codeEstimate(codeIds[0]!);
      const whole = estimate(codeIds);
      const parts = codeIds.flatMap((id) => codeEstimate(id) ?? []);
      return whole && bounded(whole, parts);
    });
  });
  return {
    cells: lines.map((_, l) => byColumn.map((column) => column[l]!)),
    read: columns.map((column) => readIn(sources.get(questionOf(column)), column.members)),
    from: [...sources.values()].map(({ sampled, people, trainedAt, known, material }) => ({
      sampled: sampled.length,
      answers: people.filter((i) => i >= 0).length,
      trainedAt,
      known: known ? measureBase(known, material.answered, null).people : 0,
    })),
  };
}

/** How many of some people's answers were read: of the sample, and of those that are known. */
function readIn(source: EstimateSource | undefined, members: Bitset): number {
  if (!source) return 0;
  const { sampled, people, known } = source;
  const ofSample = sampled.filter((at) => has(members, people[at]!)).length;
  return ofSample + (known ? measureBase(known, members, null).people : 0);
}

/** Whether some column has its estimates. */
export const hasEstimates = ({ cells }: Estimates): boolean =>
  cells.length === 0 || cells.some((row) => row.some((cell) => cell !== null));

/** Why a table whose sample is too small for any of its columns has no estimates. */
export const TOO_FEW_SAMPLED = estimatesTexts.nothingCanEstimatedTakesAnswers(FEWEST_SAMPLED);

function bounded(whole: EstimatedShare, parts: readonly EstimatedShare[]): EstimatedShare {
  const within = boundByParts(estimateOf(whole), parts.map(estimateOf));
  return whole.estimate
    ? { ...whole, estimate: within }
    : { ...whole, sampleShare: within.value, sampleInterval: within.interval };
}

/** The estimate for those whose answers are not known, with those whose are. */
function withKnown(
  rest: EstimatedShare,
  { known, people, material }: EstimateSource,
  codeIds: readonly string[],
  members: Bitset,
  weights: Float64Array | null,
): EstimatedShare {
  if (!known) return rest;
  const those = intersect(intersect(known, material.answered), members);
  const mentioned = emptyBitset(material.size);
  for (const id of codeIds)
    forEachIn(material.rowOf(id, 'settled').mentioned, (i) => addTo(mentioned, i));
  let restWeight = 0;
  for (const i of people) if (i >= 0 && has(members, i)) restWeight += weights ? weights[i]! : 1;
  return addKnownPart(rest, restWeight, {
    weight: measureBase(those, members, weights).weighted,
    mentioned: measureBase(mentioned, those, weights).weighted,
  });
}

const questionOf = ({ material }: PlacedColumn): number => material.parts[0]!.questionId;
