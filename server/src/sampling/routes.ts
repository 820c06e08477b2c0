import { api } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { findQuestion } from '../study/index.js';
import { drawSample } from './drawSample.js';
import { readSaturation } from './saturation.js';
import { chooseTelling } from './telling.js';
import { route } from '../route.js';

export function samplingRoutes(app: App): void {
  route(app, api.drawSample, async ({ em, params, body }) => {
    const question = await findQuestion(em, params.study, params.question);
    return { drawn: await drawSample(em, params.study, question.id, body) };
  });
  route(app, api.getTellingAnswers, async ({ em, params, query }) => {
    const question = await findQuestion(em, params.study, params.question);
    const chosen = await chooseTelling(em, question.id, query.size);
    return {
      answers: chosen.map(({ id, text, codeId }) => ({
        responseId: id,
        text,
        nearLineOf: codeId,
      })),
    };
  });
  route(app, api.getSaturation, async ({ em, params }) => {
    const question = await findQuestion(em, params.study, params.question);
    return readSaturation(em, question.id);
  });
}
