import type { TrainingRun } from '@yellow-thread/contract';
import { defineEntity, p } from '@mikro-orm/core';

export const TrainingRunEntity = defineEntity({
  name: 'TrainingRun',
  tableName: 'training_run',
  properties: {
    id: p.integer().primary().autoincrement(),
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
    currentSince: p.datetime(),
    /** Two runs with the same one and the same seed are the same to the last bit. */
    fingerprint: p.text().default(''),
    excluded: p.json<TrainingRun['excluded']>().defaultRaw(`'[]'`),
    scope: p.text().default(''),
    /** Open answers that could get no suggestions; null for none. */
    outOfScope: p.array<number>().columnType('int[]').nullable(),
    confused: p.json<unknown[]>().defaultRaw(`'[]'`),
    seconds: p.float().default(0),
    /** Its suggestions, packed, so that it can be used again; kept of the last few runs. */
    outcome: p.blob().$type<Buffer>().nullable(),
    unseen: p.json<Record<string, { yes: number[]; no: number[] }>>().defaultRaw(`'{}'`),
    contradicted: p.json<unknown[]>().defaultRaw(`'[]'`),
    learntFromBulk: p.boolean().default(false),
    /** The sentence encoder whose vectors it learnt from; null for none. */
    encoder: p.text().nullable(),
    themes: p.json<unknown[]>().defaultRaw(`'[]'`),
  },
});

export const RunSampleEntity = defineEntity({
  name: 'RunSample',
  tableName: 'run_sample',
  properties: {
    runId: p.integer().primary().autoincrement(false),
    respondents: p.blob().$type<Buffer>(),
    sampled: p.blob().$type<Buffer>(),
  },
});

export const RunPredictionEntity = defineEntity({
  name: 'RunPrediction',
  tableName: 'run_prediction',
  properties: {
    runId: p.integer().primary(),
    codeId: p.uuid().primary(),
    mentioned: p.blob().$type<Buffer>(),
    predicted: p.blob().$type<Buffer>().nullable(),
  },
});

export const SuggestionEntity = defineEntity({
  name: 'Suggestion',
  tableName: 'suggestion',
  properties: {
    questionId: p.integer(),
    codeId: p.uuid().primary(),
    responseId: p.integer().primary(),
    runId: p.integer(),
    probability: p.float().columnType('double precision'),
    evidence: p.json<unknown>(),
    /** What its words together and the meaning of its line add to the log-odds; null for those of earlier versions. */
    fromWords: p.float().columnType('double precision').nullable(),
    fromMeaning: p.float().columnType('double precision').nullable(),
    /** The place of the line that it is for; null for the whole answer. */
    line: p.integer().columnType('smallint').nullable(),
    state: p.text().default('open'),
    decidedBy: p.integer().nullable(),
    decidedAt: p.datetime().nullable(),
    bulk: p.boolean().default(false),
  },
});

export const ExcludedWordEntity = defineEntity({
  name: 'ExcludedWord',
  tableName: 'excluded_word',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    codeId: p.uuid().nullable(),
    word: p.text(),
  },
});
