import { api } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { App } from '../app.types.js';
import { makerOf, requireAccount } from '../people/index.js';
import { findQuestion } from '../study/index.js';
import { decideSuggestion, decideByThreshold, type ReviewTarget } from './decide.js';
import { readNearestCoded } from './nearestCoded.js';
import { describeReview, listReviews, moveThreshold, readSuggestions } from './review.js';
import { drawCheck, judge, listChecks, readCheck, reopenBulk } from './spotChecks.js';
import { DONE, route } from '../route.js';

export function reviewRoutes(app: App): void {
  route(app, api.listReviews, async (request) => {
    const { em, params } = request;
    const question = await findQuestion(em, params.study, params.question);
    return listReviews(em, question.id, await request.within());
  });
  route(app, api.getReview, async (request) => {
    const { em, params } = request;
    const { study, code } = params;
    const { id } = await findQuestion(em, study, params.question);
    const place = { studyId: study, questionId: id, codeId: code };
    return describeReview(em, place, await request.within());
  });
  route(app, api.getSuggestions, async (request) => {
    const { em, params, query } = request;
    const question = await findQuestion(em, params.study, params.question);
    return readSuggestions(em, {
      questionId: question.id,
      codeId: params.code,
      page: query,
      within: await request.within(),
    });
  });
  route(app, api.getNearestCoded, async (request) => {
    const { em, params } = request;
    const { study, question, code, response } = params;
    await findQuestion(em, study, question);
    const target = { studyId: study, questionId: question, codeId: code };
    return readNearestCoded(em, requireAccount(request).id, target, response);
  });
  route(app, api.moveThreshold, async ({ em, params, body }) => {
    const question = await findQuestion(em, params.study, params.question);
    await moveThreshold(em, question.id, params.code, body);
    return DONE;
  });
  route(app, api.decideSuggestion, async (request) => {
    const { study, question, code } = request.params;
    await findQuestion(request.em, study, question);
    const place = { questionId: question, codeId: code };
    await decideSuggestion(request.em, makerOf(request, study), place, request.body);
    return DONE;
  });
  route(app, api.decideByThreshold, async (request) => {
    const { study, question, code } = request.params;
    await findQuestion(request.em, study, question);
    const place = { questionId: question, codeId: code };
    const within = await request.within();
    const maker = makerOf(request, study);
    return {
      decided: await decideByThreshold(request.em, {
        maker,
        target: place,
        decision: request.body,
        within,
      }),
    };
  });

  route(app, api.listChecks, async ({ em, params }) => listChecks(em, await placeOf(em, params)));
  route(app, api.drawCheck, async (request) => {
    const { em, params, body } = request;
    await drawCheck(em, makerOf(request, params.study), await placeOf(em, params), body);
    return DONE;
  });
  route(app, api.readCheck, async ({ em, params }) =>
    readCheck(em, await placeOf(em, params), params.check),
  );
  route(app, api.judgeCheck, async (request) => {
    const { em, params, body } = request;
    const place = await placeOf(em, params);
    await judge(em, {
      maker: makerOf(request, params.study),
      target: place,
      checkId: params.check,
      verdict: body,
    });
    return DONE;
  });
  route(app, api.reopenBulk, async (request) => {
    const { em, params, body } = request;
    const place = await placeOf(em, params);
    return { reopened: await reopenBulk(em, makerOf(request, params.study), place, body.side) };
  });
}

async function placeOf(
  em: EntityManager,
  { study, question, code }: { study: number; question: number; code: string },
): Promise<ReviewTarget> {
  await findQuestion(em, study, question);
  return { questionId: question, codeId: code };
}
