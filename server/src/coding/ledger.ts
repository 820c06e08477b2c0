import type { Ledger, LedgerQuery, LedgerShow } from '@yellow-thread/contract';
import { codesMeetInLine, linesOf, type Cut } from '@yellow-thread/core/coding';
import { findHits, hitMustHold } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { row, rows, StudyEntity } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { readVariable } from '../study/index.js';

const settled = 'exists (select 1 from settlement t where t.response_id = r.id)';
const coded = 'exists (select 1 from mention m where m.response_id = r.id)';
const noted = (how: string) =>
  `exists (select 1 from note n where n.response_id = r.id and ${how})`;
const conditions: Record<LedgerShow, string> = {
  all: 'not r.no_answer',
  unread: `not r.no_answer and not ${settled} and not ${coded} and not ${noted('true')}`,
  open: `not r.no_answer and not ${settled}`,
  settled: `not r.no_answer and ${settled}`,
  sample: 'not r.no_answer and exists (select 1 from sample_member s where s.response_id = r.id)',
  unsure: noted('n.unsure'),
  marked: noted('not n.unsure'),
  changed: 'r.changed_at is not null',
  no_answer: 'r.no_answer',
};

interface Condition {
  sql: string;
  values: (string | number | readonly string[])[];
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
  const fitting = await fittingInText(em, studyId, where, query);
  const chosen: Condition = fitting
    ? { sql: 'r.id = any(?::int[])', values: [fitting.map(String)] }
    : where;
  const ledger = await listed(em, questionId, chosen, query);
  return query.order === 'similar' ? bySimilarity(em, threads, ledger) : ledger;
}

const asksInLine = ({ all, any, together }: Pick<LedgerQuery, 'all' | 'any' | 'together'>) =>
  together === 'line' && all.length + any.length > 0;

async function conditionOf(
  em: EntityManager,
  studyId: number,
  questionId: number,
  { show, words, match, all, any, none, coder, where, like, together }: LedgerQuery,
): Promise<Condition> {
  const isInLine = asksInLine({ all, any, together });
  const parts: Condition[] = [
    { sql: 'r.question_id = ?', values: [questionId] },
    { sql: conditions[show], values: [] },
  ];
  if (like !== undefined)
    parts.push({ sql: 'r.same = (select same from response where id = ?)', values: [like] });
  const holding = hitMustHold(words, match);
  if (holding !== '')
    parts.push({
      sql: 'r.text ilike ?',
      values: [`%${holding.replaceAll(/[\\%_]/g, '\\$&')}%`],
    });
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
  const found = await rows<{ value: string | number | boolean | null }>(
    em,
    'select distinct background->? as value from respondent where study_id = ?',
    [String(variable.valueId), studyId],
  );
  const fitting = found
    .map(({ value }) => value ?? null)
    .filter((value) => labels.includes(variable.labelOf(value) ?? ''));
  return {
    sql: `exists (select 1 from respondent p where p.id = r.respondent_id
      and coalesce(p.background->'${variable.valueId}', 'null') = any(?::jsonb[]))`,
    values: [fitting.map((value) => JSON.stringify(value))],
  };
}

/** Ids of answers that fit in what only their text can tell; null when nothing of that kind is asked for. */
async function fittingInText(
  em: EntityManager,
  studyId: number,
  where: Condition,
  { words, match, all, any, none, together }: LedgerQuery,
): Promise<number[] | null> {
  const inLine = asksInLine({ all, any, together });
  const byWords = words.trim() !== '' && match !== 'plain';
  if (!inLine && !byWords) return null;
  const candidates = await rows<{
    id: number;
    text: string;
    mentions: { codeId: string; start: number | null; end: number | null }[] | null;
    cuts: Cut[] | null;
  }>(
    em,
    `select r.id, r.text${
      inLine
        ? `, (select jsonb_agg(jsonb_build_object('codeId', m.code_id, 'start', m.start, 'end', m."end"))
             from mention m where m.response_id = r.id) as mentions,
           (select jsonb_agg(jsonb_build_object('at', c.at, 'joined', c.joined))
             from line_cut c where c.response_id = r.id) as cuts`
        : ''
    } from response r where ${where.sql}`,
    where.values,
  );
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  return candidates
    .filter(
      ({ text, mentions, cuts }) =>
        (!byWords || findHits(text, words, match).length > 0) &&
        (!inLine ||
          codesMeetInLine(
            mentions ?? [],
            linesOf(text, asides, cuts ?? []).filter((line) => !line.isAside),
            { all, any, none },
          )),
    )
    .map(({ id }) => id);
}

/** The chosen answers in order, those of the same words as one where that is asked for. */
async function listed(
  em: EntityManager,
  questionId: number,
  { sql, values }: Condition,
  { order, seed, same, show }: LedgerQuery,
): Promise<Ledger> {
  const joined = same === 'joined' && show !== 'no_answer';
  const places: Record<LedgerQuery['order'], string> = {
    imported: 'min(r.respondent_id)',
    random: `hashint8extended(min(r.id), ${seed})`,
    longest: '-max(length(r.text))',
    shortest: 'max(length(r.text))',
    similar: 'min(r.respondent_id)',
    // the nearer to even chances, the more a decision teaches; what no model looked at comes last
    telling: 'min(coalesce(t.distance, 1))',
  };
  const telling = `left join (
      select response_id, min(abs(probability - 0.5)) as distance from open_suggestion
      where question_id = ${questionId} group by response_id) t on t.response_id = r.id`;
  // two texts of one go over the wire much faster than 100,000 rows
  const found = await row<{ ids: string | null; counts: string | null; total: number }>(
    em,
    `select string_agg(id::text, ',' order by place, id) as ids,
       string_agg(answers::text, ',' order by place, id) as counts,
       coalesce(sum(answers), 0)::int as total
     from (
       select min(r.id) as id, count(*) as answers, ${places[order]} as place
       from response r ${order === 'telling' ? telling : ''}
       where ${sql} group by ${joined ? 'r.same' : 'r.id'}) listed`,
    values,
  );
  const asNumbers = (list: string | null) => (list ? list.split(',').map(Number) : []);
  const counts = asNumbers(found.counts);
  return {
    ids: asNumbers(found.ids),
    counts: counts.some((count) => count > 1) ? counts : null,
    total: found.total,
  };
}

async function bySimilarity(em: EntityManager, threads: Threads, ledger: Ledger): Promise<Ledger> {
  const texts = await rows<{ text: string }>(
    em,
    `select r.text from unnest(?::int[]) with ordinality as wanted (id, place)
     join response r on r.id = wanted.id order by wanted.place`,
    [ledger.ids],
  );
  const order = await threads.run('orderBySimilarity', { texts: texts.map(({ text }) => text) });
  return {
    ...ledger,
    ids: order.map((i) => ledger.ids[i]!),
    counts: ledger.counts && order.map((i) => ledger.counts![i]!),
  };
}
