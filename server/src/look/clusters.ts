import type { AnswerClusters, ClusterDecision, QuotedAnswer } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { z } from 'zod';
import { draftCode } from '../codebook/index.js';
import { currentThresholds } from '../coding/index.js';
import {
  AnswerClusterEntity,
  asRecord,
  GatheredAnswersEntity,
  indexIds,
  inChange,
  makeChange,
  row,
  rows,
  unpackInts,
  type ChangeDiff,
} from '../database/index.js';
import type { LeftOut } from '@yellow-thread/core/look';
import type { TextClusters } from '@yellow-thread/core/cluster';
import { newestJob, type JobHandler, type Threads } from '../jobs/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { clustersTexts } from '../wording/look.js';
import { comparedAnswers, comparedBy, compareAnswers } from './compareAnswers.js';
import { placesOf, quoteAt, readLooked, type Looked } from './looked.js';
import { digestOf } from './results.js';

/** Clusters that are tried, and of those that were missed that are shown: more would be more work than help. */
const MOST_CLUSTERS = 20;
const MOST_MISSED = 10;

/** Up to so many answers are gathered while somebody waits; of more it is a job. */
const MOST_AT_ONCE = 5000;

/** Which answers are gathered, and what was decided of others. */
async function readToGather(em: EntityManager, looked: Looked) {
  const { questionId, material } = looked;
  const decided = await em.find(
    AnswerClusterEntity,
    { questionId },
    { orderBy: { state: 'asc', name: 'asc' } },
  );
  const uncovered = await readUncovered(em, questionId);
  const indexOf = indexIds(material.ids);
  const isAsked = new Uint8Array(material.ids.length).fill(uncovered ? 0 : 1);
  for (const id of uncovered ?? []) mark(isAsked, indexOf(id), 1);
  for (const { responseIds } of decided)
    for (const id of responseIds) mark(isAsked, indexOf(id), 0);
  const places = placesOf(looked).filter((place) => isAsked[place]);
  const among: AnswerClusters['among'] = uncovered ? 'uncovered' : 'all';
  return { places, decided, among, most: uncovered ? MOST_MISSED : MOST_CLUSTERS };
}

/** What clusters depend on, as one word. */
const askedOf = async (
  em: EntityManager,
  looked: Looked,
  places: readonly number[],
  asked: { k: number | null; most: number; leftOut: LeftOut },
): Promise<string> =>
  digestOf([looked.material.version, await comparedBy(em, looked, places, asked)]);

/**
 * Answers gathered by likeness: all of them as long as nothing is coded, and only those that no code covers afterwards.
 * Those that somebody decided about already are not gathered again. Of many answers it is told what a job gathered.
 */
export async function readClusters(
  em: EntityManager,
  threads: Threads,
  looked: Looked,
  k: number | null,
): Promise<AnswerClusters> {
  const { questionId, material, leftOut } = looked;
  const { places, decided, among, most } = await readToGather(em, looked);
  const asked = { k, most, leftOut };
  const isMany = places.length > MOST_AT_ONCE;
  const found = isMany
    ? await readGathered(em, questionId, await askedOf(em, looked, places, asked))
    : await compareAnswers(em, looked, places, {
        ...{ name: 'clusters', asked },
        run: (compared) => threads.run('clusters', { ...compared, ...asked }),
      });
  const quoted = (index: number): QuotedAnswer => quoteAt(material, places[index]!);
  return {
    ...{ among, answers: places.length, isGathered: found !== null },
    job: isMany ? await newestJob(em, 'cluster', { questionId }) : null,
    compared: found?.compared ?? 0,
    isMeaning: found?.isMeaning ?? false,
    silhouette: found?.silhouette ?? 0,
    found: found?.clusters.length ?? 0,
    clusters: (found?.clusters ?? []).slice(0, most).map(({ words, members, typical, edge }) => ({
      name: words.length > 0 ? words.join(' · ') : clustersTexts.unnamed,
      responseIds: members.map((member) => material.ids[places[member]!]!),
      typical: typical.map(quoted),
      edge: edge === null ? null : quoted(edge),
    })),
    decided: decided.map(({ id, state, name, responseIds }) => ({
      ...{ id, name, answers: responseIds.length },
      state: asRecord('answer_cluster', { state }).state,
    })),
  };
}

