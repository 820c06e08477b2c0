import type { SheetSettings } from '@yellow-thread/contract';
import type { SheetOutcome } from '@yellow-thread/core/sheet';
import type { EntityManager } from '@mikro-orm/postgresql';
import { row } from '../database/index.js';
import type { SheetRows, WriteInput } from './sheetWork.js';

/** Runs the work of a sheet that is being imported: on a thread, or in the demo's case right here. */
export interface SheetRunner {
  writeSheet(
    input: WriteInput,
    write: (to: string, bytes: Uint8Array) => Promise<void>,
  ): Promise<{ mentions: number }>;
}

/** What an import knows of its file and of who makes it. */
export interface ImportSource {
  studyId: number;
  accountId: number;
  checksum: string;
  size: number;
  shape: SheetRows;
  settings: SheetSettings;
}

/** Enters an import into the study's history. @returns its id, and the moment that it is dated with */
export async function enterImport(
  em: EntityManager,
  source: ImportSource,
  outcome: SheetOutcome,
  counts: { respondents: number; responses: number },
): Promise<{ id: number; at: string }> {
  const { studyId, accountId, checksum, size, shape, settings } = source;
  const { id, at } = await row<{ id: number; at: Date | string }>(
    em,
    `insert into import (study_id, file_name, checksum, size, roles, settings, findings, summary,
       respondents, responses, imported_by, imported_at)
     values (:studyId, :fileName, :checksum, :size, :roles, :settings, :findings, :summary, :respondents, :responses, :accountId, date_trunc('milliseconds', now()))
     returning id, imported_at as at`,
    {
      studyId,
      fileName: shape.fileName,
      checksum,
      size,
      roles: JSON.stringify(
        shape.columns.map(({ name }, c) => ({ column: name, role: settings.columns[c]!.role })),
      ),
      settings: JSON.stringify({ ...settings, file: shape.file }),
      findings: JSON.stringify(outcome.findings),
      summary: JSON.stringify({
        questions: outcome.questions.map(({ wording, answered, noAnswer, notAsked }) => ({
          wording,
          answered,
          noAnswer,
          notAsked,
        })),
        variables: outcome.variables.map(({ name, kind, stated }) => ({ name, kind, stated })),
        codes: outcome.codes,
      }),
      respondents: counts.respondents,
      responses: counts.responses,
      accountId,
    },
  );
  return { id, at: new Date(at).toISOString() };
}
