import type { Origin } from '@yellow-thread/contract';
import {
  addTo,
  countOf,
  emptyBitset,
  has,
  intersect,
  subtract,
  type Bitset,
} from '@yellow-thread/core/groups';
import {
  countedAnswers,
  countedRow,
  decidedAnswers,
  type CodeState,
  type CountingRule,
  type CrosstabRow,
  type QuestionState,
} from '@yellow-thread/core/report';
import type { EntityManager } from '@mikro-orm/postgresql';
import { codesInUse, indexIds, row, rows, unpackInts } from '../database/index.js';
import { readOnce, type People, type ReadOf } from './people.js';

/** The coding of one question as sets of respondents. */
export interface QuestionMaterial extends QuestionState {
  questionId: number;
  asked: Bitset;
  /** How many were drawn at random to be coded by hand. */
  drawn: number;
  /** Settled by hand, or every code that can be given is decided. */
  decided: Bitset;
  /** Settled by hand with suggestions in view. */
  assisted: Bitset;
  /** Open answers that were left to the models. */
  byModel: Bitset;
  /** The answers that a rule counts. */
  countedBy: (rule: CountingRule) => Bitset;
  /** The row of a code as a rule counts it. */
  rowOf: (codeId: string, rule: CountingRule) => CrosstabRow;
  /** Where the mentions on counted answers come from; `notCounted` are all others. */
  originsWithin: (within: Bitset | null, counted: Bitset) => Origins;
  /** The response of each respondent; 0 for none. */
  responseOf: Int32Array;
}
export type Origins = Record<Origin | 'notCounted', number>;

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
     from response where question_id = :questionId`,
    { questionId },
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
    asked,
    answered,
    responseOf,
    whose: indexIds(ids, places),
    range: ids.length > 0 ? [first, last] : [0, 0],
  };
}

/** Samples drawn at random among all answers, as a condition on `sample s`. */
export const DRAWN_AT_RANDOM = `s.kind in ('random', 'stratified')`;

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
  const toSet = (packed: Buffer | null): Bitset => {
    const set = emptyBitset(size);
    for (const id of unpackInts(packed)) {
      const i = whose(id);
      if (i >= 0 && has(answered, i)) addTo(set, i);
    }
    return set;
  };
  // by the range of ids, and not by a join with every response: those to other questions are left out here
  const ofCoder = coderId ? 'and coder_id = :coderId' : '';
  const [first, last] = range;
  const placed = { first, last, ...(coderId && { coderId }) };
  const packedSettled = row<{ packed: Buffer | null; blind: Buffer | null }>(
    em,
    `select string_agg(int4send(response_id), '') as packed,
       string_agg(int4send(response_id), '') filter (where not assisted) as blind
     from settlement where response_id between :first and :last ${ofCoder}`,
    placed,
  );
  const packedDrawn = row<{ packed: Buffer | null }>(
    em,
    `select string_agg(int4send(m.response_id), '') as packed
     from sample s join sample_member m on m.sample_id = s.id
     where s.question_id = :questionId and ${DRAWN_AT_RANDOM}`,
    { questionId },
  );
  const packedMentions = rows<{ codeId: string; origin: Origin; packed: Buffer }>(
    em,
    `select code_id as "codeId", origin, string_agg(int4send(response_id), '') as packed
     from mention where response_id between :first and :last ${ofCoder} group by 1, 2`,
    placed,
  );
  const packedByModel = row<{ packed: Buffer | null }>(
    em,
    `select string_agg(int4send(r.id), '') as packed
     from model_decision d join training_run t on t.id = d.run_id
     join response r on r.question_id = d.question_id and r.id <= d.last_response_id
       and r.id <> all(coalesce(t.out_of_scope, '{}'))
       and (r.changed_at is null or r.changed_at <= d.decided_at)
     where d.question_id = :questionId`,
    { questionId },
  );
  // what one coder decided is what they settled
  const decisions = coderId ? [] : readDecisions(em, questionId, answers, size, toSet);
  // asked for together: outside of a transaction each goes its own way, on as many processors as there are
  const [{ packed, blind }, drawnAtRandom, mentions, leftToModels, decidedCodes, book] =
    await Promise.all([
      packedSettled,
      packedDrawn,
      packedMentions,
      packedByModel,
      decisions,
      codesInUse(em, questionId),
    ]);
  const drawn = toSet(drawnAtRandom.packed);
  const codes = new Map<string, CodeState>(decidedCodes);
  const given: { origin: Origin; members: Int32Array }[] = [];
  for (const { codeId, origin, packed: their } of mentions) {
    const members = unpackInts(their)
      .map(whose)
      .filter((i) => i >= 0);
    if (members.length === 0) continue;
    given.push({ origin, members });
    const known = codes.get(codeId) ?? { mentions: [], judged: null, closed: null };
    codes.set(codeId, { ...known, mentions: [...known.mentions, members] });
  }
  const settled = toSet(packed);
  const settledBlind = toSet(blind);
  const state: QuestionState = {
    size,
    answered,
    settled,
    sampled: intersect(drawn, settledBlind),
    codes,
  };
  const decided = coderId ? settled : decidedAnswers(state, book);
  const counted = new Map<CountingRule, Bitset>();
  const countedBy = (rule: CountingRule) => {
    const known = counted.get(rule) ?? countedAnswers(state, rule);
    counted.set(rule, known);
    return known;
  };
  const madeRows = new Map<string, CrosstabRow>();
  return {
    ...state,
    questionId,
    asked,
    drawn: countOf(drawn),
    decided,
    assisted: subtract(settled, settledBlind),
    byModel: subtract(toSet(leftToModels.packed), decided),
    countedBy,
    rowOf: (codeId, rule) => {
      const key = `${rule} ${codeId}`;
      const known = madeRows.get(key) ?? countedRow(state, codeId, rule, countedBy(rule));
      madeRows.set(key, known);
      return known;
    },
    originsWithin: (within, counts) => {
      const origins = { hand: 0, accepted: 0, bulk: 0, import: 0, words: 0, notCounted: 0 };
      for (const { origin, members } of given)
        for (const i of members)
          if (!within || has(within, i)) origins[has(counts, i) ? origin : 'notCounted'] += 1;
      return origins;
    },
    responseOf,
  };
}

/** What was decided of codes beside giving them: suggestions, and codes closed for every answer. */
async function readDecisions(
  em: EntityManager,
  questionId: number,
  { answered, responseOf }: Answers,
  size: number,
  toSet: (packed: Buffer | null) => Bitset,
): Promise<[string, CodeState][]> {
  const judged = await rows<{ codeId: string; packed: Buffer }>(
    em,
    `select code_id as "codeId", string_agg(int4send(response_id), '') as packed
     from suggestion where question_id = :questionId and state <> 'open' group by 1`,
    { questionId },
  );
  const closings = await rows<{ codeId: string; last: number; changed: Buffer; open: Buffer }>(
    em,
    `select k.code_id as "codeId", k.last_response_id as last,
       (select string_agg(int4send(r.id), '') from response r
         where r.question_id = k.question_id and r.changed_at > k.closed_at) as changed,
       (select string_agg(int4send(o.response_id), '') from open_suggestion o
         where o.question_id = k.question_id and o.code_id = k.code_id) as open
     from code_closing k where k.question_id = :questionId`,
    { questionId },
  );
  const states = new Map<string, CodeState>();
  for (const { codeId, packed } of judged)
    states.set(codeId, { mentions: [], judged: toSet(packed), closed: null });
  for (const { codeId, last, changed, open } of closings) {
    const known = emptyBitset(size);
    for (let i = 0; i < size; i++) if (responseOf[i]! <= last && has(answered, i)) addTo(known, i);
    // whatever was opened again, or is other words now, is not known
    const closed = subtract(subtract(known, toSet(changed)), toSet(open));
    states.set(codeId, { mentions: [], judged: states.get(codeId)?.judged ?? null, closed });
  }
  return [...states];
}
