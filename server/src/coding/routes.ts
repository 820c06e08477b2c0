import {
  answersQuery,
  answersSchema,
  codedHitsSchema,
  codeHitsSchema,
  doneSchema,
  flagSchema,
  hitsSchema,
  ledgerQuery,
  ledgerSchema,
  lineEditSchema,
  mentionCreateSchema,
  mentionEditSchema,
  mentionParams,
  noteCreateSchema,
  noteEditSchema,
  noteParams,
  notesSchema,
  nearCodesSchema,
  otherAnswersSchema,
  questionParams,
  respondentParams,
  responseParams,
  settleSchema,
  studyParams,
} from '@yellow-thread/contract';
import { z } from 'zod';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { FastifyRequest } from 'fastify';
import { rows } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { makerOf, requireAccount, type Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import type { App } from '../app.types.js';
import { findQuestion } from '../study/index.js';
import { readAnswersFor, readRespondentAnswers } from './answers.js';
import { codeHits, readHits } from './hits.js';
import { readLedger } from './ledger.js';
import { editLine } from './lines.js';
import { addMention, editMention, removeMention, settleResponse } from './mentions.js';
import { readNearCodes } from './nearCodes.js';
import { addNote, editNote, readNotes, removeNote } from './notes.js';
import { findResponse } from './responses.js';

export function codingRoutes(app: App, threads: Threads): void {
  const response = { 200: doneSchema };
  const done = async (
    request: FastifyRequest<{ Params: { study: number } }>,
    change: (em: EntityManager, maker: Maker) => Promise<unknown>,
  ) => {
    await change(request.em, makerOf(request, request.params.study));
    return { done: true as const };
  };

  app.get(
    '/api/studies/:study/questions/:question/ledger',
    {
      schema: {
        operationId: 'getLedger',
        params: questionParams,
        querystring: ledgerQuery,
        response: { 200: ledgerSchema },
      },
      // 100,000 numbers made here: checking each against the contract would take twice as long as finding them
      serializerCompiler: () => JSON.stringify,
    },
    async (request) => {
      const { em, params, query } = request;
      const question = await findQuestion(em, params.study, params.question);
      const { id: accountId } = requireAccount(request);
      const reader = { studyId: params.study, questionId: question.id, accountId };
      return readLedger(em, threads, reader, query);
    },
  );
  app.get(
    '/api/studies/:study/questions/:question/answers',
    {
      schema: {
        operationId: 'getAnswers',
        params: questionParams,
        querystring: answersQuery,
        response: { 200: answersSchema },
      },
    },
    async (request) => {
      const { em, params, query } = request;
      const question = await findQuestion(em, params.study, params.question);
      const known = await rows<{ id: number }>(
        em,
        'select id from response where id = any(?::int[]) and question_id = ?',
        [query.ids, question.id],
      );
      const ids = new Set(known.map(({ id }) => id));
      return {
        answers: await readAnswersFor(
          em,
          requireAccount(request).id,
          query.ids.filter((id) => ids.has(id)),
        ),
      };
    },
  );
  app.get(
    '/api/studies/:study/questions/:question/hits',
    {
      schema: {
        operationId: 'getHits',
        params: questionParams,
        querystring: ledgerQuery,
        response: { 200: hitsSchema },
      },
    },
    async (request) => {
      const { em, params, query } = request;
      const question = await findQuestion(em, params.study, params.question);
      const { id: accountId } = requireAccount(request);
      return readHits(em, threads, params.study, question.id, query, accountId);
    },
  );
  app.post(
    '/api/studies/:study/questions/:question/hits',
    {
      schema: {
        operationId: 'codeHits',
        params: questionParams,
        body: codeHitsSchema,
        response: { 200: codedHitsSchema },
      },
      bodyLimit: 4 * 1024 * 1024,
    },
    async (request) => {
      const { study, question } = request.params;
      const { id } = await findQuestion(request.em, study, question);
      return { mentions: await codeHits(request.em, makerOf(request, study), id, request.body) };
    },
  );
  app.get(
    '/api/studies/:study/responses/:response/near',
    {
      schema: {
        operationId: 'getNearCodes',
        params: responseParams,
        response: { 200: nearCodesSchema },
      },
    },
    async ({ em, params }) =>
      readNearCodes(em, params.study, await findResponse(em, params.study, params.response)),
  );
  app.get(
    '/api/studies/:study/respondents/:respondent/answers',
    {
      schema: {
        operationId: 'getRespondentAnswers',
        params: respondentParams,
        response: { 200: otherAnswersSchema },
      },
    },
    async (request) => {
      const { em, params } = request;
      const [known] = await rows(em, 'select 1 from respondent where id = ? and study_id = ?', [
        params.respondent,
        params.study,
      ]);
      if (!known) throw problems.notFound('respondent');
      return readRespondentAnswers(em, requireAccount(request).id, params.respondent);
    },
  );
  app.post(
    '/api/studies/:study/mentions',
    {
      schema: {
        operationId: 'addMention',
        params: studyParams,
        body: mentionCreateSchema,
        response,
      },
    },
    (request) => done(request, (em, maker) => addMention(em, maker, request.body)),
  );
  app.patch(
    '/api/studies/:study/mentions/:mention',
    {
      schema: {
        operationId: 'editMention',
        params: mentionParams,
        body: mentionEditSchema,
        response,
      },
    },
    (request) =>
      done(request, (em, maker) => editMention(em, maker, request.params.mention, request.body)),
  );
  app.delete(
    '/api/studies/:study/mentions/:mention',
    {
      schema: {
        operationId: 'removeMention',
        params: mentionParams,
        querystring: z.object({ toSame: flagSchema.default(false) }),
        response,
      },
    },
    (request) =>
      done(request, (em, maker) =>
        removeMention(em, maker, request.params.mention, request.query.toSame),
      ),
  );
  app.put(
    '/api/studies/:study/responses/:response/settlement',
    {
      schema: {
        operationId: 'settleResponse',
        params: responseParams,
        body: settleSchema,
        response,
      },
    },
    (request) =>
      done(request, (em, maker) =>
        settleResponse(em, maker, request.params.response, request.body),
      ),
  );
  app.put(
    '/api/studies/:study/responses/:response/lines',
    { schema: { operationId: 'editLine', params: responseParams, body: lineEditSchema, response } },
    (request) =>
      done(request, (em, maker) => editLine(em, maker, request.params.response, request.body)),
  );
  app.get(
    '/api/studies/:study/notes',
    { schema: { operationId: 'listNotes', params: studyParams, response: { 200: notesSchema } } },
    ({ em, params }) => readNotes(em, params.study),
  );
  app.post(
    '/api/studies/:study/notes',
    { schema: { operationId: 'addNote', params: studyParams, body: noteCreateSchema, response } },
    (request) => done(request, (em, maker) => addNote(em, maker, request.body)),
  );
  app.patch(
    '/api/studies/:study/notes/:note',
    { schema: { operationId: 'editNote', params: noteParams, body: noteEditSchema, response } },
    (request) =>
      done(request, (em, maker) => editNote(em, maker, request.params.note, request.body)),
  );
  app.delete(
    '/api/studies/:study/notes/:note',
    { schema: { operationId: 'removeNote', params: noteParams, response } },
    (request) => done(request, (em, maker) => removeNote(em, maker, request.params.note)),
  );
}
