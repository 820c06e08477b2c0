import { defineEntity, p } from '@mikro-orm/core';

export const ChangeEntity = defineEntity({
  name: 'Change',
  tableName: 'change',
  properties: {
    id: p.integer().primary().autoincrement(),
    studyId: p.integer(),
    accountId: p.integer(),
    summary: p.text(),
    /** What it takes to reverse the change, by table. */
    diff: p.json<unknown>().columnType('json'),
    madeAt: p.datetime().defaultRaw('now()'),
    undoneAt: p.datetime().nullable(),
    abandoned: p.boolean().default(false),
    /** Whether it is reversed by undoing it from the history. */
    undoable: p.boolean().default(true),
    codes: p.array<string>().columnType('uuid[]').defaultRaw(`'{}'`),
    /** How many records of each table it changed. */
    touched: p.json<Record<string, number>>(),
  },
});
