import { api } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { FastifyRequest } from 'fastify';
import { RespondentEntity, ResponseEntity } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { makerOf, requireAccount, type Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import type { App } from '../app.types.js';
import { findQuestion } from '../study/index.js';
import { readAnswersFor, readRespondentAnswers, withoutModels } from './answers.js';
import { codeHits, readHits } from './hits.js';
import { readLedger } from './ledger.js';
import { editLine } from './lines.js';
import { addMention, editMention, removeMention, settleResponse } from './mentions.js';
import { readNearCodes } from './nearCodes.js';
import { findResponse } from './responses.js';
import { DONE, route } from '../route.js';

export function codingRoutes(app: App, threads: Threads): void {
  const done = async (
    request: FastifyRequest<{ Params: { study: number } }>,
    change: (em: EntityManager, maker: Maker) => Promise<unknown>,
  ) => {
    await change(request.em, makerOf(request, request.params.study));
    return DONE;
  };

  route(
    app,
    api.getLedger,
    async (request) => {
      const { em, params, query } = request;
      const question = await findQuestion(em, params.study, params.question);
      const { id: accountId } = requireAccount(request);
      const isCoder = request.role === 'coder';
      const reader = { studyId: params.study, questionId: question.id, accountId, isCoder };
      return readLedger(em, threads, reader, query);
    },
    { serializerCompiler: () => JSON.stringify },
  );
  route(app, api.getAnswers, async (request) => {
    const { em, params, query } = request;
    const question = await findQuestion(em, params.study, params.question);
    const known = await em.find(
      ResponseEntity,
      { id: { $in: [...query.ids] }, questionId: question.id },
      { fields: ['id'] },
    );
    const ids = new Set(known.map(({ id }) => id));
    const answers = await readAnswersFor(
      em,
      requireAccount(request).id,
      query.ids.filter((id) => ids.has(id)),
    );
    return { answers: request.role === 'coder' ? answers.map(withoutModels) : answers };
  });
  route(app, api.getHits, async (request) => {
    const { em, params, query } = request;
    const question = await findQuestion(em, params.study, params.question);
    const { id: accountId } = requireAccount(request);
    return readHits(em, {
      threads,
      studyId: params.study,
      questionId: question.id,
      query,
      accountId,
    });
  });
  route(
    app,
    api.codeHits,
    async (request) => {
      const { study, question } = request.params;
      const { id } = await findQuestion(request.em, study, question);
      return { mentions: await codeHits(request.em, makerOf(request, study), id, request.body) };
    },
    { bodyLimit: 4 * 1024 * 1024 },
  );
  route(app, api.getNearCodes, async ({ em, params }) =>
    readNearCodes(em, threads, params.study, await findResponse(em, params.study, params.response)),
  );
  route(app, api.getRespondentAnswers, async (request) => {
    const { em, params } = request;
    const known = await em.count(RespondentEntity, {
      id: params.respondent,
      studyId: params.study,
    });
    if (!known) throw problems.notFound('respondent');
    return readRespondentAnswers(em, requireAccount(request).id, params.respondent);
  });
  route(app, api.addMention, (request) =>
    done(request, (em, maker) => addMention(em, maker, request.body)),
  );
  route(app, api.editMention, (request) =>
    done(request, (em, maker) => editMention(em, maker, request.params.mention, request.body)),
  );
  route(app, api.removeMention, (request) =>
    done(request, (em, maker) =>
      removeMention(em, maker, request.params.mention, request.query.toSame),
    ),
  );
  route(app, api.settleResponse, (request) =>
    done(request, (em, maker) => settleResponse(em, maker, request.params.response, request.body)),
  );
  route(app, api.editLine, (request) =>
    done(request, (em, maker) => editLine(em, maker, request.params.response, request.body)),
  );
}
