import type { AnswerClusters, ClusterDecision, QuotedAnswer } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { draftCode } from '../codebook/index.js';
import { currentThresholds } from '../coding/index.js';
import {
  AnswerClusterEntity,
  asRecord,
  indexIds,
  inChange,
  makeChange,
  row,
  rows,
  unpackInts,
  type ChangeDiff,
} from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { clustersTexts } from '../wording/look.js';
import { compareAnswers } from './compareAnswers.js';
import { placesOf, quoteAt, type Looked } from './looked.js';

/** Clusters that are tried, and of those that were missed that are shown: more would be more work than help. */
const MOST_CLUSTERS = 20;
const MOST_MISSED = 10;

/**
 * Answers gathered by likeness: all of them as long as nothing is coded, and only those that no code covers afterwards.
 * Those that somebody decided about already are not gathered again.
 */
export async function readClusters(
  em: EntityManager,
  threads: Threads,
  looked: Looked,
  k: number | null,
): Promise<AnswerClusters> {
  const { questionId, material, leftOut } = looked;
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
  const most = uncovered ? MOST_MISSED : MOST_CLUSTERS;
  const found = await compareAnswers(em, looked, places, {
    name: 'clusters',
    asked: { k, most, leftOut },
    run: (compared) => threads.run('clusters', { ...compared, k, most, leftOut }),
  });
  const quoted = (index: number): QuotedAnswer => quoteAt(material, places[index]!);
  return {
    among: uncovered ? 'uncovered' : 'all',
    answers: places.length,
    compared: found.compared,
    isMeaning: found.isMeaning,
    silhouette: found.silhouette,
    found: found.clusters.length,
    clusters: found.clusters.slice(0, most).map(({ words, members, typical, edge }) => ({
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
