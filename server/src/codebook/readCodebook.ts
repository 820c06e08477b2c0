import type { Codebook } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { isoTime, rows, unpackInts, withinGroup } from '../database/index.js';
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
  const used = await mentioners(em, studyId, within);
  const counted = counterOf(used);
  return {
    themes: themes.map((theme) => ({
      ...theme,
      ...counted(codes.filter((code) => code.themeId === theme.id).map((code) => code.id)),
    })),
    codes: codes.map((code) => ({
      ...code,
      ...counted([code.id]),
      lastUsed: used.get(code.id)?.lastUsed ?? null,
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
     from bundle b where b.study_id = :studyId order by b.position, b.name`,
    { studyId },
  );

interface Used {
  lastUsed: string;
  /** Who makes its mentions, a respondent as often as they make one. */
  people: Int32Array;
}

/** Makes the function that counts what codes have together: a person once, however many of them they mention. */
function counterOf(used: ReadonlyMap<string, Used>) {
  let [least, most] = [Infinity, -Infinity];
  for (const { people } of used.values())
    for (const person of people) {
      least = Math.min(least, person);
      most = Math.max(most, person);
    }
  // for every respondent the last counting that met them: much quicker than a set for each code
  const met = new Int32Array(Math.max(0, most - least + 1));
  let counting = 0;
  return (ids: readonly string[]) => {
    let people = 0;
    let mentions = 0;
    counting += 1;
    for (const id of ids)
      for (const person of used.get(id)?.people ?? []) {
        mentions += 1;
        if (met[person - least] === counting) continue;
        met[person - least] = counting;
        people += 1;
      }
    return { people, mentions };
  };
}

/**
 * How each code was used: people are counted for codes, themes and bundles from one reading, in which respondents are
 * packed into 4 bytes a mention.
 */
async function mentioners(em: EntityManager, studyId: number, within: readonly number[] | null) {
  const { head, holds, values } = withinGroup(within);
  const found = await rows<{ id: string; lastUsed: string; packed: Buffer | null }>(
    em,
    `${head} select c.id, ${isoTime('max(m.created_at)')} as "lastUsed",
       string_agg(int4send(r.respondent_id), '') filter (where ${holds('r.respondent_id')}) as packed
     from code c join mention m on m.code_id = c.id join response r on r.id = m.response_id
     where c.study_id = :studyId group by c.id`,
    { ...values, studyId },
  );
  return new Map<string, Used>(
    found.map(({ id, lastUsed, packed }) => [id, { lastUsed, people: unpackInts(packed) }]),
  );
}
