import type { FastifyRequest } from 'fastify';
import { api, FILE_TYPES, type WriteUp } from '@yellow-thread/contract';
import { IsolationLevel } from '@mikro-orm/postgresql';
import { StudyEntity } from '../database/index.js';
import { nameFile, sendWritten } from '../exchange/index.js';
import {
  makerOf,
  maskWriteUp,
  noteInAudit,
  readerMask,
  requireAccount,
  type AuditAction,
} from '../people/index.js';
import { problems } from '../wording/problems.js';
import type { App } from '../app.types.js';
import {
  gridsAsCsv,
  readAnswerRows,
  reportGrid,
  writeDocx,
  writeHtml,
  writeWorkbook,
} from '../report/index.js';
import { countNow, countWriteUp, readTableQuery } from './count.js';
import { documentOf } from './document.js';
import { copyAnswers, keepAnswers, readFrozenAnswers } from './frozenAnswers.js';
import { emptyGrid, pictureGrid } from './pictureGrid.js';
import { keepPicture, readPicture, readPictures } from './pictures.js';
import {
  findWriteUp,
  keepFrozen,
  listBinned,
  listWriteUps,
  removeWriteUp,
  restoreWriteUp,
  saveWriteUp,
} from './stored.js';
import { DONE, route } from '../route.js';

/** A long document with all its figures. */
const LARGEST = 8 * 1024 * 1024;

const note = (
  request: FastifyRequest<{ Params: { study: number; writeUp: string } }>,
  action: AuditAction,
) =>
  noteInAudit(request.em, {
    action,
    accountId: requireAccount(request).id,
    studyId: request.params.study,
    details: { writeUp: request.params.writeUp },
  });

export function writeUpRoutes(app: App): void {
  route(app, api.listWriteUps, async ({ em, params }) => ({
    writeUps: await listWriteUps(em, params.study),
    binned: await listBinned(em, params.study),
  }));
  route(app, api.getWriteUp, async ({ em, params: { study, writeUp }, role }) => {
    const counted = await countWriteUp(em, study, await findWriteUp(em, study, writeUp));
    const mask = await readerMask(em, study, role);
    return mask ? maskWriteUp(counted, mask) : counted;
  });
  route(
    app,
    api.saveWriteUp,
    async (request) => {
      const { params, body } = request;
      for (const table of body.content.tables) readTableQuery(table.query);
      const maker = makerOf(request, params.study);
      return { version: await saveWriteUp(request.em, maker, params.writeUp, body) };
    },
    { bodyLimit: LARGEST },
  );
  route(app, api.removeWriteUp, async (request) => {
    const maker = makerOf(request, request.params.study);
    await removeWriteUp(request.em, maker, request.params.writeUp);
    await note(request, 'write_up_deleted');
    return DONE;
  });
  route(app, api.restoreWriteUp, async (request) => {
    await restoreWriteUp(request.em, request.params.study, request.params.writeUp);
    await note(request, 'write_up_restored');
    return DONE;
  });
  route(app, api.freezeWriteUp, async (request) => {
    const { em, params, body } = request;
    const maker = makerOf(request, params.study);
    // figures and answers are those of one moment
    await em.transactional(
      async (tx) => {
        const stored = await findWriteUp(tx, params.study, params.writeUp);
        if (stored.frozen) {
          if (await keepFrozen(tx, { maker, id: body.id, of: stored, frozen: stored.frozen }))
            await copyAnswers(tx, body.id, stored.id);
          return;
        }
        const { lost, ...now } = await countNow(tx, params.study, stored.content);
        if (lost[0]) throw problems.tableLost(lost[0].why);
        if (await keepFrozen(tx, { maker, id: body.id, of: stored, frozen: now }))
          await keepAnswers(tx, body.id, questionsOf(now));
      },
      { isolationLevel: IsolationLevel.REPEATABLE_READ },
    );
    return DONE;
  });
  route(
    app,
    api.keepPicture,
    async ({ em, params, body }) => {
      await keepPicture(em, params.study, params.picture, body.png);
      return DONE;
    },
    { bodyLimit: LARGEST },
  );
  route(app, api.readPicture, async ({ em, params }, reply) =>
    reply
      .type('image/png')
      // it never changes
      .header('Cache-Control', 'private, max-age=86400, immutable')
      .send(await readPicture(em, params.study, params.picture)),
  );
  route(app, api.downloadWriteUp, async (request, reply) => {
    const { em } = request;
    const { study, writeUp, format } = request.params;
    const mask = await readerMask(em, study, request.role);
    const asIs = await countWriteUp(em, study, await findWriteUp(em, study, writeUp));
    const counted = mask ? maskWriteUp(asIs, mask) : asIs;
    const { name } = await em.findOneOrFail(StudyEntity, study);
    nameFile(reply.type(FILE_TYPES[format]), [name, 'write-up', counted.name], format);
    const grids = [
      ...counted.counted.map(({ report, facts, label }) => reportGrid(report, facts, label)),
      ...counted.content.pictures.flatMap((picture) => pictureGrid(picture) ?? []),
    ];
    if (grids.length === 0) grids.push(emptyGrid(counted.name));
    const document = async () =>
      documentOf(counted, await readPictures(em, study, counted.content));
    switch (format) {
      case 'html':
        return reply.send(writeHtml(counted.name, await document()));
      case 'docx':
        return reply.send(
          await writeDocx(counted.name, await document(), requireAccount(request).name),
        );
      case 'csv':
        return reply.send(gridsAsCsv(grids));
      case 'xlsx': {
        // the answers name their respondents
        if (mask) return sendWritten(reply, (to) => writeWorkbook(to, grids));
        return sendWritten(reply, (to) =>
          writeWorkbook(
            to,
            grids,
            counted.frozenAt
              ? readFrozenAnswers(em, writeUp)
              : readAnswerRows(em, questionsOf(counted), null),
          ),
        );
      }
    }
  });
}

/** The questions that some tables are of. */
const questionsOf = ({ counted }: Pick<WriteUp, 'counted'>): number[] => [
  ...new Set(counted.map(({ questionId }) => questionId)),
];
