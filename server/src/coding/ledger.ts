import type { Ledger, LedgerQuery, LedgerShow } from '@yellow-thread/contract';
import { codesMeetInLine, linesOf, type Cut } from '@yellow-thread/core/coding';
import { blankAsides, hitFinder, hitMustHold, isAscii } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { row, rows, StudyEntity } from '../database/index.js';
import { readLabels, readPeople, readVariable, respondentsOf } from '../groups/index.js';
import type { Threads } from '../jobs/index.js';
import { distanceFromLine } from '../sampling/index.js';
import { cutsAsJson, linesInForce, WORTH_A_LOOK } from './answers.js';
import { laidOut } from './laidOut.js';

const settled = 'exists (select 1 from settlement t where t.response_id = r.id)';
const coded = 'exists (select 1 from mention m where m.response_id = r.id)';
const noted = (how: string) =>
  `exists (select 1 from note n where n.response_id = r.id and ${how})`;
const conditions = (questionId: number): Record<LedgerShow, string> => ({
  all: 'not r.no_answer',
  unread: `not r.no_answer and not ${settled} and not ${coded} and not ${noted('true')}`,
  open: `not r.no_answer and not ${settled}`,
  settled: `not r.no_answer and ${settled}`,
  sample: 'not r.no_answer and exists (select 1 from sample_member s where s.response_id = r.id)',
  unsure: noted('n.unsure'),
  marked: noted('not n.unsure'),
  changed: 'r.changed_at is not null',
  no_answer: 'r.no_answer',
  // what is drawn for coding by hand is read without the model's word
  suggested: `not r.no_answer and not ${settled}
    and not exists (select 1 from sample_member s where s.response_id = r.id) and r.id in (
    select s.response_id from suggestion s join code c on c.id = s.code_id
    where s.question_id = ${questionId} and s.state = 'open' and s.probability >= ${WORTH_A_LOOK}
      and not exists (
        select 1 from mention m where m.response_id = s.response_id and m.code_id = s.code_id))`,
  // the models looked at it, and no code reaches its line
  nothing_likely: `not r.no_answer and not ${settled} and not ${coded}
    and not exists (select 1 from sample_member s where s.response_id = r.id)
    and r.id <= (select last_response_id from run_in_force where question_id = ${questionId})
    and r.id not in (
      select unnest(out_of_scope) from run_in_force where question_id = ${questionId})
    and r.id not in (
      select s.response_id from suggestion s
      join (${linesInForce(String(questionId))}) l on l.code_id = s.code_id and s.probability >= l.line
      where s.question_id = ${questionId} and s.state = 'open')`,
  disputed: `r.id in (
    select (w->>'responseId')::int
    from (select codes from run_in_force where question_id = ${questionId}) t,
      jsonb_array_elements(t.codes) c,
      jsonb_array_elements(coalesce(c->'wrongFor', '[]') || coalesce(c->'wrongAgainst', '[]')) w)`,
});

interface Condition {
  sql: string;
  values: (string | number | readonly (string | number)[])[];
}

/** Which answers to a question there are of a kind, in the order asked for. */
export async function readLedger(
  em: EntityManager,
  threads: Threads,
  studyId: number,
  questionId: number,
  query: LedgerQuery,
): Promise<Ledger> {
  const where = await conditionOf(em, studyId, questionId, query);
  const ledger = asksInLine(query)
    ? await listed(
        em,
        questionId,
        {
          sql: 'r.id = any(?::int[])',
          values: [await fittingInLines(em, studyId, where, query)],
        },
        query,
        null,
      )
    : await listed(em, questionId, where, query, await wordsFitIn(em, studyId, query));
  return query.order === 'similar' ? bySimilarity(em, threads, ledger) : ledger;
}

/** Ids of the answers that a filter chooses, each for itself. */
export async function chosenAnswers(
  em: EntityManager,
  studyId: number,
  questionId: number,
  query: LedgerQuery,
): Promise<number[]> {
  const where = await conditionOf(em, studyId, questionId, query);
  if (asksInLine(query)) return fittingInLines(em, studyId, where, query);
  const each = { ...query, same: 'apart' as const, order: 'imported' as const };
  const fits = await wordsFitIn(em, studyId, query);
  return (await listed(em, questionId, where, each, fits)).ids;
}

/**
 * Whether an answer holds these characters, whatever their case: four times as fast as ilike. Where they and the answer
 * have no letters beyond ASCII, it need not be asked what these are in lower case, which takes as long again.
 */
function holds(characters: string): Condition {
  const like = `%${characters.replaceAll(/[\\%_]/g, '\\$&')}%`;
  const anyCase = 'lower(r.text) like lower(?)';
  if (!isAscii(characters)) return { sql: anyCase, values: [like] };
  return {
    sql: `(lower(r.text collate "C") like lower(?)
      or (octet_length(r.text) <> length(r.text) and ${anyCase}))`,
    values: [like, like],
  };
}

const asksInLine = ({ all, any, together }: Pick<LedgerQuery, 'all' | 'any' | 'together'>) =>
  together === 'line' && all.length + any.length > 0;

