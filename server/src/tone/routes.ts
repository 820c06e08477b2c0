import { api, FILE_TYPES } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { StudyEntity, ToneCheckEntity } from '../database/index.js';
import { nameFile } from '../exchange/index.js';
import { enqueueJob, type Threads } from '../jobs/index.js';
import { makerOf, requireAccount } from '../people/index.js';
import { DONE, route } from '../route.js';
import { findQuestion } from '../study/index.js';
import { problems } from '../wording/problems.js';
import { checkTone, drawToneSample } from './checks.js';
import { readTone } from './overview.js';
import { readToneReport } from './report.js';
import { toneFile } from './toneFile.js';

export function toneRoutes(app: App, threads: Threads): void {
  route(app, api.getTone, async (request) => {
    const { em, params, query } = request;
    const { id: questionId } = await findQuestion(em, params.study, params.question);
    const of = { studyId: params.study, questionId };
    return readTone(em, threads, of, { limit: query.limit, within: await request.within() });
  });
  route(app, api.checkTone, async (request) => {
    const { em, params, body } = request;
    const { id: questionId } = await findQuestion(em, params.study, params.question);
    await checkTone(em, makerOf(request, params.study), { id: params.check, questionId }, body);
    return DONE;
  });
  route(app, api.drawToneSample, async ({ em, params, body }) => {
    const { id } = await findQuestion(em, params.study, params.question);
    return { drawn: await drawToneSample(em, id, body.size) };
  });
  route(app, api.trainTone, async (request) => {
    const { em, params } = request;
    await findQuestion(em, params.study, params.question);
    if ((await em.count(ToneCheckEntity, { studyId: params.study })) === 0)
      throw problems.nothingSettled();
    return enqueueJob(em, {
      ...{ kind: 'train_tone', studyId: params.study, questionId: null, payload: {} },
      accountId: requireAccount(request).id,
    });
  });
  route(app, api.getToneReport, async (request) => {
    const { em, params, query } = request;
    const { id: questionId } = await findQuestion(em, params.study, params.question);
    const of = { studyId: params.study, questionId };
    return readToneReport(em, threads, of, {
      by: query.by ?? null,
      within: await request.within(),
    });
  });
  route(app, api.downloadToneReport, async (request, reply) => {
    const { em, params, query } = request;
    const question = await findQuestion(em, params.study, params.question);
    const of = { studyId: params.study, questionId: question.id };
    const report = await readToneReport(em, threads, of, {
      by: query.by ?? null,
      within: await request.within(),
    });
    const { name } = await em.findOneOrFail(StudyEntity, params.study);
    reply.type(FILE_TYPES.csv);
    nameFile(reply, [name, 'tone', question.label], 'csv');
    return reply.send(toneFile(report));
  });
}
