import { api, type SheetSettings } from '@yellow-thread/contract';
import { writeCsv } from '@yellow-thread/core/exchange';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { FastifyReply } from 'fastify';
import { StudyEntity } from '../database/index.js';
import { nameFile } from '../exchange/index.js';
import { enqueueJob, type Threads } from '../jobs/index.js';
import { noteInAudit, requireAccount } from '../people/index.js';
import { problems } from '../wording/problems.js';
import type { App } from '../app.types.js';
import { checkOutcome, describeCheck } from './checkSheet.js';
import { findImport, listImports, whatUndoTakes } from './imports.js';
import { differenceOf } from './mergeSheet.js';
import {
  describeSheet,
  findSheet,
  keepSheet,
  leaveSheet,
  listSheets,
  readySheet,
} from './sheets.js';
import { DONE, route } from '../route.js';

export const LARGEST_SHEET = 200 * 1024 * 1024;

/** Sheets from their upload to the check before they are imported. */
export function sheetRoutes(app: App, threads: Threads, largest: number): void {
  const tooLarge = () => problems.tooLarge(`${largest / 1024 / 1024} MB`);
  const read = (em: EntityManager, studyId: number, accountId: number, payload: unknown) =>
    enqueueJob(em, { kind: 'read', studyId, questionId: null, accountId, payload });

  route(app, api.uploadSheet, async (request) => {
    const file = await request.file();
    if (!file) throw problems.invalidRequest({ field: 'file' });
    const studyId = request.params.study;
    const accountId = requireAccount(request).id;
    const sheetId = await keepSheet(request.em, {
      studyId,
      accountId,
      tooLarge,
      content: file.file,
      fileName: file.filename.slice(-200),
    });
    await read(request.em, studyId, accountId, { sheetId, choices: {} });
    return describeSheet(request.em, studyId, sheetId);
  });

  route(app, api.listSheets, async ({ em, params }) => ({
    sheets: await listSheets(em, params.study),
  }));

  route(app, api.getSheet, ({ em, params }) => describeSheet(em, params.study, params.sheet));

  route(app, api.cancelSheet, async ({ em, params }) => {
    await leaveSheet(em, params.study, params.sheet);
    return DONE;
  });

  route(app, api.readSheet, async (request) => {
    const { study, sheet } = request.params;
    const { id: sheetId } = await findSheet(request.em, study, sheet);
    const choices = request.body;
    return read(request.em, study, requireAccount(request).id, { sheetId, choices });
  });

  route(app, api.checkSheet, async (request, reply) => {
    const { em, params, body } = request;
    const { sheet } = await readySheet(em, params.study, params.sheet);
    const outcome = await checkOutcome(em, {
      threads,
      sheet,
      settings: body,
      signal: goneSignal(reply),
    });
    return describeCheck(em, params.study, outcome);
  });

  const compare = async (
    em: EntityManager,
    {
      studyId,
      sheetId,
      settings,
      signal,
    }: { studyId: number; sheetId: number; settings: SheetSettings | null; signal: AbortSignal },
  ) => {
    const { sheet, shape, part } = await readySheet(em, studyId, sheetId);
    const chosen = settings ?? sheet.settings!;
    const outcome = await checkOutcome(em, { threads, sheet, settings: chosen, signal });
    const staged = { shape, part, signal, settings: chosen };
    return differenceOf(em, { threads, studyId, sheet: staged, outcome });
  };

  route(app, api.compareSheet, ({ em, params, body }, reply) =>
    compare(em, {
      studyId: params.study,
      sheetId: params.sheet,
      settings: body,
      signal: goneSignal(reply),
    }),
  );

  route(app, api.downloadUnmatched, async ({ em, params, query }, reply) => {
    const { unknownIds, absentIds } = await compare(em, {
      studyId: params.study,
      sheetId: params.sheet,
      settings: null,
      signal: goneSignal(reply),
    });
    const ids = query.side === 'sheet' ? unknownIds : absentIds;
    const { name } = await em.findOneOrFail(StudyEntity, params.study);
    const about = [name, `ids-only-in-the-${query.side}`];
    nameFile(reply.type('text/csv; charset=utf-8'), about, 'csv');
    return `\uFEFF${writeCsv([['id'], ...ids.map((id) => [id])])}`;
  });
}

/** Imports, and the way back. */
export function importRoutes(app: App): void {
  route(app, api.importSheet, async (request) => {
    const { study, sheet } = request.params;
    const { shape } = await readySheet(request.em, study, sheet);
    const settings = request.body;
    if (settings.columns.length !== shape.columns.length)
      throw problems.invalidRequest({ field: 'columns' });
    return enqueueJob(request.em, {
      kind: 'import',
      studyId: study,
      questionId: null,
      accountId: requireAccount(request).id,
      payload: { sheetId: sheet, settings },
    });
  });

  route(app, api.listImports, async ({ em, params }) => ({
    imports: await listImports(em, params.study),
  }));

  route(app, api.previewUndoImport, ({ em, params }) =>
    whatUndoTakes(em, params.study, params.import),
  );

  route(app, api.undoImport, async (request) => {
    const { study, import: importId } = request.params;
    await whatUndoTakes(request.em, study, importId);
    const accountId = requireAccount(request).id;
    await noteInAudit(request.em, {
      action: 'import_taken_back',
      accountId,
      studyId: study,
      details: { import: importId },
    });
    return enqueueJob(request.em, {
      kind: 'undo_import',
      studyId: study,
      questionId: null,
      accountId,
      payload: { importId },
    });
  });

  route(app, api.restoreImport, async (request) => {
    const { study, import: importId } = request.params;
    const { isInBin, fileName } = await findImport(request.em, study, importId);
    if (!isInBin) throw problems.notInBin(fileName);
    const accountId = requireAccount(request).id;
    await noteInAudit(request.em, {
      action: 'import_restored',
      accountId,
      studyId: study,
      details: { import: importId },
    });
    return enqueueJob(request.em, {
      kind: 'restore_import',
      studyId: study,
      questionId: null,
      accountId,
      payload: { importId },
    });
  });
}

/** Aborts when the client is gone, so that a check that nobody waits for is not finished. */
function goneSignal(reply: FastifyReply): AbortSignal {
  const gone = new AbortController();
  reply.raw.once('close', () => {
    if (!reply.raw.writableFinished) gone.abort();
  });
  return gone.signal;
}
