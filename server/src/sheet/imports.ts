import type { ImportRecord, ImportUndo } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { z } from 'zod';
import { BIN_DAYS, moveToBin, row, rows } from '../database/index.js';
import type { JobHandler } from '../jobs/index.js';
import { countAnswers } from '../study/index.js';
import { enqueueEncoding } from '../sentences/index.js';
import { problems } from '../wording/problems.js';
import { keepImportedValues } from './importedValues.js';
import { decisionsIn } from './decisions.js';

/** Everything that was ever brought into a study, newest first. */
export async function listImports(em: EntityManager, studyId: number): Promise<ImportRecord[]> {
  const imports = await rows<
    Omit<ImportRecord, 'as' | 'wave' | 'at' | 'undone' | 'decisions'> & {
      at: Date | string;
      settings: Parameters<typeof decisionsIn>[0];
      undoneAt: Date | string | null;
      undoneBy: string | null;
    }
  >(
    em,
    `select i.id, i.file_name as "fileName", i.checksum, i.size::int, i.respondents, i.responses,
       coalesce((i.summary->'changed'->>'people')::int, 0) as "changedPeople",
       coalesce((i.summary->'changed'->>'texts')::int, 0) as "changedTexts",
       i.imported_at as at, a.name as by, i.undone_at as "undoneAt", u.name as "undoneBy",
       i.roles, i.findings, i.settings
     from import i join account a on a.id = i.imported_by left join account u on u.id = i.undone_by
     where i.study_id = :studyId order by i.id desc`,
    { studyId },
  );
  return imports.map(({ settings, undoneAt, undoneBy, ...one }) => ({
    ...one,
    as: settings.as ?? 'respondents',
    wave: settings.wave ?? '',
    at: new Date(one.at).toISOString(),
    undone: undoneAt
      ? {
          at: new Date(undoneAt).toISOString(),
          by: undoneBy!,
          until: new Date(new Date(undoneAt).getTime() + BIN_DAYS * 86_400_000).toISOString(),
        }
      : null,
    decisions: decisionsIn(settings),
  }));
}

export async function findImport(em: EntityManager, studyId: number, id: number) {
  const [found] = await rows<{
    id: number;
    undone: boolean;
    isInBin: boolean;
    fileName: string;
    merged: boolean;
  }>(
    em,
    `select id, undone_at is not null as undone,
       coalesce(undone_at > now() - interval '${BIN_DAYS} days', false) as "isInBin", file_name as "fileName",
       coalesce(settings->>'as', 'respondents') <> 'respondents' as merged
     from import where id = :id and study_id = :studyId`,
    { id, studyId },
  );
  if (!found) throw problems.notFound('import');
  return found;
}

const emptied = (table: 'variable' | 'question') =>
  table === 'variable'
    ? `select v.name as name, v.id from variable v where v.import_id = :importId and not exists (
         select 1 from respondent r where r.study_id = v.study_id
           and r.import_id is distinct from v.import_id
           and r.background->>(v.id::text) is not null
           and not exists (select 1 from import_before b
             where b.import_id = v.import_id and b.respondent_id = r.id))`
    : `select q.label as name, q.id from question q where q.import_id = :importId and not exists (
         select 1 from response s join respondent r on r.id = s.respondent_id
         where s.question_id = q.id and r.import_id is distinct from q.import_id
           and not exists (select 1 from import_before_response b
             where b.import_id = q.import_id and b.response_id = s.id and b.text is null))`;

/** What would go, and what would come back, if an import were undone. */
export async function whatUndoTakes(
  em: EntityManager,
  studyId: number,
  id: number,
): Promise<ImportUndo> {
  await findImport(em, studyId, id);
  const names = async (table: 'variable' | 'question') =>
    (await rows<{ name: string }>(em, emptied(table), { importId: id })).map((one) => one.name);
  const its = `response r join respondent p on p.id = r.respondent_id and p.import_id = :importId`;
  const counts = await row<Omit<ImportUndo, 'variables' | 'questions'>>(
    em,
    `select
       (select count(*)::int from respondent where import_id = :importId) as respondents,
       (select count(*)::int from ${its}) as responses,
       (select count(*)::int from ${its} join settlement t on t.response_id = r.id
          join import i on i.id = p.import_id where t.settled_at <> i.imported_at) as settled,
       (select count(*)::int from ${its} join mention m on m.response_id = r.id
          where m.origin <> 'import') as mentions,
       (select count(*)::int from ${its} join suggestion s on s.response_id = r.id) as suggestions,
       (select count(*)::int from ${its} join second_reading_answer a
          on a.response_id = r.id and a.second_codes is not null) as "codedTwice",
       (select count(*)::int from import_before where import_id = :importId)
         + (select count(*)::int from import_before_response where import_id = :importId) as restored`,
    { importId: id },
  );
  return { ...counts, variables: await names('variable'), questions: await names('question') };
}

