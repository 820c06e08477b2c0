import {
  questionParams,
  sampleCreateSchema,
  sampleDrawnSchema,
  saturationSchema,
  tellingAnswersSchema,
  tellingQuery,
} from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { findQuestion } from '../study/index.js';
import { drawSample } from './drawSample.js';
import { readSaturation } from './saturation.js';
import { chooseTelling } from './telling.js';

export { distanceFromThreshold } from './telling.js';

export function samplingRoutes(app: App): void {
  app.post(
    '/api/studies/:study/questions/:question/samples',
    {
      schema: {
        operationId: 'drawSample',
        params: questionParams,
        body: sampleCreateSchema,
        response: { 200: sampleDrawnSchema },
      },
    },
    async ({ em, params, body }) => {
      const question = await findQuestion(em, params.study, params.question);
      return { drawn: await drawSample(em, params.study, question.id, body) };
    },
  );
  app.get(
    '/api/studies/:study/questions/:question/telling',
    {
      schema: {
        operationId: 'getTellingAnswers',
        params: questionParams,
        querystring: tellingQuery,
        response: { 200: tellingAnswersSchema },
      },
    },
    async ({ em, params, query }) => {
      const question = await findQuestion(em, params.study, params.question);
      const chosen = await chooseTelling(em, question.id, query.size);
      return {
        answers: chosen.map(({ id, text, codeId }) => ({
          responseId: id,
          text,
          nearLineOf: codeId,
        })),
      };
    },
  );
  app.get(
    '/api/studies/:study/questions/:question/saturation',
    {
      schema: {
        operationId: 'getSaturation',
        params: questionParams,
        response: { 200: saturationSchema },
      },
    },
    async ({ em, params }) => {
      const question = await findQuestion(em, params.study, params.question);
      return readSaturation(em, question.id);
    },
  );
}
