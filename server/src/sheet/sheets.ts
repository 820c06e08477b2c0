import { createHash } from 'node:crypto';
import type { Finding, Sheet, SheetCheck, ColumnRole } from '@yellow-thread/contract';
import { guessRoles, type ImportPlan } from '@yellow-thread/core/sheet';
import type { EntityManager } from '@mikro-orm/postgresql';
import { SheetEntity, row } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { problems } from '../problems.js';

const PREVIEW_ROWS = 6;
const LONGEST_PREVIEW = 300;
const ROWS_NAMED = 12;

/** Keeps an uploaded file and says what its columns seem to be; nothing of the study changes yet. */
export async function keepSheet(
  em: EntityManager,
  threads: Threads,
  upload: { studyId: number; accountId: number; fileName: string; content: Buffer },
): Promise<Sheet> {
  const { studyId, accountId, fileName, content } = upload;
  const table = await threads.run('readSheet', { fileName, content });
  const guesses = guessRoles(table);
  const sheet = {
    rows: table.rows.length,
    columns: table.columns.map((name, c) => ({ name, ...guesses[c]! })),
    preview: table.rows
      .slice(0, PREVIEW_ROWS)
      .map((cells) => cells.map((cell) => cell.slice(0, LONGEST_PREVIEW))),
  };
  const { id } = await row<{ id: number }>(
    em,
    `insert into sheet (study_id, uploaded_by, file_name, checksum, content, rows, columns, preview)
     values (?, ?, ?, ?, ?, ?, ?, ?) returning id`,
    [
      studyId,
      accountId,
      fileName,
      createHash('sha256').update(content).digest('hex'),
      content,
      sheet.rows,
      JSON.stringify(sheet.columns),
      JSON.stringify(sheet.preview),
    ],
  );
  return { id, fileName, ...sheet };
}

export async function findSheet(em: EntityManager, studyId: number, id: number) {
  const sheet = await em.findOne(SheetEntity, { id, studyId });
  if (!sheet) throw problems.notFound('sheet');
  return sheet;
}

/** What an import is planned from. */
export async function planInput(
  em: EntityManager,
  { id, fileName }: { id: number; fileName: string },
  roles: ColumnRole[],
) {
  const { content } = await row<{ content: Buffer }>(em, 'select content from sheet where id = ?', [
    id,
  ]);
  return { fileName, content, roles };
}

/** What bringing the sheet in with these roles would write. */
export async function checkSheet(
  em: EntityManager,
  threads: Threads,
  studyId: number,
  id: number,
  roles: ColumnRole[],
): Promise<SheetCheck> {
  const sheet = await findSheet(em, studyId, id);
  if (roles.length !== sheet.columns.length) throw problems.invalidRequest({ field: 'roles' });
  return summarise(await threads.run('planImport', await planInput(em, sheet, roles)));
}

function summarise(plan: ImportPlan): SheetCheck {
  return {
    respondents: plan.respondents.length,
    questions: plan.questions.map(({ wording }, q) => {
      const noAnswer = plan.respondents.filter((one) => one.responses[q]!.noAnswer).length;
      return { wording, answered: plan.respondents.length - noAnswer, noAnswer };
    }),
    variables: plan.variables.map(({ name }, v) => ({
      name,
      values: new Set(plan.respondents.map((one) => one.background[v])).size,
    })),
    findings: plan.findings.map(nameRows),
  };
}

/** A finding may concern every row: only the first are named, and how many there are. */
export const nameRows = ({ rows, ...finding }: ImportPlan['findings'][number]): Finding => ({
  ...finding,
  count: rows.length,
  rows: rows.slice(0, ROWS_NAMED),
});
