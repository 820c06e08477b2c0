import { defineEntity, p, type InferEntity } from '@mikro-orm/core';

export const ThemeEntity = defineEntity({
  name: 'Theme',
  tableName: 'theme',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    name: p.text(),
    ink: p.text(),
    stitch: p.text(),
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

export const BundleEntity = defineEntity({
  name: 'Bundle',
  tableName: 'bundle',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    name: p.text(),
    position: p.integer(),
  },
});

export const BundleCodeEntity = defineEntity({
  name: 'BundleCode',
  tableName: 'bundle_code',
  properties: {
    bundleId: p.uuid().primary(),
    codeId: p.uuid().primary(),
  },
});

export const PinEntity = defineEntity({
  name: 'Pin',
  tableName: 'pin',
  properties: {
    studyId: p.integer().primary(),
    accountId: p.integer().primary(),
    key: p.integer().primary(),
    codeId: p.uuid(),
  },
});

export type ThemeRow = InferEntity<typeof ThemeEntity>;
export type CodeRow = InferEntity<typeof CodeEntity>;
