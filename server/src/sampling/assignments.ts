import type { Assignment, AssignmentCreate, ListedAssignment } from '@yellow-thread/contract';
import { hasAccess } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  AccountEntity,
  findAssignments,
  inChange,
  isoTime,
  makeChange,
  MembershipEntity,
  rows,
  type QuestionRow,
} from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { assignmentTexts as texts } from '../wording/coding.js';

/** What was assigned in a study, the newest first. @param coderId to whom; null for everybody */
export const listAssignments = (
  em: EntityManager,
  studyId: number,
  coderId: number | null,
): Promise<ListedAssignment[]> =>
  rows(
    em,
    `select g.id, g.question_id as "questionId", g.coder_id as "coderId", c.name as coder, b.name as "assignedBy",
       ${isoTime('g.assigned_at')} as "assignedAt", done.size, done.settled
     from assignment g join account c on c.id = g.coder_id join account b on b.id = g.assigned_by
     cross join lateral (
       select count(r.id)::int as size, (count(r.id) filter (where exists (
         select 1 from settlement t where t.response_id = r.id)))::int as settled
       from response r where not r.no_answer and r.id in (
         select jsonb_array_elements(g.response_ids)::int)) done
     where g.study_id = :studyId and (:coderId::int is null or g.coder_id = :coderId::int)
     order by g.assigned_at desc, g.id`,
    { studyId, coderId },
  );

/**
 * Asks a member of the team to code some answers, and all others of the same words, since these are coded as one. What is
 * assigned to them already is left out. A request that comes twice is carried out once.
 *
 * @throws Problem not_found for who does not code in this study, nothing_to_assign
 */
export async function assignAnswers(
  em: EntityManager,
  maker: Maker,
  question: QuestionRow,
  { id, coderId, responseIds }: AssignmentCreate,
): Promise<void> {
  const { studyId } = maker;
  await inChange(em, async (tx) => {
    if ((await findAssignments(tx, 'g.id = :id', { id })).length > 0) return;
    const member = await tx.findOne(MembershipEntity, { studyId, accountId: coderId });
    if (!member || !hasAccess(member.role, 'coding')) throw problems.notFound('coder');
    const { name } = await tx.findOneOrFail(AccountEntity, coderId);
    const found = await rows<{ id: number }>(
      tx,
      `select r.id from response r
       where r.question_id = :questionId and not r.no_answer
         and (r.id = any(:responseIds::int[]) or r.same in (
           select s.same from response s
           where s.id = any(:responseIds::int[]) and s.question_id = :questionId))
         and r.id not in (select jsonb_array_elements(g.response_ids)::int from assignment g
           where g.question_id = :questionId and g.coder_id = :coderId)
       order by r.id`,
      { questionId: question.id, coderId, responseIds },
    );
    if (found.length === 0) throw problems.nothingToAssign(name);
    const assignment: Assignment = {
      ...{ id, studyId, questionId: question.id, coderId },
      responseIds: found.map((one) => one.id),
      ...{ assignedBy: maker.accountId, assignedAt: new Date().toISOString() },
    };
    await makeChange(tx, {
      ...maker,
      summary: texts.assigning(found.length, name),
      diff: { assignment: { added: [assignment], updated: [], removed: [] } },
    });
  });
}

/** Takes an assignment back; what was coded stays. One that is gone already stays so. */
export async function removeAssignment(em: EntityManager, maker: Maker, id: string): Promise<void> {
  const { studyId } = maker;
  await inChange(em, async (tx) => {
    const [assignment] = await findAssignments(tx, 'g.id = :id and g.study_id = :studyId', {
      id,
      studyId,
    });
    if (!assignment) return;
    const { name } = await tx.findOneOrFail(AccountEntity, assignment.coderId);
    await makeChange(tx, {
      ...maker,
      summary: texts.removing(assignment.responseIds.length, name),
      diff: { assignment: { added: [], updated: [], removed: [assignment] } },
    });
  });
}
