import {
  agreementSchema,
  secondCodingSchema,
  doneSchema,
  questionParams,
  readingAnswersSchema,
  readingCreateSchema,
  readingListSchema,
  readingParams,
  disagreementResolutionSchema,
} from '@yellow-thread/contract';
import { makerOf } from '../people/index.js';
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

export function agreementRoutes(app: App): void {
  const path = '/api/studies/:study/questions/:question/readings';
  const done = { done: true as const };
  const replies = { 200: doneSchema };

  app.get(
    path,
    {
      schema: {
        operationId: 'listReadings',
        params: questionParams,
        response: { 200: readingListSchema },
      },
    },
    async ({ em, params }) => {
      const question = await findQuestion(em, params.study, params.question);
      return listReadings(em, question.id);
    },
  );
  app.post(
    path,
    {
      schema: {
        operationId: 'drawReading',
        params: questionParams,
        body: readingCreateSchema,
        response: replies,
      },
    },
    async (request) => {
      const { em, params, body } = request;
      const question = await findQuestion(em, params.study, params.question);
      await drawReading(em, makerOf(request, params.study), question.id, body);
      return done;
    },
  );
  app.get(
    `${path}/:reading/answers`,
    {
      schema: {
        operationId: 'getReadingAnswers',
        params: readingParams,
        response: { 200: readingAnswersSchema },
      },
    },
    async (request) => {
      const { em, params } = request;
      const question = await findQuestion(em, params.study, params.question);
      return readReading(em, makerOf(request, params.study), question.id, params.reading);
    },
  );
  app.put(
    `${path}/:reading/answers`,
    {
      schema: {
        operationId: 'codeOnceMore',
        params: readingParams,
        body: secondCodingSchema,
        response: replies,
      },
    },
    async (request) => {
      const { em, params, body } = request;
      const question = await findQuestion(em, params.study, params.question);
      await codeSecondReading(
        em,
        makerOf(request, params.study),
        question.id,
        params.reading,
        body,
      );
      return done;
    },
  );
  app.post(
    `${path}/:reading/end`,
    { schema: { operationId: 'endReading', params: readingParams, response: replies } },
    async (request) => {
      const { em, params } = request;
      const question = await findQuestion(em, params.study, params.question);
      await endReading(em, makerOf(request, params.study), question.id, params.reading);
      return done;
    },
  );
  app.delete(
    `${path}/:reading`,
    { schema: { operationId: 'removeReading', params: readingParams, response: replies } },
    async (request) => {
      const { em, params } = request;
      const question = await findQuestion(em, params.study, params.question);
      await removeReading(em, makerOf(request, params.study), question.id, params.reading);
      return done;
    },
  );
  app.get(
    `${path}/:reading/agreement`,
    {
      schema: {
        operationId: 'getAgreement',
        params: readingParams,
        response: { 200: agreementSchema },
      },
    },
    async ({ em, params }) => {
      const question = await findQuestion(em, params.study, params.question);
      return readAgreement(em, params.study, question.id, params.reading);
    },
  );
  app.put(
    `${path}/:reading/agreement`,
    {
      schema: {
        operationId: 'settleDisagreement',
        params: readingParams,
        body: disagreementResolutionSchema,
        response: replies,
      },
    },
    async (request) => {
      const { em, params, body } = request;
      const question = await findQuestion(em, params.study, params.question);
      await settleDisagreement(
        em,
        makerOf(request, params.study),
        question.id,
        params.reading,
        body,
      );
      return done;
    },
  );
}
