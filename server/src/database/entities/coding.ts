import { defineEntity, p } from '@mikro-orm/core';

export const ResponseEntity = defineEntity({
  name: 'Response',
  tableName: 'response',
  properties: {
    id: p.integer().primary().autoincrement(),
    questionId: p.integer(),
    respondentId: p.integer(),
    text: p.text(),
    noAnswer: p.boolean(),
    changedAt: p.datetime().nullable(),
    /** A hash that equal answers share. */
    same: p.bigint('string'),
  },
});

export const MentionEntity = defineEntity({
  name: 'Mention',
  tableName: 'mention',
  properties: {
    id: p.uuid().primary(),
    responseId: p.integer(),
    codeId: p.uuid(),
    coderId: p.integer(),
    /** Where the passage begins and ends in the answer; null for the whole answer. */
    start: p.integer().nullable(),
    end: p.integer().nullable(),
    origin: p.text(),
    createdAt: p.datetime(),
    typical: p.boolean().default(false),
  },
});

export const SettlementEntity = defineEntity({
  name: 'Settlement',
  tableName: 'settlement',
  properties: {
    responseId: p.integer().primary(),
    coderId: p.integer().primary(),
    settledAt: p.datetime(),
    assisted: p.boolean().default(false),
  },
});

export const LineCutEntity = defineEntity({
  name: 'LineCut',
  tableName: 'line_cut',
  properties: {
    responseId: p.integer().primary(),
    at: p.integer().primary(),
    joined: p.boolean(),
  },
});

export const NoteEntity = defineEntity({
  name: 'Note',
  tableName: 'note',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    responseId: p.integer().nullable(),
    start: p.integer().nullable(),
    end: p.integer().nullable(),
    respondentId: p.integer().nullable(),
    codeId: p.uuid().nullable(),
    text: p.text(),
    unsure: p.boolean(),
    authorId: p.integer(),
    createdAt: p.datetime(),
  },
});
