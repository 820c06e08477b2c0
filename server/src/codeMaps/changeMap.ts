import { isDeepStrictEqual } from 'node:util';
import type { MapChange } from '@yellow-thread/contract';
import { changeCodeMap } from '@yellow-thread/core/codebook';
import type { TableDiff } from '@yellow-thread/core/coding';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  CodeMapEntity,
  inChange,
  makeChange,
  row,
  rows,
  type ChangeDiff,
} from '../database/index.js';
import type { Maker } from '../people/index.js';
import { changeMapTexts as texts } from '../wording/codeMaps.js';
import { problems } from '../wording/problems.js';
import { findMap, type StoredMap } from './maps.js';

/** Makes a map or renames it; a request that comes twice does so once. @throws Problem name_taken */
export async function putMap(
  em: EntityManager,
  maker: Maker,
  id: string,
  name: string,
): Promise<void> {
  await inChange(em, async (tx) => {
    const { studyId } = maker;
    const [taken] = await rows(
      tx,
      `select 1 from code_map where study_id = :studyId and lower(name) = lower(:name) and id <> :id`,
      { studyId, name, id },
    );
    if (taken) throw problems.nameTaken('map', name);
    const stored = await tx.findOne(CodeMapEntity, { id });
    if (stored) {
      const { map } = await findMap(tx, studyId, id);
      if (map.name === name) return;
      await makeChange(tx, {
        ...maker,
        summary: texts.renaming(map.name),
        diff: {
          code_map: { added: [], updated: [{ from: map, to: { ...map, name } }], removed: [] },
        },
      });
      return;
    }
    const { position } = await row<{ position: number }>(
      tx,
      'select coalesce(max(position), 0) + 1 as position from code_map where study_id = :studyId',
      { studyId },
    );
    await makeChange(tx, {
      ...maker,
      summary: texts.newMap(name),
      diff: { code_map: { added: [{ id, studyId, name, position }], updated: [], removed: [] } },
    });
  });
}

export async function removeMap(em: EntityManager, maker: Maker, id: string): Promise<void> {
  await inChange(em, async (tx) => {
    const { map, nodes, relations, pins } = await findMap(tx, maker.studyId, id);
    const gone = <R>(removed: R[]): TableDiff<R> => ({ added: [], updated: [], removed });
    await makeChange(tx, {
      ...maker,
      summary: texts.removal(map.name),
      diff: {
        code_map: gone([map]),
        map_node: gone(nodes),
        map_relation: gone(relations),
        map_pin: gone(pins),
      },
    });
  });
}

/**
 * Changes what stands on a map. Whoever changes the same record last is followed.
 *
 * @throws Problem not_found for a code, theme or answer that is not of this study; changed_meanwhile where something
 *   was to hang on what somebody removed
 */
export async function changeMap(
  em: EntityManager,
  maker: Maker,
  id: string,
  change: MapChange,
): Promise<void> {
  await inChange(em, async (tx) => {
    const before = await findMap(tx, maker.studyId, id);
    await refuseForeign(tx, maker.studyId, id, change);
    const after = changeCodeMap(before, change);
    const isGone = new Set(change.removed);
    for (const part of ['nodes', 'relations', 'pins'] as const) {
      const kept = new Set(after[part].map((one) => one.id));
      if (change[part].some((one) => !kept.has(one.id) && !isGone.has(one.id)))
        throw problems.changedMeanwhile();
    }
    const diff = {
      map_node: diffOf(before.nodes, after.nodes),
      map_relation: diffOf(before.relations, after.relations),
      map_pin: diffOf(before.pins, after.pins),
    };
    await makeChange(tx, { ...maker, summary: summaryOf(before, diff), diff });
  });
}

/** Records of other maps, and codes, themes and answers of other studies, are none. */
async function refuseForeign(
  em: EntityManager,
  studyId: number,
  mapId: string,
  { nodes, relations, pins }: MapChange,
): Promise<void> {
  if ([...nodes, ...relations, ...pins].some((one) => one.mapId !== mapId))
    throw problems.notFound('map');
  const unknown = await row<{ code: boolean; theme: boolean; answer: boolean }>(
    em,
    `select
       exists (select unnest(:codeIds::uuid[]) except select id from code where study_id = :studyId) as code,
       exists (select unnest(:themeIds::uuid[]) except select id from theme where study_id = :studyId) as theme,
       exists (select unnest(:responseIds::int[]) except
         select r.id from response r join question q on q.id = r.question_id
         where q.study_id = :studyId and r.id = any(:responseIds::int[])) as answer`,
    {
      studyId,
      codeIds: nodes.flatMap(({ codeId }) => codeId ?? []),
      themeIds: nodes.flatMap(({ themeId }) => themeId ?? []),
      responseIds: pins.map(({ responseId }) => responseId),
    },
  );
  for (const what of ['code', 'theme', 'answer'] as const)
    if (unknown[what]) throw problems.notFound(what);
}

function diffOf<R extends { id: string }>(before: readonly R[], after: readonly R[]): TableDiff<R> {
  const stood = new Map(before.map((one) => [one.id, one]));
  const stands = new Set(after.map((one) => one.id));
  return {
    added: after.filter((one) => !stood.has(one.id)),
    updated: after.flatMap((to) => {
      const from = stood.get(to.id);
      return from && !isDeepStrictEqual(from, to) ? [{ from, to }] : [];
    }),
    removed: before.filter((one) => !stands.has(one.id)),
  };
}

function summaryOf({ map: { name } }: StoredMap, diff: ChangeDiff): string {
  const comesOrGoes = (part: TableDiff<unknown> | undefined) =>
    part !== undefined && part.added.length + part.removed.length > 0;
  if (comesOrGoes(diff.map_node)) return texts.nodes(name);
  if (comesOrGoes(diff.map_relation) || (diff.map_relation?.updated.length ?? 0) > 0)
    return texts.relations(name);
  return comesOrGoes(diff.map_pin) ? texts.pins(name) : texts.moving(name);
}
