import {
  decideSchema,
  doneSchema,
  lineSchema,
  questionParams,
  reviewListSchema,
  reviewParams,
  reviewSchema,
  settledLineSchema,
  settleLineSchema,
  suggestionPageSchema,
  suggestionQuery,
} from '@yellow-thread/contract';
import type { App } from '../routeScope.js';
import { makerOf } from '../people/index.js';
import { findQuestion } from '../study/index.js';
import { decideSuggestion, settleLine } from './decide.js';
import { describeReview, listReviews, placeLine, readSuggestions } from './review.js';

export function reviewRoutes(app: App): void {
  const path = '/api/studies/:study/questions/:question/review';
  const done = { done: true as const };

  app.get(
    path,
    {
      schema: {
        operationId: 'listReviews',
        params: questionParams,
        response: { 200: reviewListSchema },
      },
    },
    async ({ em, params }) => {
      const question = await findQuestion(em, params.study, params.question);
      return listReviews(em, question.id);
    },
  );
  app.get(
    `${path}/:code`,
    {
      schema: { operationId: 'getReview', params: reviewParams, response: { 200: reviewSchema } },
    },
    async ({ em, params }) => {
      const question = await findQuestion(em, params.study, params.question);
      return describeReview(em, question.id, params.code);
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
    async ({ em, params, query }) => {
      const question = await findQuestion(em, params.study, params.question);
      return readSuggestions(em, question.id, params.code, query);
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
        body: settleLineSchema,
        response: { 200: settledLineSchema },
      },
    },
    async (request) => {
      const { study, question, code } = request.params;
      await findQuestion(request.em, study, question);
      const place = { questionId: question, codeId: code };
      return {
        decided: await settleLine(request.em, makerOf(request, study), place, request.body),
      };
    },
  );
}
