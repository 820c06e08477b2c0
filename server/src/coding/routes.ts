import {
  doneSchema,
  ledgerPageSchema,
  ledgerQuery,
  mentionCreateSchema,
  mentionParams,
  questionParams,
  responseParams,
  settleSchema,
  studyParams,
  undoneSchema,
} from '@yellow-thread/contract';
import type { App } from '../routeScope.js';
import { redoChange, undoChange } from '../database/index.js';
import { makerOf, requireAccount } from '../people/index.js';
import { findQuestion } from '../study/index.js';
import { readLedger } from './ledger.js';
import { addMention, removeMention, settleResponse } from './mentions.js';

export function codingRoutes(app: App): void {
  const done = { done: true as const };

  app.get(
    '/api/studies/:study/questions/:question/ledger',
    {
      schema: {
        operationId: 'getLedger',
        params: questionParams,
        querystring: ledgerQuery,
        response: { 200: ledgerPageSchema },
      },
    },
    async ({ em, params, query }) => {
      const question = await findQuestion(em, params.study, params.question);
      return readLedger(em, question.id, query);
    },
  );
  app.post(
    '/api/studies/:study/mentions',
    {
      schema: {
        operationId: 'addMention',
        params: studyParams,
        body: mentionCreateSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      await addMention(request.em, makerOf(request, request.params.study), request.body);
      return done;
    },
  );
  app.delete(
    '/api/studies/:study/mentions/:mention',
    {
      schema: {
        operationId: 'removeMention',
        params: mentionParams,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { study, mention } = request.params;
      await removeMention(request.em, makerOf(request, study), mention);
      return done;
    },
  );
  app.put(
    '/api/studies/:study/responses/:response/settlement',
    {
      schema: {
        operationId: 'settleResponse',
        params: responseParams,
        body: settleSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { study, response } = request.params;
      await settleResponse(request.em, makerOf(request, study), response, request.body.settled);
      return done;
    },
  );
  app.post(
    '/api/studies/:study/undo',
    { schema: { operationId: 'undo', params: studyParams, response: { 200: undoneSchema } } },
    (request) => undoChange(request.em, request.params.study, requireAccount(request).id),
  );
  app.post(
    '/api/studies/:study/redo',
    { schema: { operationId: 'redo', params: studyParams, response: { 200: undoneSchema } } },
    (request) => redoChange(request.em, request.params.study, requireAccount(request).id),
  );
}
