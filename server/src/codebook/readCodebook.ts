import type { Codebook } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { isoTime, row, rows, withinGroup } from '../database/index.js';
import { codesOf, themesOf } from './records.js';

/** Themes, codes and bundles in order, each with the people and mentions it has in all questions, or those of some. */
export async function readCodebook(
  em: EntityManager,
  studyId: number,
  within: readonly number[] | null = null,
): Promise<Codebook> {
  const themes = await themesOf(em, studyId);
  const codes = await codesOf(em, studyId);
  const bundles = await readBundles(em, studyId);
  const used = await rows<{ id: string; lastUsed: string }>(
    em,
    `select c.id, ${isoTime('max(m.created_at)')} as "lastUsed"
     from code c join mention m on m.code_id = c.id where c.study_id = ? group by c.id`,
    [studyId],
  );
  const lastUsed = new Map(used.map((one) => [one.id, one.lastUsed]));
  const mentions = await mentioners(
    em,
    codes.map((code) => code.id),
    within,
  );
  /** A person counts once, however many of the codes they mention. */
  const counted = (ids: readonly string[]) => {
    const lists = ids.map((id) => mentions.get(id) ?? []);
    return {
      people: new Set(lists.flat()).size,
      mentions: lists.reduce((sum, list) => sum + list.length, 0),
    };
  };
  return {
    themes: themes.map((theme) => ({
      ...theme,
      ...counted(codes.filter((code) => code.themeId === theme.id).map((code) => code.id)),
    })),
    codes: codes.map((code) => ({
      ...code,
      ...counted([code.id]),
      lastUsed: lastUsed.get(code.id) ?? null,
    })),
    bundles: bundles.map((bundle) => ({ ...bundle, people: counted(bundle.codeIds).people })),
  };
}

/** Bundles with their codes, in order. */
export const readBundles = (em: EntityManager, studyId: number) =>
  rows<Omit<Codebook['bundles'][number], 'people'>>(
    em,
    `select b.id, b.study_id as "studyId", b.name, b.position,
       coalesce((select jsonb_agg(bc.code_id order by c.position, c.name) from bundle_code bc
         join code c on c.id = bc.code_id where bc.bundle_id = b.id), '[]') as "codeIds"
     from bundle b where b.study_id = ? order by b.position, b.name`,
    [studyId],
  );

const MENTION_BYTES = 8;

/**
 * Who makes the mentions of each code, a respondent as often as they mention it. Packed into 8 bytes a mention: people
 * are counted for codes, themes and bundles from one reading.
 */
async function mentioners(
  em: EntityManager,
  codes: readonly string[],
  within: readonly number[] | null,
) {
  const { head, holds, values } = withinGroup(within);
  const { packed } = await row<{ packed: Buffer | null }>(
    em,
    `${head} select string_agg(int4send(c.place::int) || int4send(r.respondent_id), '') as packed
     from unnest(?::uuid[]) with ordinality as c (id, place)
     join mention m on m.code_id = c.id join response r on r.id = m.response_id
     where ${holds('r.respondent_id')}`,
    [...values, codes],
  );
  const found = new Map<string, number[]>();
  for (let at = 0; at < (packed?.length ?? 0); at += MENTION_BYTES) {
    const code = codes[packed!.readInt32BE(at) - 1]!;
    const respondent = packed!.readInt32BE(at + 4);
    const list = found.get(code);
    if (list) list.push(respondent);
    else found.set(code, [respondent]);
  }
  return found;
}
