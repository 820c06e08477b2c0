import { api, type Role } from '@yellow-thread/contract';
import { redoChange, undoChange, type ChangeDiff } from '../database/index.js';
import { makerOf } from '../people/index.js';
import type { App } from '../app.types.js';
import { readHistory } from './history.js';
import { route } from '../route.js';

/** What coders change: what they did in another role they reverse no more. */
const CODING = new Set(['mention', 'settlement', 'note', 'line_cut', 'second_reading_answer']);
/** Of the codebook they only add to it. */
const ADDED = new Set(['code', 'theme']);

const isCoding = (diff: ChangeDiff): boolean =>
  Object.entries(diff).every(
    ([table, { updated, removed }]) =>
      CODING.has(table) || (ADDED.has(table) && updated.length + removed.length === 0),
  );

const reversibleBy = (role: Role | null) => (role === 'coder' ? isCoding : undefined);

export function historyRoutes(app: App): void {
  route(app, api.getHistory, ({ em, params, query }) => readHistory(em, params.study, query));
  route(app, api.undo, (request) =>
    undoChange(request.em, makerOf(request, request.params.study), reversibleBy(request.role)),
  );
  route(app, api.redo, (request) =>
    redoChange(request.em, makerOf(request, request.params.study), reversibleBy(request.role)),
  );
}
