import type { Progress } from '@yellow-thread/contract';
import { defineEntity, p } from '@mikro-orm/core';

export const JobEntity = defineEntity({
  name: 'Job',
  tableName: 'job',
  properties: {
    id: p.integer().primary().autoincrement(),
    studyId: p.integer(),
    questionId: p.integer().nullable(),
    kind: p.text(),
    payload: p.json<unknown>(),
    state: p.text().default('waiting'),
    progress: p.json<Progress>().nullable(),
    problem: p.json<unknown>().nullable(),
    createdBy: p.integer(),
    createdAt: p.datetime().defaultRaw('now()'),
    runner: p.uuid().nullable(),
    heartbeatAt: p.datetime().nullable(),
    attempts: p.integer().default(0),
    cancelAsked: p.boolean().default(false),
  },
});
