import type { WriteUpContent } from '@yellow-thread/contract';
import { defineEntity, p } from '@mikro-orm/core';

export const WriteUpEntity = defineEntity({
  name: 'WriteUp',
  tableName: 'write_up',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    name: p.text(),
    version: p.integer().default(1),
    content: p.json<WriteUpContent>(),
    frozen: p.json<unknown>().nullable(),
    frozenAt: p.datetime().nullable(),
    copyOf: p.uuid().nullable(),
    savedBy: p.integer(),
    savedAt: p.datetime().defaultRaw('now()'),
    binnedAt: p.datetime().nullable(),
    binnedBy: p.integer().nullable(),
  },
});

export const PictureEntity = defineEntity({
  name: 'Picture',
  tableName: 'picture',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    png: p.blob().$type<Buffer>(),
    keptAt: p.datetime().defaultRaw('now()'),
  },
});

export const FrozenAnswersEntity = defineEntity({
  name: 'FrozenAnswers',
  tableName: 'frozen_answers',
  properties: {
    writeUpId: p.uuid().primary(),
    page: p.integer().primary(),
    rows: p.blob().$type<Buffer>(),
  },
});
