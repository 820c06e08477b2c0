import { defineEntity, p } from '@mikro-orm/core';

export const ToneCheckEntity = defineEntity({
  name: 'ToneCheck',
  tableName: 'tone_check',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    responseId: p.integer(),
    start: p.integer(),
    end: p.integer(),
    tone: p.text(),
    atRandom: p.boolean(),
    checkedBy: p.integer(),
  },
});

export const ToneSampleEntity = defineEntity({
  name: 'ToneSample',
  tableName: 'tone_sample',
  properties: {
    questionId: p.integer().primary(),
    responseId: p.integer().primary(),
  },
});

export const ToneRunEntity = defineEntity({
  name: 'ToneRun',
  tableName: 'tone_run',
  properties: {
    id: p.integer().primary().autoincrement(),
    studyId: p.integer(),
    finishedAt: p.datetime(),
    trainedBy: p.integer(),
    /** Checked lines that it learnt from. */
    checked: p.integer(),
    /** What was measured of each of the two; null for one with too few examples. */
    positive: p.json<unknown>().nullable(),
    negative: p.json<unknown>().nullable(),
  },
});

export const TonePredictionEntity = defineEntity({
  name: 'TonePrediction',
  tableName: 'tone_prediction',
  properties: {
    runId: p.integer().primary(),
    questionId: p.integer().primary(),
    /** By line: the answer, and where it begins. */
    responseIds: p.blob().$type<Buffer>(),
    starts: p.blob().$type<Buffer>(),
    /** By line, how likely each tone is; by models that did not see it in the second two, null where none are. */
    positive: p.blob().$type<Buffer>().nullable(),
    negative: p.blob().$type<Buffer>().nullable(),
    unseenPositive: p.blob().$type<Buffer>().nullable(),
    unseenNegative: p.blob().$type<Buffer>().nullable(),
  },
});
