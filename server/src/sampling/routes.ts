import { api } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { makerOf, requireAccount } from '../people/index.js';
import type { Threads } from '../jobs/index.js';
import { studyNearest } from '../sentences/index.js';
import { findQuestion } from '../study/index.js';
import { assignAnswers, listAssignments, removeAssignment } from './assignments.js';
import { drawSample } from './drawSample.js';
import { readSaturation } from './saturation.js';
import { chooseTelling } from './telling.js';
import { DONE, route } from '../route.js';

export function samplingRoutes(app: App, threads: Threads): void {
  route(app, api.drawSample, async ({ em, params, body }) => {
    const question = await findQuestion(em, params.study, params.question);
    const place = { studyId: params.study, questionId: question.id };
    return { drawn: await drawSample(em, threads, place, body) };
  });
  route(app, api.listAssignments, async (request) => {
    const { em, params, role } = request;
    const { id } = requireAccount(request);
    return { assignments: await listAssignments(em, params.study, role === 'coder' ? id : null) };
  });
  route(
    app,
    api.assignAnswers,
    async (request) => {
      const { em, params, body } = request;
      const question = await findQuestion(em, params.study, params.question);
      await assignAnswers(em, makerOf(request, params.study), question, body);
      return DONE;
    },
    { bodyLimit: 4 * 1024 * 1024 },
  );
  route(app, api.removeAssignment, async (request) => {
    const { em, params } = request;
    await removeAssignment(em, makerOf(request, params.study), params.assignment);
    return DONE;
  });
  route(app, api.getTellingAnswers, async ({ em, params, query }) => {
    const question = await findQuestion(em, params.study, params.question);
    const nearest = await studyNearest(em, threads, params.study);
    const chosen = await chooseTelling(em, threads, {
      studyId: params.study,
      questionId: question.id,
      nearest,
      size: query.size,
    });
    return {
      answers: chosen.map(({ id, text, codeId, nearestTo }) => ({
        responseId: id,
        text,
        nearLineOf: codeId,
        nearestTo,
      })),
    };
  });
  route(app, api.getSaturation, async ({ em, params }) => {
    const question = await findQuestion(em, params.study, params.question);
    return readSaturation(em, question.id);
  });
}
