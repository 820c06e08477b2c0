import { api, type Role } from '@yellow-thread/contract';
import { redoChange, undoChange } from '../database/index.js';
import { makerOf } from '../people/index.js';
import type { App } from '../app.types.js';
import { readHistory } from './history.js';
import { route } from '../route.js';

/** What coders change: what they did in another role they reverse no more. */
const CODING = ['code', 'theme', 'mention', 'settlement', 'note', 'line_cut'] as const;

const reversibleBy = (role: Role | null) =>
  role === 'coder' ? [...CODING, 'second_reading_answer' as const] : undefined;

export function historyRoutes(app: App): void {
  route(app, api.getHistory, ({ em, params, query }) => readHistory(em, params.study, query));
  route(app, api.undo, (request) =>
    undoChange(request.em, makerOf(request, request.params.study), reversibleBy(request.role)),
  );
  route(app, api.redo, (request) =>
    redoChange(request.em, makerOf(request, request.params.study), reversibleBy(request.role)),
  );
}
