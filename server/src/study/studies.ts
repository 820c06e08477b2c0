import type { StudyCreate, StudyDetail, StudySummary } from '@yellow-thread/contract';
import { countOfBoth, fullBitset, subtract } from '@yellow-thread/core/groups';
import { NO_ANSWERS } from '@yellow-thread/core/sheet';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  questionsInReview,
  QuestionEntity,
  row,
  rows,
  StudyEntity,
  notifyOfAccess,
  withinGroup,
  type QuestionRow,
  MembershipEntity,
  ModelDecisionEntity,
} from '../database/index.js';
import { DRAWN_AT_RANDOM, readMaterial, readPeople, setOf } from '../groups/index.js';
import { problems } from '../wording/problems.js';

const summary = `
  select s.id, s.name, s.purpose,
    (select count(*)::int from respondent r where r.study_id = s.id) as respondents,
    (select count(*)::int from question q where q.study_id = s.id) as questions
  from study s`;

export async function createStudy(
  em: EntityManager,
  accountId: number,
  { name, purpose }: StudyCreate,
): Promise<StudySummary> {
  return em.transactional(async (tx) => {
    const study = tx.create(StudyEntity, {
      name,
      purpose,
      createdAt: new Date(),
      noAnswers: [...NO_ANSWERS],
      asides: { brackets: [], leading: [] },
    });
    await tx.flush();
    await tx.insert(MembershipEntity, { studyId: study.id, accountId, role: 'owner' });
    await notifyOfAccess(tx, study.id);
    return row<StudySummary>(tx, `${summary} where s.id = :id`, { id: study.id });
  });
}

/** Archives a study for everybody who works on it, or takes it up again. */
export const archiveStudy = (em: EntityManager, id: number, isArchived: boolean) =>
  em.nativeUpdate(StudyEntity, { id }, { archivedAt: isArchived ? new Date() : null });

/**
 * A study with the state of each of its questions.
 *
 * @param role what whoever asks does in it
 * @param within respondents whose answers alone are counted; null for everybody
 */
