import { api } from '@yellow-thread/contract';
import { makerOf, requireAccount } from '../people/index.js';
import type { App } from '../app.types.js';
import { findQuestion } from '../study/index.js';
import { readAgreement, settleDisagreement } from './comparison.js';
import {
  codeSecondReading,
  drawReading,
  endReading,
  listReadings,
  readReading,
  removeReading,
} from './readings.js';
import { DONE, route } from '../route.js';

export function agreementRoutes(app: App): void {
  route(app, api.listReadings, async (request) => {
    const { em, params, role } = request;
    const question = await findQuestion(em, params.study, params.question);
    return listReadings(em, question.id, role === 'coder' ? requireAccount(request).id : null);
  });
  route(app, api.drawReading, async (request) => {
    const { em, params, body } = request;
    const question = await findQuestion(em, params.study, params.question);
    await drawReading(em, makerOf(request, params.study), question.id, body);
    return DONE;
  });
  route(app, api.getReadingAnswers, async (request) => {
    const { em, params } = request;
    const question = await findQuestion(em, params.study, params.question);
    return readReading(em, makerOf(request, params.study), question.id, params.reading);
  });
  route(app, api.codeSecondReading, async (request) => {
    const { em, params, body } = request;
    const question = await findQuestion(em, params.study, params.question);
    await codeSecondReading(em, {
      maker: makerOf(request, params.study),
      questionId: question.id,
      id: params.reading,
      coding: body,
    });
    return DONE;
  });
  route(app, api.endReading, async (request) => {
    const { em, params } = request;
    const question = await findQuestion(em, params.study, params.question);
    await endReading(em, makerOf(request, params.study), question.id, params.reading);
    return DONE;
  });
  route(app, api.removeReading, async (request) => {
    const { em, params } = request;
    const question = await findQuestion(em, params.study, params.question);
    await removeReading(em, makerOf(request, params.study), question.id, params.reading);
    return DONE;
  });
  route(app, api.getAgreement, async ({ em, params, query }) => {
    const question = await findQuestion(em, params.study, params.question);
    const place = { studyId: params.study, questionId: question.id, id: params.reading };
    return readAgreement(em, place, query.against);
  });
  route(app, api.settleDisagreement, async (request) => {
    const { em, params, body } = request;
    const question = await findQuestion(em, params.study, params.question);
    await settleDisagreement(em, {
      maker: makerOf(request, params.study),
      questionId: question.id,
      id: params.reading,
      resolution: body,
    });
    return DONE;
  });
}
