import { api } from '@yellow-thread/contract';
import { redoChange, undoChange } from '../database/index.js';
import { makerOf } from '../people/index.js';
import type { App } from '../app.types.js';
import { readHistory } from './history.js';
import { route } from '../route.js';

export function historyRoutes(app: App): void {
  route(app, api.getHistory, ({ em, params, query }) => readHistory(em, params.study, query));
  route(app, api.undo, (request) => undoChange(request.em, makerOf(request, request.params.study)));
  route(app, api.redo, (request) => redoChange(request.em, makerOf(request, request.params.study)));
}
