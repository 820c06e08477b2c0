import type { ModelDecision } from '@yellow-thread/contract';
import { defineEntity, p } from '@mikro-orm/core';

export const ReviewThresholdEntity = defineEntity({
  name: 'ReviewThreshold',
  tableName: 'review_threshold',
  properties: {
    questionId: p.integer().primary(),
    codeId: p.uuid().primary(),
    threshold: p.float().columnType('double precision'),
  },
});

export const SpotCheckEntity = defineEntity({
  name: 'SpotCheck',
  tableName: 'spot_check',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    questionId: p.integer(),
    codeId: p.uuid(),
    side: p.text(),
    drawnFrom: p.integer(),
    expected: p.float().columnType('double precision'),
    drawnBy: p.integer(),
    drawnAt: p.datetime(),
  },
});

export const SpotCheckAnswerEntity = defineEntity({
  name: 'SpotCheckAnswer',
  tableName: 'spot_check_answer',
  properties: {
    checkId: p.uuid().primary(),
    responseId: p.integer().primary(),
    verdict: p.text().nullable(),
  },
});

export const CodeClosingEntity = defineEntity({
  name: 'CodeClosing',
  tableName: 'code_closing',
  properties: {
    studyId: p.integer(),
    questionId: p.integer().primary(),
    codeId: p.uuid().primary(),
    how: p.text(),
    expected: p.float().columnType('double precision'),
    lastResponseId: p.integer(),
    closedBy: p.integer(),
    closedAt: p.datetime(),
  },
});

export const ModelDecisionEntity = defineEntity({
  name: 'ModelDecision',
  tableName: 'model_decision',
  properties: {
    studyId: p.integer(),
    questionId: p.integer().primary().autoincrement(false),
    runId: p.integer(),
    relied: p.json<ModelDecision['relied']>(),
    lastResponseId: p.integer(),
    sampleId: p.integer().nullable(),
    decidedBy: p.integer(),
    decidedAt: p.datetime(),
  },
});
