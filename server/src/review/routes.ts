import {
  checkAnswersSchema,
  checkCreateSchema,
  checkListSchema,
  checkParams,
  decideSchema,
  doneSchema,
  judgeSchema,
  lineSchema,
  questionParams,
  reopenedSchema,
  reopenSchema,
  reviewListSchema,
  reviewParams,
  reviewSchema,
  settledLineSchema,
  settleLineSchema,
  suggestionPageSchema,
  suggestionQuery,
  withinQuery,
} from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { App } from '../routeScope.js';
import { makerOf } from '../people/index.js';
import { findQuestion } from '../study/index.js';
import { decideSuggestion, settleLine, type Place } from './decide.js';
import { describeReview, listReviews, placeLine, readSuggestions } from './review.js';
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
    `${path}/:code/line`,
    {
      schema: {
        operationId: 'placeLine',
        params: reviewParams,
        body: lineSchema,
        response: { 200: doneSchema },
      },
    },
    async ({ em, params, body }) => {
      const question = await findQuestion(em, params.study, params.question);
      await placeLine(em, question.id, params.code, body);
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
        operationId: 'settleLine',
        params: reviewParams,
        querystring: withinQuery,
        body: settleLineSchema,
        response: { 200: settledLineSchema },
      },
    },
    async (request) => {
      const { study, question, code } = request.params;
      await findQuestion(request.em, study, question);
      const place = { questionId: question, codeId: code };
      const within = await request.within();
      const maker = makerOf(request, study);
      return { decided: await settleLine(request.em, maker, place, request.body, within) };
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
): Promise<Place> {
  await findQuestion(em, study, question);
  return { questionId: question, codeId: code };
}
