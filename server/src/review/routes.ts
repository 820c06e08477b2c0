import {
  checkAnswersSchema,
  checkCreateSchema,
  checkListSchema,
  checkParams,
  decideSchema,
  doneSchema,
  judgeSchema,
  thresholdSchema,
  questionParams,
  reopenedSchema,
  reopenSchema,
  reviewListSchema,
  reviewParams,
  reviewSchema,
  decidedByThresholdSchema,
  decideByThresholdSchema,
  suggestionPageSchema,
  suggestionQuery,
  withinQuery,
} from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { App } from '../app.types.js';
import { makerOf } from '../people/index.js';
import { findQuestion } from '../study/index.js';
import { decideSuggestion, decideByThreshold, type ReviewTarget } from './decide.js';
import { describeReview, listReviews, moveThreshold, readSuggestions } from './review.js';
import { drawCheck, judge, listChecks, readCheck, reopenBulk } from './spotChecks.js';

export function reviewRoutes(app: App): void {
  const path = '/api/studies/:study/questions/:question/review';
  const done = { done: true as const };

  app.get(
    path,
    {
      schema: {
        operationId: 'listReviews',
        params: questionParams,
        querystring: withinQuery,
        response: { 200: reviewListSchema },
      },
    },
    async (request) => {
      const { em, params } = request;
      const question = await findQuestion(em, params.study, params.question);
      return listReviews(em, question.id, await request.within());
    },
  );
  app.get(
    `${path}/:code`,
    {
      schema: {
        operationId: 'getReview',
        params: reviewParams,
        querystring: withinQuery,
        response: { 200: reviewSchema },
      },
    },
    async (request) => {
      const { em, params } = request;
      const { study, code } = params;
      const { id } = await findQuestion(em, study, params.question);
      const place = { studyId: study, questionId: id, codeId: code };
      return describeReview(em, place, await request.within());
    },
  );
  app.get(
    `${path}/:code/suggestions`,
    {
      schema: {
        operationId: 'getSuggestions',
        params: reviewParams,
        querystring: suggestionQuery,
        response: { 200: suggestionPageSchema },
      },
    },
    async (request) => {
      const { em, params, query } = request;
      const question = await findQuestion(em, params.study, params.question);
      return readSuggestions(em, question.id, params.code, query, await request.within());
    },
  );
  app.put(
    `${path}/:code/threshold`,
    {
      schema: {
        operationId: 'moveThreshold',
        params: reviewParams,
        body: thresholdSchema,
        response: { 200: doneSchema },
      },
    },
    async ({ em, params, body }) => {
      const question = await findQuestion(em, params.study, params.question);
      await moveThreshold(em, question.id, params.code, body);
      return done;
    },
  );
  app.post(
    `${path}/:code/decide`,
    {
      schema: {
        operationId: 'decideSuggestion',
        params: reviewParams,
        body: decideSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { study, question, code } = request.params;
      await findQuestion(request.em, study, question);
      const place = { questionId: question, codeId: code };
      await decideSuggestion(request.em, makerOf(request, study), place, request.body);
      return done;
    },
  );
  app.post(
    `${path}/:code/settle`,
    {
      schema: {
        operationId: 'decideByThreshold',
        params: reviewParams,
        querystring: withinQuery,
        body: decideByThresholdSchema,
        response: { 200: decidedByThresholdSchema },
      },
    },
    async (request) => {
      const { study, question, code } = request.params;
      await findQuestion(request.em, study, question);
      const place = { questionId: question, codeId: code };
      const within = await request.within();
      const maker = makerOf(request, study);
      return { decided: await decideByThreshold(request.em, maker, place, request.body, within) };
    },
  );

  app.get(
    `${path}/:code/checks`,
    {
      schema: {
        operationId: 'listChecks',
        params: reviewParams,
        response: { 200: checkListSchema },
      },
    },
    async ({ em, params }) => listChecks(em, await placeOf(em, params)),
  );
  app.post(
    `${path}/:code/checks`,
    {
      schema: {
        operationId: 'drawCheck',
        params: reviewParams,
        body: checkCreateSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { em, params, body } = request;
      await drawCheck(em, makerOf(request, params.study), await placeOf(em, params), body);
      return done;
    },
  );
  app.get(
    `${path}/:code/checks/:check`,
    {
      schema: {
        operationId: 'readCheck',
        params: checkParams,
        response: { 200: checkAnswersSchema },
      },
    },
    async ({ em, params }) => readCheck(em, await placeOf(em, params), params.check),
  );
  app.post(
    `${path}/:code/checks/:check/verdicts`,
    {
      schema: {
        operationId: 'judge',
        params: checkParams,
        body: judgeSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { em, params, body } = request;
      const place = await placeOf(em, params);
      await judge(em, makerOf(request, params.study), place, params.check, body);
      return done;
    },
  );
  app.post(
    `${path}/:code/reopen`,
    {
      schema: {
        operationId: 'reopenBulk',
        params: reviewParams,
        body: reopenSchema,
        response: { 200: reopenedSchema },
      },
    },
    async (request) => {
      const { em, params, body } = request;
      const place = await placeOf(em, params);
      return { reopened: await reopenBulk(em, makerOf(request, params.study), place, body.side) };
    },
  );
}

async function placeOf(
  em: EntityManager,
  { study, question, code }: { study: number; question: number; code: string },
): Promise<ReviewTarget> {
  await findQuestion(em, study, question);
  return { questionId: question, codeId: code };
}
