import type { Origin } from '@yellow-thread/contract';
import { addTo, emptyBitset, has, unite, type Bitset } from '@yellow-thread/core/groups';
import { rowOfMentions, type ClothRow } from '@yellow-thread/core/report';
import type { EntityManager } from '@mikro-orm/postgresql';
import { row, rows, unpackInts } from '../database/index.js';

/** The respondents of a study; respondent i stands at position i of every set. */
export interface People {
  ids: Int32Array;
  /** Where a respondent stands; −1 for one who is not of the study. */
  indexOf: (id: number) => number;
  /** Null when the study has no weights. */
  weights: Float64Array | null;
}

/** The coding of one question as sets of respondents. */
export interface QuestionMaterial {
  questionId: number;
  asked: Bitset;
  answered: Bitset;
  settled: Bitset;
  /** By code id; a code without mentions is missing. */
  codes: Map<string, ClothRow>;
  /** Codes of which every suggestion of the run in force is decided. */
  decidedForAll: Set<string>;
  /** The row of a code that nobody mentions. */
  emptyRow: (codeId: string) => ClothRow;
  /**
   * Where counted mentions come from, of everybody or within a group; `waiting` are those on answers that are still
   * open for their code.
   */
  originsWithin: (within: Bitset | null) => Record<Origin | 'waiting', number>;
  /** The response of each respondent; 0 for none. */
  responseOf: Int32Array;
}

/** What was read of a study's people: of their coding by question. */
const materialRead = new WeakMap<People, Map<string, Promise<QuestionMaterial>>>();

/** What is known of its owner already, or else what is read now; kept for as long as the owner is. */
export function readOnce<Owner extends object, Key, Value>(
  known: WeakMap<Owner, Map<Key, Promise<Value>>>,
  owner: Owner,
  key: Key,
  read: () => Promise<Value>,
): Promise<Value> {
  const own = known.get(owner) ?? new Map<Key, Promise<Value>>();
  known.set(owner, own);
  const value = own.get(key) ?? read();
  own.set(key, value);
  value.catch(() => own.delete(key));
  return value;
}

/** By database and study: the people read last, and what the database had seen by then. */
const peopleRead = new WeakMap<object, Map<number, { seen: string; people: Promise<People> }>>();
const MOST_STUDIES = 3;

/**
 * The people of a study. They, and all that is read of them, are kept from one request to the next until anything
 * whatever is written to the database: PostgreSQL's snapshots are the same only as long as they show the same. What
 * stands within a change that is being made is seen by that change alone and is not kept.
 */
export async function readPeople(em: EntityManager, studyId: number): Promise<People> {
  const { seen } = await row<{ seen: string | null }>(
    em,
    `select case when pg_current_xact_id_if_assigned() is null
       then pg_current_snapshot()::text end as seen`,
  );
  if (seen === null) return queryPeople(em, studyId);
  const database = em.config;
  const kept =
    peopleRead.get(database) ?? new Map<number, { seen: string; people: Promise<People> }>();
  peopleRead.set(database, kept);
  const known = kept.get(studyId);
  const people = known?.seen === seen ? known.people : queryPeople(em, studyId);
  // the one that was asked for last is the last to go
  kept.delete(studyId);
  kept.set(studyId, { seen, people });
  for (const least of [...kept.keys()].slice(0, -MOST_STUDIES)) kept.delete(least);
  people.catch(() => kept.delete(studyId));
  return people;
}

async function queryPeople(em: EntityManager, studyId: number): Promise<People> {
  const { packed, weights, weighted } = await row<{
    packed: Buffer | null;
    weights: Buffer | null;
    weighted: boolean | null;
  }>(
    em,
    // sorted here: four times as fast as when PostgreSQL does
    `select string_agg(int4send(id), '') as packed,
       string_agg(float8send(coalesce(weight, 1)), '') as weights,
       bool_or(weight is not null) as weighted
     from respondent where study_id = ?`,
    [studyId],
  );
  const unsorted = unpackInts(packed);
  const ids = unsorted.slice().sort();
  const first = ids[0] ?? 0;
  // ids of one study lie close together
  const places = new Int32Array((ids.at(-1) ?? -1) - first + 1).fill(-1);
  ids.forEach((id, i) => {
    places[id - first] = i;
  });
  const indexOf = (id: number) => places[id - first] ?? -1;
  if (!weighted || !weights) return { ids, indexOf, weights: null };
  const sorted = new Float64Array(ids.length);
  unsorted.forEach((id, at) => {
    sorted[indexOf(id)] = weights.readDoubleBE(8 * at);
  });
  return { ids, indexOf, weights: sorted };
}

/** Id, respondent and flags of a response. */
const RESPONSE_INTS = 3;

