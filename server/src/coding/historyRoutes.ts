import { historyQuery, historySchema, studyParams, undoneSchema } from '@yellow-thread/contract';
import { z } from 'zod';
import { redoChange, undoChange } from '../database/index.js';
import { makerOf, requireStudy } from '../people/index.js';
import type { App } from '../routeScope.js';
import type { StudyEvents } from './events.js';
import { readHistory } from './history.js';

const HEARTBEAT_MS = 20_000;

export function historyRoutes(app: App, events: StudyEvents): void {
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
  app.get(
    '/api/studies/:study/events',
    {
      schema: {
        operationId: 'followStudy',
        params: studyParams,
        produces: ['text/event-stream'],
        response: { 200: z.string() },
      },
    },
    async (request, reply) => {
      reply.hijack();
      const { raw } = reply;
      raw.writeHead(200, {
        'content-type': 'text/event-stream',
        'cache-control': 'no-store',
        'x-accel-buffering': 'no',
      });
      const stopListening = await events.listen(request.params.study, (event) =>
        raw.write(`data: ${JSON.stringify(event)}\n\n`),
      );
      raw.write(': here\n\n');
      const beat = setInterval(() => {
        // whoever was signed out, or is no longer of the study, hears nothing more
        request.em.clear();
        requireStudy(request).then(
          () => raw.write(': still here\n\n'),
          () => raw.end(),
        );
      }, HEARTBEAT_MS);
      raw.on('close', () => {
        clearInterval(beat);
        stopListening();
      });
    },
  );
}
