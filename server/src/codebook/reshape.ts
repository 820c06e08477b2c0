import { randomUUID } from 'node:crypto';
import type {
  BundleCode,
  Code,
  CodeClosing,
  MentionSort,
  CodeImpact,
} from '@yellow-thread/contract';
import { replaceCodes } from '@yellow-thread/core/agreement';
import { mergeMentions } from '@yellow-thread/core/codebook';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  asRecord,
  findClosings,
  findMentions,
  findReadingAnswers,
  makeChange,
  row,
  type ChangeDiff,
  BundleCodeEntity,
  MapNodeEntity,
} from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { draftCode, draftTheme } from './codebook.js';
import { codesOf, findCode, findTheme, mentionsOf, notesOf } from './records.js';
import { reshapeTexts } from '../wording/codebook.js';

// Changes that take a code's mentions along: each is one change, undone as one.

/** What a merge of a code into another, or its removal, would do. */
export async function impactOn(
  em: EntityManager,
  studyId: number,
  id: string,
  into: string | null,
): Promise<CodeImpact> {
  await findCode(em, studyId, id);
  const moving = await mentionsOf(em, [id]);
  const counted = await row<Pick<CodeImpact, 'people' | 'suggestions'>>(
    em,
    `select (select count(distinct r.respondent_id)::int from mention m
         join response r on r.id = m.response_id where m.code_id = :id) as people,
       (select count(*)::int from open_suggestion where code_id = :id) as suggestions`,
    { id },
  );
  if (into) await findCode(em, studyId, into);
  const { double } = mergeMentions(moving, into ? await mentionsOf(em, [into]) : []);
  return { ...counted, mentions: moving.length, double: into ? double.length : 0 };
}

/** Gives all mentions, notes and bundles of a code to another, which keeps its own text. */
export async function mergeCode(em: EntityManager, maker: Maker, id: string, into: string) {
  if (id === into) throw problems.mergesWithItself();
  await em.transactional(async (tx) => {
    const code = await findCode(tx, maker.studyId, id);
    const target = await findCode(tx, maker.studyId, into);
    const diff = await givenTo(tx, [code], target);
    diff.code = { added: [], updated: [], removed: [code] };
    diff.code_closing = await closingsAfter(tx, code, target);
    await makeChange(tx, {
      ...maker,
      summary: reshapeTexts.mergeInto(code.name, target.name),
      diff,
    });
  });
}

/** A merged code stays closed only where both were: of what it now means, nobody else knows that it is not there. */
async function closingsAfter(
  em: EntityManager,
  code: Code,
  target: Code,
): Promise<NonNullable<ChangeDiff['code_closing']>> {
  const closings = await findClosings(em, 'k.code_id = any(:codeIds::uuid[])', {
    codeIds: [code.id, target.id],
  });
  const isOpen = ({ questionId, codeId }: CodeClosing) =>
    codeId === target.id &&
    !closings.some((one) => one.questionId === questionId && one.codeId === code.id);
  return { added: [], updated: [], removed: closings.filter(isOpen) };
}

/** Everything that depends on some codes, hung on another. */
async function givenTo(em: EntityManager, codes: Code[], target: Code): Promise<ChangeDiff> {
  const ids = codes.map((code) => code.id);
  const { moved, double } = mergeMentions(
    await mentionsOf(em, ids),
    await mentionsOf(em, [target.id]),
  );
  const leaving = await bundledOf(em, ids);
  const standing = new Set((await bundledOf(em, [target.id])).map(({ bundleId }) => bundleId));
  const joined = new Set(leaving.map(({ bundleId }) => bundleId));
  for (const bundleId of standing) joined.delete(bundleId);
  const toTarget = <R>(records: R[]) =>
    records.map((from) => ({ from, to: { ...from, codeId: target.id } }));
  return {
    map_node: {
      added: [],
      updated: toTarget(await mapNodesFree(em, ids, target.id)),
      removed: [],
    },
    bundle_code: {
      added: [...joined].map((bundleId) => ({ bundleId, codeId: target.id })),
      updated: [],
      removed: leaving,
    },
    mention: { added: [], updated: toTarget(moved), removed: double },
    note: { added: [], updated: toTarget(await notesOf(em, ids)), removed: [] },
    second_reading_answer: {
      added: [],
      updated: (await readAgainWith(em, target.studyId, ids)).map((from) => ({
        from,
        to: replaceCodes(from, ids, target.id),
      })),
      removed: [],
    },
  };
}

