import { api } from '@yellow-thread/contract';
import { makerOf } from '../people/index.js';
import type { App } from '../app.types.js';
import { findQuestion } from '../study/index.js';
import { decideByModel, withdrawFromModel } from './decideByModel.js';
import { closeCodes, reopenCode, whatIsLeft } from './finish.js';
import { settleReading } from './readAnswer.js';
import { DONE, route } from '../route.js';

/** What is left of a question, and the ways to its end. */
export function finishRoutes(app: App): void {
  route(app, api.getWhatIsLeft, async (request) => {
    const { em, params } = request;
    const question = await findQuestion(em, params.study, params.question);
    return whatIsLeft(em, makerOf(request, params.study), question);
  });
  route(app, api.closeCodes, async (request) => {
    const { em, params, body } = request;
    const question = await findQuestion(em, params.study, params.question);
    return { closed: await closeCodes(em, makerOf(request, params.study), question, body) };
  });
  route(app, api.reopenCode, async (request) => {
    const { em, params } = request;
    const question = await findQuestion(em, params.study, params.question);
    await reopenCode(em, makerOf(request, params.study), question.id, params.code);
    return DONE;
  });
  route(app, api.decideByModel, async (request) => {
    const { em, params, body } = request;
    const question = await findQuestion(em, params.study, params.question);
    return decideByModel(em, makerOf(request, params.study), question.id, body);
  });
  route(app, api.withdrawFromModel, async (request) => {
    const { em, params } = request;
    const question = await findQuestion(em, params.study, params.question);
    await withdrawFromModel(em, makerOf(request, params.study), question.id);
    return DONE;
  });
  route(app, api.settleReading, async (request) => {
    const { em, params, body } = request;
    await settleReading(em, makerOf(request, params.study), params.response, body);
    return DONE;
  });
}
