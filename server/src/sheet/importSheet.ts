import { columnRoleSchema } from '@yellow-thread/contract';
import type { ImportPlan } from '@yellow-thread/core/sheet';
import type { EntityManager } from '@mikro-orm/postgresql';
import { z } from 'zod';
import { copyRows, QuestionEntity, row, rows, VariableEntity } from '../database/index.js';
import type { JobHandler } from '../jobs/index.js';
import { problems } from '../problems.js';
import { findSheet, nameRows, planInput } from './sheets.js';

export const importPayload = z.object({ sheetId: z.number(), roles: z.array(columnRoleSchema) });

/** Brings a kept sheet into the study: parsed on a thread, written in one transaction. */
export const importSheet: JobHandler = async (job, { em, threads, signal }) => {
  const { sheetId, roles } = importPayload.parse(job.payload);
  const sheet = await findSheet(em, job.studyId, sheetId);
  const plan = await threads.run('planImport', await planInput(em, sheet, roles), { signal });
  const stops = plan.findings.filter((finding) => finding.kind === 'stop');
  if (stops.length > 0) throw problems.sheetStops(stops.map((finding) => finding.sentence));
  return async (tx) => {
    await writePlan(tx, plan, {
      studyId: job.studyId,
      accountId: job.createdBy,
      fileName: sheet.fileName,
      checksum: sheet.checksum,
      roles: sheet.columns.map(({ name }, c) => ({ column: name, role: roles[c]! })),
    });
    await rows(tx, 'delete from sheet where id = ?', [sheetId]);
  };
};

export interface ImportSource {
  studyId: number;
  accountId: number;
  fileName: string;
  checksum: string;
  roles: { column: string; role: string }[];
}

/**
 * Writes what an import planned.
 *
 * @param em in a transaction
 * @returns ids of the responses, [respondent][question] in the plan's order
 */
export async function writePlan(
  em: EntityManager,
  plan: ImportPlan,
  source: ImportSource,
): Promise<number[][]> {
  const { studyId } = source;
  // two imports into one study take turns, so that their ids and positions cannot meet
  await rows(em, 'select id from study where id = ? for update', [studyId]);
  await refuseKnownIds(em, studyId, plan);
  const variables = await ensureVariables(em, studyId, plan);
  const questions = await ensureQuestions(em, studyId, plan);
  const { id: importId } = await row<{ id: number }>(
    em,
    `insert into import
       (study_id, file_name, checksum, roles, findings, respondents, responses, imported_by)
     values (?, ?, ?, ?, ?, ?, ?, ?) returning id`,
    [
      studyId,
      source.fileName,
      source.checksum,
      JSON.stringify(source.roles),
      JSON.stringify(plan.findings.map(nameRows)),
      plan.respondents.length,
      plan.respondents.length * questions.length,
      source.accountId,
    ],
  );
  const respondentIds = await reserveIds(em, 'respondent', plan.respondents.length);
  const responseIds = await reserveIds(em, 'response', plan.respondents.length * questions.length);
  await copyRows(
    em,
    'respondent',
    ['id', 'study_id', 'import_id', 'external_id', 'weight', 'background'],
    plan.respondents.map((one, i) => [
      respondentIds[i]!,
      studyId,
      importId,
      one.externalId,
      one.weight,
      JSON.stringify(Object.fromEntries(variables.map((id, v) => [id, one.background[v] ?? null]))),
    ]),
  );
  const ids = plan.respondents.map((_, i) =>
    questions.map((_, q) => responseIds[i * questions.length + q]!),
  );
  await copyRows(
    em,
    'response',
    ['id', 'question_id', 'respondent_id', 'text', 'no_answer'],
    plan.respondents.flatMap((one, i) =>
      one.responses.map(({ text, noAnswer }, q) => [
        ids[i]![q]!,
        questions[q]!,
        respondentIds[i]!,
        text,
        noAnswer,
      ]),
    ),
  );
  await rows(
    em,
    `update variable v set distinct_values = (
       select count(*) from (
         select distinct r.background->(v.id::text) from respondent r
         where r.study_id = v.study_id) different)
     where v.study_id = ?`,
    [studyId],
  );
  // the planner is told of many new rows at once, not at its own next round
  await rows(em, 'analyze respondent, response');
  return ids;
}

async function refuseKnownIds(em: EntityManager, studyId: number, plan: ImportPlan) {
  const known = await rows<{ id: string }>(
    em,
    `select external_id as id from respondent where study_id = ? and external_id = any(?::text[])
     order by id limit 1000`,
    [studyId, plan.respondents.map((one) => one.externalId)],
  );
  if (known.length > 0)
    throw problems.idsTaken(
      known.length,
      known.slice(0, 5).map((one) => one.id),
    );
}

async function ensureVariables(em: EntityManager, studyId: number, plan: ImportPlan) {
  const known = await em.find(VariableEntity, { studyId });
  const wanted = plan.variables.map(({ name, kind }, v) => {
    const existing = known.find((variable) => variable.name === name);
    if (existing && existing.kind !== kind) throw problems.columnTaken(existing.kind, name);
    return (
      existing ?? em.create(VariableEntity, { studyId, name, kind, position: known.length + v })
    );
  });
  await em.flush();
  return wanted.map((variable) => variable.id);
}

async function ensureQuestions(em: EntityManager, studyId: number, plan: ImportPlan) {
  const known = await em.find(QuestionEntity, { studyId });
  const wanted = plan.questions.map(
    ({ wording, label }, q) =>
      known.find((question) => question.wording === wording) ??
      em.create(QuestionEntity, { studyId, wording, label, position: known.length + q }),
  );
  await em.flush();
  return wanted.map((question) => question.id);
}

const reserveIds = async (em: EntityManager, table: string, count: number): Promise<number[]> =>
  (
    await rows<{ id: number }>(
      em,
      `select nextval(pg_get_serial_sequence(?, 'id'))::int as id from generate_series(1, ?)`,
      [table, count],
    )
  ).map((reserved) => reserved.id);
