import type { AsideMarks } from '@yellow-thread/contract';
import { defineEntity, p, type InferEntity } from '@mikro-orm/core';

export const StudyEntity = defineEntity({
  name: 'Study',
  tableName: 'study',
  properties: {
    id: p.integer().primary().autoincrement(),
    name: p.text(),
    purpose: p.text(),
    createdAt: p.datetime().defaultRaw('now()'),
    noAnswers: p.json<string[]>().defaultRaw(`'[]'`),
    asides: p.json<AsideMarks>().defaultRaw(`'{"leading": [], "brackets": []}'`),
    archivedAt: p.datetime().nullable(),
    /** Set while what is in it is being deleted; nobody can open it any more. */
    deletedAt: p.datetime().nullable(),
    /** Words that a first look leaves out. */
    setAside: p.json<string[]>().nullable(),
    /** Whether readers see contact details and names masked, and no respondent's id. */
    masksForReaders: p.boolean().default(false),
  },
});

export const QuestionEntity = defineEntity({
  name: 'Question',
  tableName: 'question',
  properties: {
    id: p.integer().primary().autoincrement(),
    studyId: p.integer(),
    position: p.integer(),
    label: p.text(),
    wording: p.text(),
    importId: p.integer().nullable(),
    variableId: p.integer().nullable(),
    answersDespite: p.json<string[]>().defaultRaw(`'[]'`),
    asked: p.integer().default(0),
    answered: p.integer().default(0),
  },
});

export type QuestionRow = InferEntity<typeof QuestionEntity>;

export const CopiedIdEntity = defineEntity({
  name: 'CopiedId',
  tableName: 'copied_id',
  properties: {
    studyId: p.integer().primary(),
    id: p.uuid().primary(),
    origin: p.uuid(),
  },
});