/**
 * The place of one of these codes on each map where another can take it: on which it does not stand yet.
 *
 * @param themeId a theme whose place is taken before theirs
 */
async function mapNodesFree(
  em: EntityManager,
  codeIds: readonly string[],
  target: string | null,
  themeId: string | null = null,
) {
  const ofCodes = await em.find(
    MapNodeEntity,
    { codeId: { $in: target === null ? [...codeIds] : [...codeIds, target] } },
    { orderBy: { id: 'asc' } },
  );
  const ofTheme = themeId === null ? [] : await em.find(MapNodeEntity, { themeId });
  const maps = [...ofTheme, ...ofCodes];
  const taken = new Set(
    maps.filter(({ codeId }) => target !== null && codeId === target).map(({ mapId }) => mapId),
  );
  return maps.flatMap((node) => {
    if (taken.has(node.mapId)) return [];
    taken.add(node.mapId);
    return [asRecord('map_node', node)];
  });
}

/** Answers that were coded a second time, where one of the two gave one of these codes. */
const readAgainWith = (em: EntityManager, studyId: number, codeIds: readonly string[]) =>
  findReadingAnswers(
    em,
    `d.study_id = :studyId and (a.first_codes \\?| :codeIds::text[] or a.second_codes \\?| :codeIds::text[])`,
    { studyId, codeIds },
  );

/** Removes a code with its mentions. */
export async function removeCode(em: EntityManager, maker: Maker, id: string) {
  await em.transactional(async (tx) => {
    const code = await findCode(tx, maker.studyId, id);
    await makeChange(tx, {
      ...maker,
      summary: reshapeTexts.removal(code.name),
      diff: { ...(await hangingOn(tx, id)), code: { added: [], updated: [], removed: [code] } },
    });
  });
}

/** Everything that depends on a code, removed. */
async function hangingOn(em: EntityManager, codeId: string): Promise<ChangeDiff> {
  return {
    bundle_code: { added: [], updated: [], removed: await bundledOf(em, [codeId]) },
    mention: { added: [], updated: [], removed: await mentionsOf(em, [codeId]) },
    note: { added: [], updated: [], removed: await notesOf(em, [codeId]) },
  };
}

/** Sorts mentions into codes, made where they do not exist; what is not sorted stays. */
export async function sortMentions(em: EntityManager, maker: Maker, { parts }: MentionSort) {
  await em.transactional(async (tx) => {
    const wanted = parts.flatMap((part) => part.mentions);
    const found = await findMentions(tx, 'm.id = any(:wanted::uuid[]) and c.study_id = :studyId', {
      wanted,
      studyId: maker.studyId,
    });
    const mentions = new Map(found.map((one) => [one.id, one]));
    const known = new Map((await codesOf(tx, maker.studyId)).map((one) => [one.id, one]));
    const from = [...new Set(found.map((one) => known.get(one.codeId)!.name))];
    const diff: Required<Pick<ChangeDiff, 'code' | 'mention'>> = {
      code: { added: [], updated: [], removed: [] },
      mention: { added: [], updated: [], removed: [] },
    };
    for (const part of parts) {
      const moving = part.mentions.map((id) => {
        const mention = mentions.get(id);
        mentions.delete(id);
        // gone meanwhile, or sorted twice
        if (!mention) throw problems.changedMeanwhile();
        return mention;
      });
      if (!known.has(part.code.id)) {
        const fresh = await draftCode(tx, maker.studyId, part.code);
        if (fresh.themeId) await findTheme(tx, maker.studyId, fresh.themeId);
        const position = fresh.position + diff.code.added.length;
        diff.code.added.push({ ...fresh, position });
      }
      const leaving = moving.filter((one) => one.codeId !== part.code.id);
      const standing = known.has(part.code.id) ? await mentionsOf(tx, [part.code.id]) : [];
      const { moved, double } = mergeMentions(leaving, standing);
      diff.mention.updated.push(
        ...moved.map((from) => ({ from, to: { ...from, codeId: part.code.id } })),
      );
      diff.mention.removed.push(...double);
    }
    const names = from.slice(0, 3).map((name) => `“${name}”`);
    await makeChange(tx, {
      ...maker,
      summary: reshapeTexts.sorting(names.join(', '), from.length),
      diff,
    });
  });
}

