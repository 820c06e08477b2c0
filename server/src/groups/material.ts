import type { Origin } from '@yellow-thread/contract';
import { addTo, emptyBitset, forEachIn, has, unite, type Bitset } from '@yellow-thread/core/groups';
import { rowOfMentions, type CrosstabRow } from '@yellow-thread/core/report';
import { mayMiss } from '@yellow-thread/core/review';
import type { EntityManager } from '@mikro-orm/postgresql';
import { placesOf, row, rows, unpackInts } from '../database/index.js';
import { readOnce, type People, type ReadOf } from './people.js';

/** The coding of one question as sets of respondents. */
export interface QuestionMaterial {
  questionId: number;
  asked: Bitset;
  answered: Bitset;
  settled: Bitset;
  /** By code id; a code without mentions is missing. */
  codes: Map<string, CrosstabRow>;
  /** Codes of which every suggestion of the run in force is decided. */
  decidedForAll: Set<string>;
  /** The row of a code that nobody mentions. */
  emptyRow: (codeId: string) => CrosstabRow;
  /**
   * Where counted mentions come from, of everybody or within a group; `waiting` are those on answers that are still
   * open for their code.
   */
  originsWithin: (within: Bitset | null) => Record<Origin | 'waiting', number>;
  /** The response of each respondent; 0 for none. */
  responseOf: Int32Array;
}

/** Who was asked a question and who answered it: what coding does not change. */
interface Answers {
  asked: Bitset;
  answered: Bitset;
  /** The response of each respondent; 0 for none. */
  responseOf: Int32Array;
  /** Whose response this is, by their place; −1 for one to another question. */
  whose: (responseId: number) => number;
  /** The least and the greatest id of a response to the question. */
  range: [number, number];
}
const answersRead: ReadOf<number, Answers> = new WeakMap();
const materialRead: ReadOf<string, QuestionMaterial> = new WeakMap();

/** Id, respondent and whether a response is no answer. */
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

async function queryAnswers(
  em: EntityManager,
  people: People,
  questionId: number,
): Promise<Answers> {
  const size = people.ids.length;
  const [asked, answered] = [emptyBitset(size), emptyBitset(size)];
  const responseOf = new Int32Array(size);
  const { packed } = await row<{ packed: Buffer | null }>(
    em,
    `select string_agg(int4send(id) || int4send(respondent_id) || int4send(no_answer::int), '') as packed
     from response where question_id = ?`,
    [questionId],
  );
  const responses = unpackInts(packed);
  const ids = new Int32Array(responses.length / RESPONSE_INTS);
  const places = new Int32Array(ids.length);
  let [first, last] = [Infinity, 0];
  for (let n = 0; n < ids.length; n++) {
    const id = responses[RESPONSE_INTS * n]!;
    const i = people.indexOf(responses[RESPONSE_INTS * n + 1]!);
    [ids[n], places[n]] = [id, i];
    [first, last] = [Math.min(first, id), Math.max(last, id)];
    if (i < 0) continue;
    responseOf[i] = id;
    addTo(asked, i);
    if (responses[RESPONSE_INTS * n + 2] === 0) addTo(answered, i);
  }
  return {
    ...{ asked, answered, responseOf },
    whose: placesOf(ids, places),
    range: ids.length > 0 ? [first, last] : [0, 0],
  };
}

async function queryMaterial(
  em: EntityManager,
  people: People,
  questionId: number,
  coderId: number | undefined,
): Promise<QuestionMaterial> {
  const size = people.ids.length;
  const answers = await readOnce(answersRead, people.asAnswered, questionId, () =>
    queryAnswers(em, people, questionId),
  );
  const { asked, answered, responseOf, whose, range } = answers;
  // by the range of ids, and not by a join with every response: those to other questions are left out here
  const ofCoder = coderId ? 'and coder_id = ?' : '';
  const placed = coderId ? [...range, coderId] : range;
  const packedSettled = row<{ packed: Buffer | null }>(
    em,
    `select string_agg(int4send(response_id), '') as packed
     from settlement where response_id between ? and ? ${ofCoder}`,
    placed,
  );
  const runs = rows<{
    lastResponseId: number;
    outOfScope: number[] | null;
    learnt: Learnt[];
  }>(
    em,
    `select last_response_id as "lastResponseId", out_of_scope as "outOfScope", coalesce((
       select jsonb_agg(jsonb_build_object('codeId', c->'codeId', 'unsuggested', c->'unsuggested',
         'weak', c->>'state' = 'weak', 'f1', c->'quality'->'f1'))
       from jsonb_array_elements(codes) c
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
    `select code_id as "codeId", origin, string_agg(int4send(response_id), '') as packed
     from mention where response_id between ? and ? ${ofCoder} group by 1, 2`,
    placed,
  );
  // asked for together: outside of a transaction each goes its own way, on as many processors as there are
  const [{ packed }, [run], open, mentions] = await Promise.all([
    packedSettled,
    runs,
    openCodes,
    packedMentions,
  ]);
  const settled = emptyBitset(size);
  for (const id of unpackInts(packed)) {
    const i = whose(id);
    if (i >= 0 && has(answered, i)) addTo(settled, i);
  }
  const knownToRun = emptyBitset(size);
  if (run) {
    const outOfScope = new Set(run.outOfScope);
    forEachIn(answered, (i) => {
      const id = responseOf[i]!;
      if (id <= run.lastResponseId && !outOfScope.has(id)) addTo(knownToRun, i);
    });
  }

  // what one coder decided is what they settled
  const decidedForAll = await findDecidedForAll(em, questionId, {
    learnt: coderId ? [] : (run?.learnt ?? []),
    stillOpen: new Set(open.map((one) => one.codeId)),
  });

  const settledOrReviewed = unite(settled, knownToRun);
  const decidedFor = (codeId: string) => (decidedForAll.has(codeId) ? settledOrReviewed : settled);

  const given: { origin: Origin; decided: Bitset; members: Int32Array }[] = [];
  const peopleOf = new Map<string, Int32Array[]>();
  for (const { codeId, origin, packed: their } of mentions) {
    const decided = decidedFor(codeId);
    const members = unpackInts(their)
      .map(whose)
      .filter((i) => i >= 0);
    if (members.length === 0) continue;
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

/** A code that the run in force has a model of. */
type Learnt = { codeId: string } & Parameters<typeof mayMiss>[0];

/**
 * Codes that are decided for every answer that the run knew: none of their suggestions is open any more. One that had
 * no suggestion at all was not decided by that: its model may know too little to suggest anything.
 */
async function findDecidedForAll(
  em: EntityManager,
  questionId: number,
  { learnt, stillOpen }: { learnt: readonly Learnt[]; stillOpen: ReadonlySet<string> },
): Promise<Set<string>> {
  const decided = new Set<string>();
  const unsure: string[] = [];
  for (const code of learnt) {
    if (stillOpen.has(code.codeId)) continue;
    if (mayMiss(code)) unsure.push(code.codeId);
    else decided.add(code.codeId);
  }
  if (unsure.length === 0) return decided;
  const suggested = await rows<{ codeId: string }>(
    em,
    `select code.id as "codeId" from unnest(?::uuid[]) as code (id) where exists (
       select 1 from suggestion s where s.question_id = ? and s.code_id = code.id)`,
    [unsure, questionId],
  );
  for (const { codeId } of suggested) decided.add(codeId);
  return decided;
}