/** The coding of a question, or what one coder did of it. */
export const readMaterial = (
  em: EntityManager,
  people: People,
  questionId: number,
  coderId?: number,
): Promise<QuestionMaterial> =>
  readOnce(materialRead, people, `${questionId} ${coderId ?? ''}`, () =>
    queryMaterial(em, people, questionId, coderId),
  );

async function queryMaterial(
  em: EntityManager,
  people: People,
  questionId: number,
  coderId: number | undefined,
): Promise<QuestionMaterial> {
  const size = people.ids.length;
  const [asked, answered, settled] = [emptyBitset(size), emptyBitset(size), emptyBitset(size)];
  const responseOf = new Int32Array(size);
  const packedResponses = row<{ packed: Buffer | null }>(
    em,
    `select string_agg(int4send(r.id) || int4send(r.respondent_id) || int4send(
       r.no_answer::int + 2 * (t.response_id is not null)::int), '') as packed
     from response r
     left join (select distinct response_id from settlement ${coderId ? 'where coder_id = ?' : ''}) t
       on t.response_id = r.id
     where r.question_id = ?`,
    coderId ? [coderId, questionId] : [questionId],
  );
  const runs = rows<{
    lastResponseId: number;
    outOfScope: number[] | null;
    learnt: string[];
  }>(
    em,
    `select last_response_id as "lastResponseId", out_of_scope as "outOfScope", coalesce((
       select jsonb_agg(c->'codeId') from jsonb_array_elements(codes) c
       where c->>'state' <> 'too_few'), '[]') as learnt
     from run_in_force where question_id = ?`,
    [questionId],
  );
  const openCodes = rows<{ codeId: string }>(
    em,
    `select distinct code_id as "codeId" from open_suggestion where question_id = ?`,
    [questionId],
  );
  const packedMentions = rows<{ codeId: string; origin: Origin; packed: Buffer }>(
    em,
    `select m.code_id as "codeId", m.origin, string_agg(int4send(r.respondent_id), '') as packed
     from mention m join response r on r.id = m.response_id
     where r.question_id = ? ${coderId ? 'and m.coder_id = ?' : ''} group by 1, 2`,
    coderId ? [questionId, coderId] : [questionId],
  );
  // asked for together: outside of a transaction each goes its own way, on as many processors as there are
  const [{ packed }, [run], open, mentions] = await Promise.all([
    packedResponses,
    runs,
    openCodes,
    packedMentions,
  ]);
  const responses = unpackInts(packed);
  const outOfScope = new Set(run?.outOfScope);
  const knownToRun = emptyBitset(size);
  for (let at = 0; at < responses.length; at += RESPONSE_INTS) {
    const id = responses[at]!;
    const i = people.indexOf(responses[at + 1]!);
    const flags = responses[at + 2]!;
    if (i < 0) continue;
    responseOf[i] = id;
    addTo(asked, i);
    if ((flags & 1) !== 0) continue;
    addTo(answered, i);
    if ((flags & 2) !== 0) addTo(settled, i);
    if (run && id <= run.lastResponseId && !outOfScope.has(id)) addTo(knownToRun, i);
  }

  const stillOpen = new Set(open.map((one) => one.codeId));
  // what one coder decided is what they settled
  const decidedForAll = new Set(
    coderId ? [] : run?.learnt.filter((codeId) => !stillOpen.has(codeId)),
  );

  const settledOrReviewed = unite(settled, knownToRun);
  const decidedFor = (codeId: string) => (decidedForAll.has(codeId) ? settledOrReviewed : settled);

  const given: { origin: Origin; decided: Bitset; members: Int32Array }[] = [];
  const peopleOf = new Map<string, Int32Array[]>();
  for (const { codeId, origin, packed: their } of mentions) {
    const decided = decidedFor(codeId);
    const members = unpackInts(their)
      .map(people.indexOf)
      .filter((i) => i >= 0);
    given.push({ origin, decided, members });
    peopleOf.set(codeId, [...(peopleOf.get(codeId) ?? []), members]);
  }
  const rowOf = (codeId: string, parts: readonly Int32Array[]) =>
    rowOfMentions(codeId, parts, decidedFor(codeId), size);
  return {
    questionId,
    asked,
    answered,
    settled,
    decidedForAll,
    codes: new Map([...peopleOf].map(([id, members]) => [id, rowOf(id, members)])),
    emptyRow: (codeId) => rowOf(codeId, []),
    originsWithin: (within) => {
      const origins = { hand: 0, accepted: 0, bulk: 0, import: 0, words: 0, waiting: 0 };
      for (const { origin, decided, members } of given)
        for (const i of members)
          if (!within || has(within, i)) origins[has(decided, i) ? origin : 'waiting'] += 1;
      return origins;
    },
    responseOf,
  };
}