async function conditionOf(
  em: EntityManager,
  studyId: number,
  questionId: number,
  {
    show,
    words,
    match,
    all,
    any,
    none,
    coder,
    where,
    like,
    about,
    together,
    group,
    among,
  }: LedgerQuery,
): Promise<Condition> {
  const isInLine = asksInLine({ all, any, together });
  const parts: Condition[] = [
    { sql: 'r.question_id = ?', values: [questionId] },
    { sql: conditions(questionId)[show], values: [] },
  ];
  if (like !== undefined)
    parts.push({ sql: 'r.same = (select same from response where id = ?)', values: [like] });
  if (about !== undefined)
    parts.push({
      sql: `r.id in (select jsonb_array_elements(t->'answers')::int
        from run_in_force f cross join jsonb_array_elements(f.themes) t
        where f.question_id = ? and t->>'themeId' = ?)
        and not exists (select 1 from settlement t where t.response_id = r.id)`,
      values: [questionId, about],
    });
  const holding = hitMustHold(words, match);
  if (holding !== '') parts.push(holds(holding));
  const with_ = 'select 1 from mention m where m.response_id = r.id and m.code_id';
  const byCoder = coder === undefined ? '' : ' and m.coder_id = ?';
  const its = coder === undefined ? [] : [coder];
  for (const code of all)
    parts.push({ sql: `exists (${with_} = ?::uuid${byCoder})`, values: [code, ...its] });
  if (any.length > 0)
    parts.push({ sql: `exists (${with_} = any(?::uuid[])${byCoder})`, values: [any, ...its] });
  // a code that may not be in the line may well be elsewhere in the answer
  if (none.length > 0 && !isInLine)
    parts.push({ sql: `not exists (${with_} = any(?::uuid[])${byCoder})`, values: [none, ...its] });
  if (coder !== undefined && all.length + any.length === 0)
    parts.push({
      sql: `(exists (select 1 from mention m where m.response_id = r.id and m.coder_id = ?)
        or exists (select 1 from settlement t where t.response_id = r.id and t.coder_id = ?))`,
      values: [coder, coder],
    });
  for (const one of new Set(group ? [group, ...among] : among))
    parts.push({
      sql: 'r.respondent_id = any(?::int[])',
      values: [await respondentsOf(em, studyId, one)],
    });
  // several values of one variable are one or the other, different variables are both
  for (const variableId of new Set(where.map((one) => one.variableId)))
    parts.push(
      await backgroundIs(
        em,
        studyId,
        variableId,
        where.filter((one) => one.variableId === variableId).map(({ value }) => value),
      ),
    );
  return {
    sql: parts.map(({ sql }) => sql).join(' and '),
    values: parts.flatMap(({ values }) => values),
  };
}

async function backgroundIs(
  em: EntityManager,
  studyId: number,
  variableId: number,
  labels: readonly string[],
): Promise<Condition> {
  const variable = await readVariable(em, studyId, variableId);
  if ('byRule' in variable) {
    const labelOf = await readLabels(em, studyId, variableId);
    const { ids } = await readPeople(em, studyId);
    return {
      sql: 'r.respondent_id = any(?::int[])',
      values: [[...ids].filter((id) => labels.includes(labelOf(id) ?? ''))],
    };
  }
  const { valueId, labelOf } = variable.stored;
  const found = await rows<{ value: string | number | boolean | null }>(
    em,
    // categories are listed; numbers and dates are found where they stand
    `select to_jsonb(c.value) as value from category c where c.variable_id = ?
     union all (select distinct background->? from respondent
       where study_id = ? and not exists (select 1 from category where variable_id = ?))`,
    [valueId, String(valueId), studyId, valueId],
  );
  const fitting = found
    .map(({ value }) => value)
    .filter((value) => value !== null && labels.includes(labelOf(value) ?? ''));
  const stored = `p.background->>'${valueId}'`;
  return {
    sql: `exists (select 1 from respondent p where p.id = r.respondent_id
      and (${stored} = any(?::text[])${labels.includes('') ? ` or ${stored} is null` : ''}))`,
    values: [fitting.map(String)],
  };
}

type Fits = (text: string) => boolean;

/** Whether a text holds the words asked for, where that is more than their characters; null where nothing is. */
async function wordsFitIn(
  em: EntityManager,
  studyId: number,
  { words, match }: Pick<LedgerQuery, 'words' | 'match'>,
): Promise<Fits | null> {
  if (words.trim() === '' || match === 'plain') return null;
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const hitsIn = hitFinder(words, match);
  // the interviewer's words are not what was answered
  return (text) => hitsIn(blankAsides(text, asides)).length > 0;
}

