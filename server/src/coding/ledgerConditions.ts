import type { LedgerQuery, LedgerShow } from '@yellow-thread/contract';
import { conditionsIn } from '@yellow-thread/core/groups';
import { WORTH_A_LOOK } from '@yellow-thread/core/review';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, type SqlValues } from '../database/index.js';
import {
  readLabels,
  readPeople,
  readVariable,
  respondentsOf,
  respondentsOfRule,
} from '../groups/index.js';
import { assignedTo } from '../people/index.js';
import { isWithheld, currentThresholds } from './answers.js';

const settled = 'exists (select 1 from settlement t where t.response_id = r.id)';
const coded = 'exists (select 1 from mention m where m.response_id = r.id)';
const sampled = 'exists (select 1 from sample_member s where s.response_id = r.id)';
const noted = (how: string) =>
  `exists (select 1 from note n where n.response_id = r.id and ${how})`;
const conditions = (questionId: number): Record<LedgerShow, string> => ({
  all: 'not r.no_answer',
  unread: `not r.no_answer and not ${settled} and not ${coded} and not ${noted('true')}`,
  open: `not r.no_answer and not ${settled}`,
  settled: `not r.no_answer and ${settled}`,
  sample: `not r.no_answer and ${sampled}`,
  sample_open: `not r.no_answer and ${sampled} and not ${settled}`,
  unsure: noted('n.unsure'),
  marked: noted('not n.unsure'),
  changed: 'r.changed_at is not null',
  no_answer: 'r.no_answer',
  // what is drawn for coding by hand is read without the model's word
  suggested: `not r.no_answer and not ${settled}
    and not ${sampled} and r.id in (
    select s.response_id from suggestion s join code c on c.id = s.code_id
    where s.question_id = ${questionId} and s.state = 'open' and s.probability >= ${WORTH_A_LOOK}
      and not exists (
        select 1 from mention m where m.response_id = s.response_id and m.code_id = s.code_id))`,
  // the models looked at it, and no code reaches its line
  nothing_likely: `not r.no_answer and not ${settled} and not ${coded}
    and not ${sampled}
    and r.id <= (select last_response_id from current_run where question_id = ${questionId})
    and r.id not in (
      select unnest(out_of_scope) from current_run where question_id = ${questionId})
    and r.id not in (
      select s.response_id from suggestion s
      join (${currentThresholds(String(questionId))}) l on l.code_id = s.code_id and s.probability >= l.threshold
      where s.question_id = ${questionId} and s.state = 'open')`,
  disputed: `r.id in (
    select (w->>'responseId')::int
    from (select codes from current_run where question_id = ${questionId}) t,
      jsonb_array_elements(t.codes) c,
      jsonb_array_elements(coalesce(c->'wrongFor', '[]') || coalesce(c->'wrongAgainst', '[]')) w)`,
});

export interface Condition {
  sql: string;
  values: SqlValues;
}

/** Whether codes are to meet in a line, and not only in an answer. */
export const asksInLine = ({ all, any, together }: Pick<LedgerQuery, 'all' | 'any' | 'together'>) =>
  together === 'line' && all.length + any.length > 0;

/** Who looks at which answers; no person where what is chosen is not shown to anybody. */
export interface LedgerReader {
  studyId: number;
  questionId: number;
  accountId: number | null;
  /** Sees what is assigned to them alone. */
  isCoder?: boolean;
}

