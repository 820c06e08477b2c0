import { api } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { makerOf } from '../people/index.js';
import { DONE, route } from '../route.js';
import { changeNoAnswers, changeQuestion, changeStudy, orderQuestions } from './studyChanges.js';

/** The study's own page: what it is about, its questions and what counts as no answer. */
export function studyContentRoutes(app: App): void {
  route(app, api.changeStudy, async (request) => {
    await changeStudy(request.em, makerOf(request, request.params.study), request.body);
    return DONE;
  });
  route(app, api.changeNoAnswers, ({ em, params, body }) =>
    changeNoAnswers(em, params.study, body.noAnswers),
  );
  route(app, api.changeQuestion, async (request) => {
    const { params, body } = request;
    await changeQuestion(request.em, makerOf(request, params.study), params.question, body);
    return DONE;
  });
  route(app, api.orderQuestions, async (request) => {
    const { params, body } = request;
    await orderQuestions(request.em, makerOf(request, params.study), body.questions);
    return DONE;
  });
}
