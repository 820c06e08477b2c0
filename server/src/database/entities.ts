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
    createdAt: p.datetime(),
  },
});

export const MembershipEntity = defineEntity({
  name: 'Membership',
  tableName: 'membership',
  properties: {
    studyId: p.integer().primary(),
    accountId: p.integer().primary(),
  },
});

/** A column of an uploaded sheet with what it seems to be for. */
export interface SheetColumn {
  name: string;
  role: string;
  reason: string;
}

export const SheetEntity = defineEntity({
  name: 'Sheet',
  tableName: 'sheet',
  properties: {
    id: id(),
    studyId: p.integer(),
    uploadedBy: p.integer(),
    fileName: p.string(),
    checksum: p.string(),
    rows: p.integer(),
    columns: p.json<SheetColumn[]>(),
    preview: p.json<string[][]>(),
    uploadedAt: p.datetime(),
  },
});

export const ImportEntity = defineEntity({
  name: 'Import',
  tableName: 'import',
  properties: {
    id: id(),
    studyId: p.integer(),
    fileName: p.string(),
    checksum: p.string(),
    roles: p.json<{ column: string; role: string }[]>(),
    findings: p.json<unknown[]>(),
    respondents: p.integer(),
    responses: p.integer(),
    importedBy: p.integer(),
    importedAt: p.datetime(),
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
  ImportEntity,
  VariableEntity,
  QuestionEntity,
  ThemeEntity,
  CodeEntity,
  TrainingRunEntity,
];

export type AccountRow = InferEntity<typeof AccountEntity>;
export type QuestionRow = InferEntity<typeof QuestionEntity>;
export type VariableRow = InferEntity<typeof VariableEntity>;
export type CodeRow = InferEntity<typeof CodeEntity>;
