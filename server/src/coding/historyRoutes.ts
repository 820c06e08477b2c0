import { historyQuery, historySchema, studyParams, undoneSchema } from '@yellow-thread/contract';
import { redoChange, undoChange } from '../database/index.js';
import { makerOf } from '../people/index.js';
import type { App } from '../app.types.js';
import { readHistory } from './history.js';

export function historyRoutes(app: App): void {
  app.get(
    '/api/studies/:study/history',
    {
      schema: {
        operationId: 'getHistory',
        params: studyParams,
        querystring: historyQuery,
        response: { 200: historySchema },
      },
    },
    ({ em, params, query }) => readHistory(em, params.study, query),
  );
  app.post(
    '/api/studies/:study/undo',
    { schema: { operationId: 'undo', params: studyParams, response: { 200: undoneSchema } } },
    (request) => undoChange(request.em, makerOf(request, request.params.study)),
  );
  app.post(
    '/api/studies/:study/redo',
    { schema: { operationId: 'redo', params: studyParams, response: { 200: undoneSchema } } },
    (request) => redoChange(request.em, makerOf(request, request.params.study)),
  );
}