export async function describeStudy(
  em: EntityManager,
  { id, role }: Pick<StudyDetail, 'id' | 'role'>,
  within: number[] | null,
): Promise<StudyDetail> {
  const { head, holds, gave, values } = withinGroup(within);
  const isOfGroup = holds('r.respondent_id');
  const count = (where: string) =>
    `(select count(*)::int from response r where r.question_id = q.id and ${where} and ${isOfGroup})`;
  const study = await row<
    Pick<
      StudyDetail,
      | 'id'
      | 'name'
      | 'purpose'
      | 'respondents'
      | 'allRespondents'
      | 'weighted'
      | 'asides'
      | 'setAside'
      | 'noAnswers'
      | 'masksForReaders'
    >
  >(
    em,
    `${head} select id, name, purpose, asides, coalesce(set_aside, '[]') as "setAside",
       no_answers as "noAnswers", masks_for_readers as "masksForReaders",
       p.respondents, p."allRespondents", p.weighted
     from study cross join lateral (
       select (count(*) filter (where ${holds('id')}))::int as respondents,
         count(*)::int as "allRespondents", count(weight) > 0 as weighted
       from respondent where study_id = study.id) p
     where id = :id`,
    { ...values, id },
  );
  const questions = await rows<
    Omit<StudyDetail['questions'][number], 'decided' | 'byModel' | 'isFinished'>
  >(
    em,
    `${head} select q.id, q.label, q.wording, c.*, coalesce(done.settled, 0) as settled, v.name as of,
       case when sample.size > 0 then jsonb_build_object(
         'size', sample.size, 'settled', sample.settled, 'random', sample.random) end as sample,
       case when run.id is not null then (
         select jsonb_build_object(
           'open', (select count(*) from open_suggestion o
             where o.question_id = q.id and ${gave('o.response_id')}),
           'decided', (select count(*) from suggestion d join code c on c.id = d.code_id
             where d.question_id = q.id and d.state <> 'open' and ${gave('d.response_id')}))) end as suggestions
     from question q left join variable v on v.id = q.variable_id
     -- of all questions together: settled answers are looked up among the others once
     left join (
       select r.question_id, count(distinct t.response_id)::int as settled
       from settlement t join response r on r.id = t.response_id
       join question of on of.id = r.question_id
       where of.study_id = :id and not r.no_answer and ${isOfGroup} group by 1
     ) done on done.question_id = q.id
     cross join lateral (
       select ${within ? `${count('true')} as asked, ${count('not r.no_answer')} as answered` : 'q.asked, q.answered'},
         ${count('r.changed_at is not null')} as changed) c
     cross join lateral (
       select count(distinct m.response_id)::int as size,
         (count(distinct m.response_id) filter (where exists (
           select 1 from settlement t where t.response_id = m.response_id)))::int as settled,
         (count(distinct m.response_id) filter (where ${DRAWN_AT_RANDOM}))::int as random
       from sample s join sample_member m on m.sample_id = s.id
       where s.question_id = q.id and ${gave('m.response_id')}) sample
     left join lateral (
       select id from training_run t where t.question_id = q.id order by id desc limit 1) run on true
     where q.study_id = :id order by q.position`,
    { ...values, id },
  );
  const states = await readStates(em, id, within);
  const variables = await rows<StudyDetail['variables'][number]>(
    em,
    `select v.id, v.name, v.kind, v.derived, coalesce(c.labels, '{}') as labels,
       case when v.derived is not null
           then jsonb_array_length(coalesce(v.derived->'bands', v.derived->'rules')) + 1
         else coalesce(c.different + 1, v.distinct_values)::int end as "values"
     from variable v
     left join lateral (
       -- joined categories count as one, and "not stated" is one more
       select count(distinct label)::int as different,
         jsonb_object_agg(value, label) filter (where label <> value) as labels
       from category where variable_id = v.id having count(*) filter (where label <> value) > 0) c on true
     where v.study_id = :id order by v.position, v.id`,
    { id },
  );
  return {
    ...study,
    role,
    questions: questions.map((question) => {
      const { decided, byModel } = states.get(question.id) ?? { decided: 0, byModel: 0 };
      const isFinished = question.answered > 0 && question.settled + decided >= question.answered;
      // coders code without the models' word
      const suggestions = role === 'coder' ? null : question.suggestions;
      return { ...question, suggestions, decided, byModel, isFinished };
    }),
    variables,
  };
}

/**
 * How many answers are decided otherwise than by settling them by hand: code by code, or by the models.
 */
export async function readStates(
  em: EntityManager,
  studyId: number,
  within: number[] | null,
): Promise<Map<number, { decided: number; byModel: number }>> {
  const decided = await em.find(ModelDecisionEntity, { studyId }, { fields: ['questionId'] });
  const asked = new Set([
    ...(await questionsInReview(em, studyId)),
    ...decided.map(({ questionId }) => questionId),
  ]);
  const states = new Map<number, { decided: number; byModel: number }>();
  if (asked.size === 0) return states;
  const people = await readPeople(em, studyId);
  const members = within ? setOf(people, within) : fullBitset(people.ids.length);
  for (const id of asked) {
    const material = await readMaterial(em, people, id);
    states.set(id, {
      decided: countOfBoth(subtract(material.decided, material.settled), members),
      byModel: countOfBoth(material.byModel, members),
    });
  }
  return states;
}

/** @throws Problem not_found when the question is not of this study */
export async function findQuestion(
  em: EntityManager,
  studyId: number,
  id: number,
): Promise<QuestionRow> {
  const question = await em.findOne(QuestionEntity, { id, studyId });
  if (!question) throw problems.notFound('question');
  return question;
}

/** Counts again how many were asked and answered each question. */
export const countAnswers = (em: EntityManager, studyId: number) =>
  rows(
    em,
    `update question q set asked = coalesce(n.asked, 0), answered = coalesce(n.answered, 0)
     from question one left join (
       select r.question_id, count(*) as asked, count(*) filter (where not r.no_answer) as answered
       from response r join question of on of.id = r.question_id and of.study_id = :studyId
       group by r.question_id) n on n.question_id = one.id
     where one.id = q.id and q.study_id = :studyId`,
    { studyId },
  );