async function readGathered(
  em: EntityManager,
  questionId: number,
  asked: string,
): Promise<TextClusters | null> {
  const stored = await em.findOne(GatheredAnswersEntity, { questionId, asked });
  // what this digest stands for was gathered as this
  return stored && (stored.clusters as TextClusters);
}

const gatherPayload = z.object({
  k: z.number().int().nullable(),
  within: z.array(z.number().int()).nullable(),
});
export type GatherPayload = z.infer<typeof gatherPayload>;

/** Gathers many answers by likeness. */
export const gatherAnswers: JobHandler = async (job, { em, threads, signal, report }) => {
  const { k, within } = gatherPayload.parse(job.payload);
  const questionId = job.questionId!;
  const of = { study: job.studyId, question: questionId };
  const looked = await readLooked(em, threads, of, within);
  const { places, most } = await readToGather(em, looked);
  const asked = { k, most, leftOut: looked.leftOut };
  const clusters = await threads.run(
    'clusters',
    { ...(await comparedAnswers(em, looked, places)), ...asked },
    { signal, onProgress: report },
  );
  const version = await askedOf(em, looked, places, asked);
  return async (tx) => {
    await tx.upsert(GatheredAnswersEntity, { questionId, asked: version, clusters });
  };
};

const mark = (marks: Uint8Array, at: number, value: 0 | 1): void => {
  if (at >= 0) marks[at] = value;
};
/** Ids of answers that no code covers, by hand or by the models' line; null as long as nothing is coded. */
async function readUncovered(em: EntityManager, questionId: number): Promise<Int32Array | null> {
  const { packed, isCoded } = await row<{ packed: Buffer | null; isCoded: boolean }>(
    em,
    `with threshold as materialized (${currentThresholds(':questionId')}),
       coded as materialized (
         select distinct m.response_id from mention m join response r on r.id = m.response_id
         where r.question_id = :questionId),
       likely as materialized (
         select distinct s.response_id from suggestion s join threshold t on t.code_id = s.code_id
         where s.question_id = :questionId and s.state = 'open' and s.probability >= t.threshold)
     select exists (select 1 from coded) as "isCoded",
       (select string_agg(int4send(r.id), '') from response r
        where r.question_id = :questionId and not r.no_answer
          and r.id not in (select response_id from coded)
          and r.id not in (select response_id from likely)) as packed`,
    { questionId },
  );
  return isCoded ? unpackInts(packed) : null;
}

/**
 * Decides about answers that were gathered; one that was decided about is decided anew. Adopted, they are to be checked
 * for a new code: none of them has it by that.
 *
 * @throws Problem name_taken
 */
export async function decideCluster(
  em: EntityManager,
  maker: Maker,
  { id, questionId }: { id: string; questionId: number },
  { state, name, responseIds, codeId }: ClusterDecision,
): Promise<void> {
  await inChange(em, async (tx) => {
    const stored = await tx.findOne(AnswerClusterEntity, { id, questionId });
    const from = stored && asRecord('answer_cluster', stored);
    // what is gathered is of this question
    const own = await rows<{ id: number }>(
      tx,
      'select id from response where question_id = :questionId and id = any(:responseIds::int[]) order by id',
      { questionId, responseIds },
    );
    if (own.length === 0) throw problems.notFound('answer');
    const to = {
      ...{ id, studyId: maker.studyId, questionId, state, name },
      responseIds: own.map((one) => one.id),
    };
    const diff: ChangeDiff = {
      answer_cluster: from
        ? { added: [], updated: [{ from, to }], removed: [] }
        : { added: [to], updated: [], removed: [] },
    };
    if (codeId)
      diff.code = {
        added: [await draftCode(tx, maker.studyId, { id: codeId, name, themeId: null })],
        updated: [],
        removed: [],
      };
    await makeChange(tx, { ...maker, summary: clustersTexts[state](name), diff });
  });
}

/** Takes a decision back: its answers can be gathered again. A code that was made of them stays. */
export async function bringClusterBack(
  em: EntityManager,
  maker: Maker,
  { id, questionId }: { id: string; questionId: number },
): Promise<void> {
  await inChange(em, async (tx) => {
    const stored = await tx.findOne(AnswerClusterEntity, { id, questionId });
    if (!stored) throw problems.notFound('cluster');
    await makeChange(tx, {
      ...maker,
      summary: clustersTexts.broughtBack(stored.name),
      diff: {
        answer_cluster: { added: [], updated: [], removed: [asRecord('answer_cluster', stored)] },
      },
    });
  });
}