/** Ids of answers in which the codes asked for meet in one line. */
async function fittingInLines(
  em: EntityManager,
  studyId: number,
  where: Condition,
  { words, match, all, any, none }: LedgerQuery,
): Promise<number[]> {
  const candidates = await rows<{
    id: number;
    text: string;
    mentions: { codeId: string; start: number | null; end: number | null }[] | null;
    cuts: Cut[] | null;
  }>(
    em,
    `select r.id, r.text, ${cutsAsJson} as cuts,
       (select jsonb_agg(jsonb_build_object('codeId', m.code_id, 'start', m.start, 'end', m."end"))
         from mention m where m.response_id = r.id) as mentions
     from response r where ${where.sql}`,
    where.values,
  );
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const fits = await wordsFitIn(em, studyId, { words, match });
  return candidates
    .filter(
      ({ text, mentions, cuts }) =>
        (!fits || fits(text)) &&
        codesMeetInLine(
          mentions ?? [],
          linesOf(text, asides, cuts ?? []).filter((line) => !line.isAside),
          { all, any, none },
        ),
    )
    .map(({ id }) => id);
}

/**
 * The chosen answers in order, those of the same words as one where that is asked for.
 *
 * @param fits tells by the text which of them are left out; null when all are wanted
 */
async function listed(
  em: EntityManager,
  questionId: number,
  { sql, values }: Condition,
  { order, seed, same, show }: LedgerQuery,
  fits: Fits | null,
): Promise<Ledger> {
  const places: Record<LedgerQuery['order'], string> = {
    imported: 'r.respondent_id',
    random: `hashint8extended(r.id, ${seed})::bit(32)::int`,
    longest: '-length(r.text)',
    shortest: 'length(r.text)',
    similar: 'r.respondent_id',
    // the nearer to some code's line, the more a decision teaches; what no model looked at comes last
    telling: '(1e9 * coalesce(t.distance, 1))::int',
    likely: '(-1e9 * coalesce(t.probability, 0))::int',
  };
  const joined: Partial<typeof places> = {
    telling: `left join (${distanceFromLine(questionId)}) t on t.response_id = r.id`,
    likely: `left join (
        select s.response_id, max(s.probability) as probability
        from suggestion s join code c on c.id = s.code_id
        where s.question_id = ${questionId} and s.state = 'open' group by s.response_id) t
      on t.response_id = r.id`,
  };
  // 16 bytes an answer, grouped and sorted here: five times as fast as rows that PostgreSQL groups and sorts
  const { packed } = await row<{ packed: Buffer | null }>(
    em,
    `select string_agg(int4send(r.id) || int4send(${places[order]}) || int8send(r.same)${
      fits ? ` || int4send(octet_length(r.text)) || convert_to(r.text, 'UTF8')` : ''
    }, '') as packed
     from response r ${joined[order] ?? ''} where ${sql}`,
    values,
  );
  const all = packed ?? Buffer.alloc(0);
  return unpacked(fits ? keepFitting(all, fits) : all, same === 'joined' && show !== 'no_answer');
}

const ANSWER_BYTES = 16;

/** Answers with their texts behind them: those whose text fits, without it. */
function keepFitting(packed: Buffer, fits: Fits): Buffer {
  const kept: Buffer[] = [];
  for (let at = 0; at < packed.length;) {
    const text = at + ANSWER_BYTES + 4;
    const next = text + packed.readInt32BE(text - 4);
    if (fits(packed.toString('utf8', text, next)))
      kept.push(packed.subarray(at, at + ANSWER_BYTES));
    at = next;
  }
  return Buffer.concat(kept);
}

/** More answers than a question can have: a place and an index fit into one exact number. */
const INDICES = 2 ** 20;

/** @param joined whether answers of the same words stand as one, in the place of the first of them */
function unpacked(packed: Buffer, joined: boolean): Ledger {
  const total = packed.length / ANSWER_BYTES;
  const view = new DataView(packed.buffer, packed.byteOffset, packed.length);
  const keys = new Float64Array(total);
  for (let i = 0; i < total; i++)
    keys[i] = (view.getInt32(i * ANSWER_BYTES + 4) + 2 ** 31) * INDICES + i;
  keys.sort();
  const ids: number[] = [];
  const counts: number[] = [];
  const standing = new Map<number, number>();
  for (const key of keys) {
    const offset = (key % INDICES) * ANSWER_BYTES;
    if (joined) {
      // two halves of 32 bits, of which the number takes 53
      const same = view.getUint32(offset + 8) * 2 ** 32 + view.getUint32(offset + 12);
      const at = standing.get(same);
      if (at !== undefined) {
        counts[at]! += 1;
        continue;
      }
      standing.set(same, ids.length);
    }
    ids.push(view.getInt32(offset));
    counts.push(1);
  }
  return { ids, counts: ids.length < total ? counts : null, near: null, total };
}

async function bySimilarity(em: EntityManager, threads: Threads, ledger: Ledger): Promise<Ledger> {
  const texts = await rows<{ text: string }>(
    em,
    `select r.text from unnest(?::int[]) with ordinality as wanted (id, place)
     join response r on r.id = wanted.id order by wanted.place`,
    [ledger.ids],
  );
  const { order, near } = await laidOut(
    threads,
    texts.map(({ text }) => text),
  );
  return {
    ...ledger,
    ids: order.map((i) => ledger.ids[i]!),
    counts: ledger.counts && order.map((i) => ledger.counts![i]!),
    near: order.flatMap((i, place) => (near[place] ? [ledger.ids[i]!] : [])),
  };
}