export const undoPayload = z.object({ importId: z.number() });

/**
 * Takes an import back: its respondents go into the bin with all that was done on them, what it overwrote returns.
 */
export const undoImport: JobHandler = (job) => {
  const { importId } = undoPayload.parse(job.payload);
  return Promise.resolve(async (tx: EntityManager) => {
    await rows(tx, 'select id from study where id = :studyId for no key update', {
      studyId: job.studyId,
    });
    const { undone, merged, fileName } = await findImport(tx, job.studyId, importId);
    if (undone) throw problems.importUndone(fileName);
    const [later] = merged
      ? await rows<{ name: string }>(
          tx,
          `select file_name as name from import i where study_id = :studyId and id > :importId
             and undone_at is null and settings->>'as' in ('details', 'answers', 'corrections')
           order by id desc limit 1`,
          { studyId: job.studyId, importId },
        )
      : [];
    if (later) throw problems.laterImport(fileName, later.name);
    const variables = await rows<{ id: number }>(tx, emptied('variable'), { importId });
    const questions = await rows<{ id: number }>(tx, emptied('question'), { importId });
    // looked up before: their records go into the bin with them
    const added = await rows<{ id: number }>(
      tx,
      `select response_id as id from import_before_response where import_id = :importId and text is null`,
      { importId },
    );
    await keepImportedValues(tx, importId);
    await restore(tx, importId);
    await moveToBin(tx, importId, [
      {
        table: 'response',
        where: 't.respondent_id in (select id from respondent where import_id = :importId)',
        values: { importId },
      },
      {
        table: 'response',
        where: 't.id = any(:added::int[])',
        values: { added: added.map(({ id }) => id) },
      },
      { table: 'respondent', where: 't.import_id = :importId', values: { importId } },
      {
        table: 'variable',
        where: 't.id = any(:variables::int[])',
        values: { variables: variables.map(({ id }) => id) },
      },
      {
        table: 'question',
        where: 't.id = any(:questions::int[])',
        values: { questions: questions.map(({ id }) => id) },
      },
    ]);
    // codes that came with it, unless somebody made something of them
    await moveToBin(tx, importId, [
      {
        table: 'code',
        where: `t.theme_id is null and t.definition = '' and t.include = '' and t.exclude = ''
          and exists (select from import i where i.id = :importId and i.study_id = t.study_id
            and i.summary->'madeCodes' @> to_jsonb(t.id::text))
          and not exists (select from mention m where m.code_id = t.id)`,
        values: { importId },
      },
    ]);
    await countAnswers(tx, job.studyId);
    await rows(
      tx,
      'update import set undone_at = now(), undone_by = :createdBy where id = :importId',
      { createdBy: job.createdBy, importId },
    );
    await enqueueEncoding(tx, { studyId: job.studyId, accountId: job.createdBy });
    return (em) => rows(em, 'analyze respondent, response, mention, settlement').then(() => {});
  });
};

/** Gives back the background and texts that an import of details or corrections overwrote. */
async function restore(em: EntityManager, importId: number): Promise<void> {
  await rows(
    em,
    `update respondent r set background = b.background, weight = b.weight
     from import_before b where b.import_id = :importId and b.respondent_id = r.id`,
    { importId },
  );
  await rows(
    em,
    `update response r set text = b.text, no_answer = b.no_answer, same = b.same,
       changed_at = case when r.changed_at is null then null else now() end
     from import_before_response b
     where b.import_id = :importId and b.response_id = r.id and b.text is not null`,
    { importId },
  );
  // a passage marked since may lie outside the text that returns
  for (const table of ['mention', 'note'])
    await rows(
      em,
      `update ${table} m set start = null, "end" = null
       from import_before_response b join response r on r.id = b.response_id
       where b.import_id = :importId and m.response_id = r.id and m."end" > length(r.text)`,
      { importId },
    );
}