/** Makes a code a theme; where it has mentions they stay with a code of its name under the new theme. */
export async function codeToTheme(em: EntityManager, maker: Maker, id: string) {
  await em.transactional(async (tx) => {
    const code = await findCode(tx, maker.studyId, id);
    const theme = await draftTheme(tx, maker.studyId, { id: randomUUID(), name: code.name });
    const used = (await mentionsOf(tx, [id])).length > 0 || code.definition !== '';
    const diff: ChangeDiff = {
      ...(!used && (await hangingOn(tx, id))),
      // a code that only becomes a theme stays where it is on maps
      ...(!used && {
        map_node: {
          added: [],
          updated: (await mapNodesFree(tx, [id], null)).map((from) => ({
            from,
            to: { ...from, codeId: null, themeId: theme.id },
          })),
          removed: [],
        },
      }),
      theme: { added: [theme], updated: [], removed: [] },
      code: used
        ? { added: [], updated: [{ from: code, to: { ...code, themeId: theme.id } }], removed: [] }
        : { added: [], updated: [], removed: [code] },
    };
    await makeChange(tx, { ...maker, summary: reshapeTexts.makingTheme(code.name), diff });
  });
}

/** Makes a theme one code that takes the mentions of all its codes. */
export async function themeToCode(em: EntityManager, maker: Maker, id: string) {
  await em.transactional(async (tx) => {
    const theme = await findTheme(tx, maker.studyId, id);
    const codes = (await codesOf(tx, maker.studyId)).filter((code) => code.themeId === id);
    // a code of the theme's own name takes the others in
    const own = codes.find((code) => code.name.toLowerCase() === theme.name.toLowerCase());
    const target: Code =
      own ??
      (await draftCode(tx, maker.studyId, { id: randomUUID(), name: theme.name, themeId: null }));
    const merged = codes.filter((code) => code.id !== target.id);
    const mergedIds = merged.map((code) => code.id);
    const places = await mapNodesFree(tx, mergedIds, target.id, id);
    await makeChange(tx, {
      ...maker,
      summary: reshapeTexts.makingThemeCode(theme.name),
      diff: {
        ...(await givenTo(tx, merged, target)),
        map_node: {
          added: [],
          updated: places.map((from) => ({
            from,
            to: { ...from, codeId: target.id, themeId: null },
          })),
          removed: [],
        },
        theme: { added: [], updated: [], removed: [theme] },
        code: {
          added: own ? [] : [target],
          updated: own ? [{ from: own, to: { ...own, themeId: null } }] : [],
          removed: merged,
        },
      },
    });
  });
}

async function bundledOf(em: EntityManager, codeIds: readonly string[]): Promise<BundleCode[]> {
  const found = await em.find(
    BundleCodeEntity,
    { codeId: { $in: [...codeIds] } },
    { orderBy: { bundleId: 'asc', codeId: 'asc' } },
  );
  return found.map((one) => asRecord('bundle_code', one));
}
