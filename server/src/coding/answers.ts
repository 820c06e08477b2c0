import type { LedgerAnswer, ShownNote } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { cutsAsJson, isoTime, rows } from '../database/index.js';

/** As many suggestions are read with an answer as there are digits to give them by. */
const MOST_SUGGESTED = 9;

/** The codes that were trained for some questions, each with the line laid for it or else its model's own, as SQL. */
export const currentThresholds = (questions: string) =>
  `select f.question_id, c.id as code_id, coalesce(l.threshold, (t.value->>'threshold')::float) as threshold
   from current_run f cross join jsonb_array_elements(f.codes) t
   join code c on c.id = (t.value->>'codeId')::uuid
   left join review_threshold l on l.question_id = f.question_id and l.code_id = c.id
   where f.question_id in (${questions})`;

const noteFields = `'id', n.id, 'studyId', n.study_id, 'responseId', n.response_id, 'start', n.start,
  'end', n."end", 'respondentId', n.respondent_id, 'codeId', n.code_id, 'text', n.text,
  'unsure', n.unsure, 'authorId', n.author_id, 'createdAt', ${isoTime('n.created_at')},
  'author', a.name`;
/** Notes as they are shown, as JSON. @param where a condition on `note n` */
export const notesAsJson = (where: string) =>
  `coalesce((select jsonb_agg(jsonb_build_object(${noteFields})
     order by n.start nulls first, n.created_at, n.id)
   from note n join account a on a.id = n.author_id where ${where}), '[]')`;

/**
 * Whether a response `r` waits for a second reading by a person: until they have coded it they may not see how others
 * did. Takes the person's id as `:reader`.
 */
export const isWithheld = `exists (
   select 1 from second_reading_answer a join second_reading d on d.id = a.reading_id
   where a.response_id = r.id and d.reader_id = :reader and a.second_codes is null)`;

/** Which codes a response `r` has, as JSON; none that are withheld from the person whose id is `:reader`. */
export const codeIdsAsJson = `case when ${isWithheld} then '[]' else coalesce((
   select jsonb_agg(distinct m.code_id) from mention m where m.response_id = r.id), '[]') end`;

/** Which of some responses are withheld from a person. */
export const findWithheld = async (
  em: EntityManager,
  accountId: number,
  ids: readonly number[],
): Promise<Set<number>> => {
  const found = await rows<{ id: number }>(
    em,
    `select r.id from response r where r.id = any(:ids::int[]) and ${isWithheld}`,
    { ids, reader: accountId },
  );
  return new Set(found.map(({ id }) => id));
};

/** Responses as `readAnswers` gives them, to a person: without what is withheld from them. */
export async function readAnswersFor(
  em: EntityManager,
  accountId: number,
  ids: readonly number[],
): Promise<LedgerAnswer[]> {
  const withheld = await findWithheld(em, accountId, ids);
  const answers = await readAnswers(em, ids);
  return answers.map((answer) =>
    withheld.has(answer.id)
      ? {
          ...answer,
          isWithheld: true,
          mentions: [],
          notes: [],
          suggestions: [],
          nothingLikely: false,
        }
      : answer,
  );
}

/** An answer as coders see it: they code without the models' word. */
export const withoutModels = (answer: LedgerAnswer): LedgerAnswer => ({
  ...answer,
  suggestions: [],
  nothingLikely: false,
});

/** Responses with everything that is shown of them, in the order of the ids given. */
export async function readAnswers(
  em: EntityManager,
  ids: readonly number[],
): Promise<LedgerAnswer[]> {
  if (ids.length === 0) return [];
  return rows<LedgerAnswer>(
    em,
    `with asked as materialized (
         select distinct question_id from response where id = any(:ids::int[])),
       run as materialized (
         select question_id, last_response_id, out_of_scope from current_run
         where question_id in (select question_id from asked)),
       threshold as materialized (${currentThresholds('select question_id from asked')})
     select r.id, r.respondent_id as "respondentId", p.external_id as "externalId", p.background,
       r.text, r.no_answer as "noAnswer", false as "isWithheld",
       r.changed_at is not null as changed,
       exists (select 1 from settlement t where t.response_id = r.id) as settled,
       exists (select 1 from sample_member s where s.response_id = r.id) as "inSample",
       coalesce((
         select jsonb_agg(jsonb_build_object(
           'id', m.id, 'responseId', m.response_id, 'codeId', m.code_id, 'coderId', m.coder_id,
           'start', m.start, 'end', m."end", 'origin', m.origin,
           'createdAt', ${isoTime('m.created_at')}, 'typical', m.typical)
           order by m.start nulls first, m.created_at, m.id)
         from mention m where m.response_id = r.id), '[]') as mentions,
       ${notesAsJson('n.response_id = r.id')} as notes,
       ${cutsAsJson} as cuts,
       coalesce((
         select jsonb_agg(jsonb_build_object('codeId', o.code_id, 'probability', o.probability,
             'evidence', o.evidence, 'line', o.line, 'isAbove', o.is_above)
           order by o.probability desc, o.code_id)
         from (
           select o.code_id, o.probability, o.evidence, o.line, o.probability >= coalesce(l.threshold, 1) as is_above
           from open_suggestion o
           left join threshold l on l.question_id = o.question_id and l.code_id = o.code_id
           where o.response_id = r.id
           order by is_above desc, o.probability desc, o.code_id limit ${MOST_SUGGESTED}) o), '[]')
         as suggestions,
       not r.no_answer and exists (
         select 1 from run where run.question_id = r.question_id and r.id <= run.last_response_id
           and r.id <> all(coalesce(run.out_of_scope, '{}')))
       and not exists (
         select 1 from suggestion s join threshold
           on threshold.question_id = s.question_id and threshold.code_id = s.code_id
             and s.probability >= threshold.threshold
         where s.response_id = r.id and s.state = 'open') as "nothingLikely"
     from unnest(:ids::int[]) with ordinality as wanted (id, place)
     join response r on r.id = wanted.id
     join respondent p on p.id = r.respondent_id
     order by wanted.place`,
    { ids },
  );
}

/** What a respondent wrote to all questions, and what was noted about them. */
export async function readRespondentAnswers(
  em: EntityManager,
  accountId: number,
  respondentId: number,
) {
  const answers = await rows<{
    id: number;
    questionId: number;
    text: string;
    noAnswer: boolean;
    codeIds: string[];
  }>(
    em,
    `select r.id, r.question_id as "questionId", r.text, r.no_answer as "noAnswer",
       ${codeIdsAsJson} as "codeIds"
     from response r join question q on q.id = r.question_id
     where r.respondent_id = :respondentId order by q.position`,
    { respondentId, reader: accountId },
  );
  const [found] = await rows<{ notes: ShownNote[] }>(
    em,
    `select ${notesAsJson('n.respondent_id = :respondentId')} as notes`,
    { respondentId },
  );
  return { answers, notes: found!.notes };
}