/** Which answers a filter chooses, but for their words; null for all that say something. */
export async function conditionOf(
  em: EntityManager,
  { studyId, questionId, accountId, isCoder = false }: LedgerReader,
  {
    show,
    all,
    any,
    none,
    coder,
    assigned,
    where,
    like,
    about,
    together,
    group,
    among,
    of,
    cluster,
  }: LedgerQuery,
): Promise<Condition | null> {
  const isInLine = asksInLine({ all, any, together });
  const parts: Condition[] = [
    { sql: 'r.question_id = :questionId', values: { questionId } },
    { sql: conditions(questionId)[show], values: {} },
  ];
  if (like !== undefined)
    parts.push({
      sql: 'r.same = (select same from response where id = :like and question_id = :questionId)',
      values: { like },
    });
  if (about !== undefined)
    parts.push({
      sql: `r.id in (select jsonb_array_elements(t->'answers')::int
        from current_run f cross join jsonb_array_elements(f.themes) t
        where f.question_id = :questionId and t->>'themeId' = :about)
        and not exists (select 1 from settlement t where t.response_id = r.id)`,
      values: { about },
    });
  for (const coderId of new Set([isCoder ? accountId : null, assigned ?? null]))
    if (coderId !== null)
      parts.push({
        sql: `r.id in ${assignedTo(`:assigned${coderId}`)}`,
        values: { studyId, [`assigned${coderId}`]: coderId },
      });
  const with_ = 'select 1 from mention m where m.response_id = r.id and m.code_id';
  const byCoder = coder === undefined ? '' : ' and m.coder_id = :coder';
  const its: SqlValues = coder === undefined ? {} : { coder };
  for (const [i, code] of all.entries())
    parts.push({
      sql: `exists (${with_} = :all${i}::uuid${byCoder})`,
      values: { [`all${i}`]: code, ...its },
    });
  if (any.length > 0)
    parts.push({ sql: `exists (${with_} = any(:any::uuid[])${byCoder})`, values: { any, ...its } });
  // a code that may not be in the line may well be elsewhere in the answer
  if (none.length > 0 && !isInLine)
    parts.push({
      sql: `not exists (${with_} = any(:none::uuid[])${byCoder})`,
      values: { none, ...its },
    });
  if (coder !== undefined && all.length + any.length === 0)
    parts.push({
      sql: `(exists (select 1 from mention m where m.response_id = r.id and m.coder_id = :coder)
        or exists (select 1 from settlement t where t.response_id = r.id and t.coder_id = :coder))`,
      values: { coder },
    });
  const asksOfCodes =
    coder !== undefined ||
    all.length + any.length + none.length > 0 ||
    (of && conditionsIn(of).some(({ is }) => is === 'mentions'));
  // that an answer is found by its codes would say how it was coded
  if (accountId !== null && asksOfCodes)
    parts.push({ sql: `not ${isWithheld}`, values: { reader: accountId } });
  for (const [i, one] of [...new Set(group ? [group, ...among] : among)].entries())
    parts.push({
      sql: `r.respondent_id = any(:members${i}::int[])`,
      values: { [`members${i}`]: await respondentsOf(em, studyId, one) },
    });
  if (cluster)
    parts.push({
      sql: `r.id in (select jsonb_array_elements(response_ids)::int from answer_cluster
        where id = :cluster and question_id = :questionId)`,
      values: { cluster },
    });
  if (of)
    parts.push({
      sql: 'r.respondent_id = any(:of::int[])',
      values: { of: await respondentsOfRule(em, studyId, of) },
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
  // the question and what is shown of it stand there always
  if (show === 'all' && parts.length === 2) return null;
  return {
    sql: parts.map(({ sql }) => sql).join(' and '),
    values: Object.assign({}, ...parts.map(({ values }) => values)) as SqlValues,
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
    const { labelOf } = await readLabels(em, studyId, variableId);
    const { ids } = await readPeople(em, studyId);
    return {
      sql: `r.respondent_id = any(:with${variableId}::int[])`,
      values: {
        [`with${variableId}`]: [...ids].filter((id) => labels.includes(labelOf(id) ?? '')),
      },
    };
  }
  const { valueId, labelOf } = variable.stored;
  const found = await rows<{ value: string | number | boolean | null }>(
    em,
    // categories are listed; numbers and dates are found where they stand
    `select to_jsonb(c.value) as value from category c where c.variable_id = :valueId
     union all (select distinct background->:valueText from respondent
       where study_id = :studyId and not exists (select 1 from category where variable_id = :valueId))`,
    { valueId, valueText: String(valueId), studyId },
  );
  const fitting = found
    .map(({ value }) => value)
    .filter((value) => value !== null && labels.includes(labelOf(value) ?? ''));
  const stored = `p.background->>'${valueId}'`;
  return {
    sql: `exists (select 1 from respondent p where p.id = r.respondent_id
      and (${stored} = any(:with${variableId}::text[])${labels.includes('') ? ` or ${stored} is null` : ''}))`,
    values: { [`with${variableId}`]: fitting.map(String) },
  };
}
