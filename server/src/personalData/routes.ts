import { api, FILE_TYPES } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { nameFile } from '../exchange/index.js';
import { makerOf } from '../people/index.js';
import { DONE, route } from '../route.js';
import { personalDataTexts as texts } from '../wording/study.js';
import { changePrivacy } from './changePrivacy.js';
import { deleteRespondent } from './deleteRespondent.js';
import { readPersonalRecord } from './personalRecord.js';

/** What is kept of one person who answered, and its end. */
export function personalDataRoutes(app: App): void {
  route(app, api.downloadPersonalData, async ({ em, params, query }, reply) => {
    const record = await readPersonalRecord(em, params.study, query.externalId);
    nameFile(reply.type(FILE_TYPES.json), [texts.fileName], 'json');
    return reply.send(JSON.stringify(record, null, 2));
  });
  route(app, api.deleteRespondent, (request) =>
    deleteRespondent(request.em, makerOf(request, request.params.study), request.body.externalId),
  );
  route(app, api.changePrivacy, async (request) => {
    const { em, params, body } = request;
    await changePrivacy(em, makerOf(request, params.study), body.masksForReaders);
    return DONE;
  });
}
