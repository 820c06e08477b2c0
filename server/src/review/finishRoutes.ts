import {
  closeCodesSchema,
  closedCodesSchema,
  closingParams,
  decideByModelSchema,
  decidedByModelSchema,
  doneSchema,
  questionParams,
  readAnswerSchema,
  responseParams,
  whatIsLeftSchema,
} from '@yellow-thread/contract';
import { makerOf } from '../people/index.js';
import type { App } from '../app.types.js';
import { findQuestion } from '../study/index.js';
import { decideByModel, withdrawFromModel } from './decideByModel.js';
import { closeCodes, reopenCode, whatIsLeft } from './finish.js';
import { settleReading } from './readAnswer.js';

const done = { done: true as const };

/** What is left of a question, and the ways to its end. */
export function finishRoutes(app: App): void {
  const path = '/api/studies/:study/questions/:question/left';
  app.get(
    path,
    {
      schema: {
        operationId: 'getWhatIsLeft',
        params: questionParams,
        response: { 200: whatIsLeftSchema },
      },
    },
    async (request) => {
      const { em, params } = request;
      const question = await findQuestion(em, params.study, params.question);
      return whatIsLeft(em, makerOf(request, params.study), question);
    },
  );
  app.post(
    `${path}/closed`,
    {
      schema: {
        operationId: 'closeCodes',
        params: questionParams,
        body: closeCodesSchema,
        response: { 200: closedCodesSchema },
      },
    },
    async (request) => {
      const { em, params, body } = request;
      const question = await findQuestion(em, params.study, params.question);
      return { closed: await closeCodes(em, makerOf(request, params.study), question, body) };
    },
  );
  app.delete(
    `${path}/closed/:code`,
    {
      schema: {
        operationId: 'reopenCode',
        params: closingParams,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { em, params } = request;
      const question = await findQuestion(em, params.study, params.question);
      await reopenCode(em, makerOf(request, params.study), question.id, params.code);
      return done;
    },
  );
  app.post(
    `${path}/models`,
    {
      schema: {
        operationId: 'decideByModel',
        params: questionParams,
        body: decideByModelSchema,
        response: { 200: decidedByModelSchema },
      },
    },
    async (request) => {
      const { em, params, body } = request;
      const question = await findQuestion(em, params.study, params.question);
      return decideByModel(em, makerOf(request, params.study), question.id, body);
    },
  );
  app.delete(
    `${path}/models`,
    {
      schema: {
        operationId: 'withdrawFromModel',
        params: questionParams,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { em, params } = request;
      const question = await findQuestion(em, params.study, params.question);
      await withdrawFromModel(em, makerOf(request, params.study), question.id);
      return done;
    },
  );
  app.post(
    '/api/studies/:study/responses/:response/reading',
    {
      schema: {
        operationId: 'settleReading',
        params: responseParams,
        body: readAnswerSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { em, params, body } = request;
      await settleReading(em, makerOf(request, params.study), params.response, body);
      return done;
    },
  );
}
