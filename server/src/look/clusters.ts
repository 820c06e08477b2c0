import type {
  AnswerClusters,
  ClusterDecision,
  QuotedAnswer,
  Representatives,
} from '@yellow-thread/contract';
import type { LeftOut } from '@yellow-thread/core/look';
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
import { vectorsOfTexts, vectorsVersion, type SharedVectors } from '../sentences/index.js';
import { problems } from '../wording/problems.js';
import { clustersTexts } from '../wording/look.js';
import type { LookMaterial } from './material.js';
import { resultsOf } from './results.js';

/** Clusters that are tried, and of those that were missed that are shown: more would be more work than help. */
const MOST_CLUSTERS = 20;
const MOST_MISSED = 10;

interface Asked {
  studyId: number;
  questionId: number;
  material: LookMaterial;
  leftOut: LeftOut;
  /** By answer, 1 for those that are looked at; null for all. */
  included: Uint8Array | null;
}

/**
 * Answers gathered by likeness: all of them as long as nothing is coded, and only those that no code covers afterwards.
 * Those that somebody decided about already are not gathered again.
 */
export async function readClusters(
  em: EntityManager,
  threads: Threads,
  { studyId, questionId, material, leftOut, included }: Asked,
  k: number | null,
): Promise<AnswerClusters> {
  const decided = await em.find(
    AnswerClusterEntity,
    { questionId },
    { orderBy: { state: 'asc', name: 'asc' } },
  );
  const uncovered = await readUncovered(em, questionId);
  const indexOf = indexIds(material.ids);
  const asked = uncovered
    ? new Uint8Array(material.ids.length)
    : new Uint8Array(material.ids.length).fill(1);
  for (const id of uncovered ?? []) mark(asked, indexOf(id), 1);
  for (const { responseIds } of decided) for (const id of responseIds) mark(asked, indexOf(id), 0);
  const places = [...asked.keys()].filter((a) => asked[a] && (!included || included[a]));
  const texts = places.map((a) => material.texts[a]!);
  const version = await vectorsVersion(em, studyId);
  const most = uncovered ? MOST_MISSED : MOST_CLUSTERS;
  const found = await resultsOf(em).get(
    'clusters',
    material,
    { places: Int32Array.from(places), version, k, most, leftOut },
    async () =>
      threads.run('clusters', {
        texts,
        ...(await beside(em, studyId, material, places)),
        ...{ k, most, leftOut },
      }),
  );
  const quoted = (index: number): QuotedAnswer => quote(material, places[index]!);
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

/** Fewer texts than this are compared beside others of their question. */
const FEW = 600;

/** What some answers are compared with: their vectors and, where they are few, others of the question. */
async function beside(
  em: EntityManager,
  studyId: number,
  { texts: all }: LookMaterial,
  places: readonly number[],
): Promise<{ others: string[]; vectors: SharedVectors | null }> {
  const own = new Set(places);
  const step = Math.max(1, Math.floor(all.length / FEW));
  const others = places.length < FEW ? all.filter((_, a) => a % step === 0 && !own.has(a)) : [];
  const texts = places.map((a) => all[a]!);
  return { others, vectors: await vectorsOfTexts(em, studyId, [...texts, ...others]) };
}

const mark = (marks: Uint8Array, at: number, value: 0 | 1): void => {
  if (at >= 0) marks[at] = value;
};
const quote = ({ ids, texts }: LookMaterial, a: number): QuotedAnswer => ({
  id: ids[a]!,
  text: texts[a]!,
});
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

/** The few answers that together stand for most of some others. */
export async function readRepresentatives(
  em: EntityManager,
  threads: Threads,
  { studyId, material, included }: Asked,
  count: number,
): Promise<Representatives> {
  const places = [...material.ids.keys()].filter((a) => !included || included[a]);
  const texts = places.map((a) => material.texts[a]!);
  const version = await vectorsVersion(em, studyId);
  const { isMeaning, chosen } = await resultsOf(em).get(
    'representatives',
    material,
    { places: Int32Array.from(places), version, count },
    async () =>
      threads.run('representatives', {
        texts,
        ...(await beside(em, studyId, material, places)),
        count,
      }),
  );
  return {
    answers: places.length,
    covered: chosen.reduce((sum, { like }) => sum + like.length, 0),
    isMeaning,
    chosen: chosen.map(({ row: index, like }) => ({
      answer: quote(material, places[index]!),
      like: like.map((one) => material.ids[places[one]!]!),
    })),
  };
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
