import type { AsideMarks, Derived, FileSettings, SheetSettings } from '@yellow-thread/contract';
import { defineEntity, p, type InferEntity } from '@mikro-orm/core';

// Foreign keys, checks and indexes stand in the migrations (see docs/decisions): entities map columns.

const id = () => p.integer().primary().autoincrement();

export const AccountEntity = defineEntity({
  name: 'Account',
  tableName: 'account',
  properties: {
    id: id(),
    name: p.string(),
    /** Null for an account that is entered without a password. */
    passwordHash: p.text().nullable(),
    choosesPassword: p.boolean(),
  },
});

export const StudyEntity = defineEntity({
  name: 'Study',
  tableName: 'study',
  properties: {
    id: id(),
    name: p.string(),
    purpose: p.text(),
    noAnswers: p.json<string[]>(),
    asides: p.json<AsideMarks>(),
    /** Words that a first look leaves out. */
    setAside: p.json<string[]>().nullable(),
    createdAt: p.datetime(),
    archivedAt: p.datetime().nullable(),
    /** Set while what is in it is being deleted; nobody can open it any more. */
    deletedAt: p.datetime().nullable(),
  },
});

export const MembershipEntity = defineEntity({
  name: 'Membership',
  tableName: 'membership',
  properties: {
    studyId: p.integer().primary(),
    accountId: p.integer().primary(),
    openedAt: p.datetime().nullable(),
    /** Where the person stopped: the address within the study. */
    place: p.text().nullable(),
    hidesNextSteps: p.boolean(),
  },
});

/** What is known of an uploaded sheet after it was read through. */
export interface SheetReading {
  file: FileSettings;
  rows: number;
  columns: { head: string; code: string; reason: string }[];
  preview: string[][];
  /** Size of the rows where they were written out as text; null where the file itself is read. */
  rowsSize: number | null;
}

export const SheetEntity = defineEntity({
  name: 'Sheet',
  tableName: 'sheet',
  properties: {
    id: id(),
    studyId: p.integer(),
    uploadedBy: p.integer(),
    uploadedAt: p.datetime(),
    fileName: p.text(),
    size: p.bigint('number'),
    /** Null until the upload is complete. */
    checksum: p.text().nullable(),
    /** What was found by reading it through. */
    reading: p.json<SheetReading>().nullable(),
    settings: p.json<SheetSettings>().nullable(),
  },
});

export const VariableEntity = defineEntity({
  name: 'Variable',
  tableName: 'variable',
  properties: {
    id: id(),
    studyId: p.integer(),
    position: p.integer(),
    name: p.text(),
    kind: p.enum(['category', 'number', 'date', 'yes_no'] as const),
    distinctValues: p.integer().default(0),
    importId: p.integer().nullable(),
    /** Set for a variable that is worked out. */
    derived: p.json<Derived>().nullable(),
  },
});

export const QuestionEntity = defineEntity({
  name: 'Question',
  tableName: 'question',
  properties: {
    id: id(),
    studyId: p.integer(),
    position: p.integer(),
    label: p.text(),
    wording: p.text(),
    importId: p.integer().nullable(),
    variableId: p.integer().nullable(),
    answersDespite: p.json<string[]>(),
  },
});

export const ThemeEntity = defineEntity({
  name: 'Theme',
  tableName: 'theme',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    name: p.text(),
    ink: p.string(),
    stitch: p.string(),
    position: p.integer(),
  },
});

export const CodeEntity = defineEntity({
  name: 'Code',
  tableName: 'code',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    themeId: p.uuid().nullable(),
    name: p.text(),
    definition: p.text(),
    include: p.text(),
    exclude: p.text(),
    position: p.integer(),
    archived: p.boolean().default(false),
    questions: p.json<number[]>().nullable(),
  },
});

export const TrainingRunEntity = defineEntity({
  name: 'TrainingRun',
  tableName: 'training_run',
  properties: {
    id: id(),
    studyId: p.integer(),
    questionId: p.integer(),
    seed: p.integer(),
    settled: p.integer(),
    answers: p.integer(),
    /** The newest response that the run knew of. */
    lastResponseId: p.integer(),
    trainedBy: p.integer(),
    finishedAt: p.datetime(),
    codes: p.json<unknown[]>(),
  },
});

export const entities = [
  AccountEntity,
  StudyEntity,
  MembershipEntity,
  SheetEntity,
  VariableEntity,
  QuestionEntity,
  ThemeEntity,
  CodeEntity,
  TrainingRunEntity,
];

export type AccountRow = InferEntity<typeof AccountEntity>;
export type QuestionRow = InferEntity<typeof QuestionEntity>;
export type VariableRow = InferEntity<typeof VariableEntity>;
export type ThemeRow = InferEntity<typeof ThemeEntity>;
export type CodeRow = InferEntity<typeof CodeEntity>;
