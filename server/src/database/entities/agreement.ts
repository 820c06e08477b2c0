import type { SecondReading, SecondReadingAnswer } from '@yellow-thread/contract';
import { defineEntity, p } from '@mikro-orm/core';

export const SecondReadingEntity = defineEntity({
  name: 'SecondReading',
  tableName: 'second_reading',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    questionId: p.integer(),
    readerId: p.integer(),
    firstCoders: p.json<SecondReading['firstCoders']>(),
    drawnFrom: p.integer(),
    drawnBy: p.integer(),
    drawnAt: p.datetime(),
    drawn: p.integer().nullable(),
  },
});

export const SecondReadingAnswerEntity = defineEntity({
  name: 'SecondReadingAnswer',
  tableName: 'second_reading_answer',
  properties: {
    readingId: p.uuid().primary(),
    responseId: p.integer().primary(),
    firstCodes: p.json<SecondReadingAnswer['firstCodes']>(),
    secondCodes: p.json<NonNullable<SecondReadingAnswer['secondCodes']>>().nullable(),
    verdicts: p.json<SecondReadingAnswer['verdicts']>().defaultRaw(`'{}'`),
  },
});
