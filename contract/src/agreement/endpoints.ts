import { defineEndpoints } from '../endpoint.js';
import {
  agreementQuery,
  agreementSchema,
  disagreementResolutionSchema,
  readingAnswersSchema,
  readingCreateSchema,
  readingListSchema,
  readingParams,
  secondCodingSchema,
} from './records.js';
import { doneSchema, questionParams } from '../ids.js';

export const agreementEndpoints = defineEndpoints({
  listReadings: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/readings',
    access: 'coding',
    params: questionParams,
    reply: readingListSchema,
    problems: [],
  },
  drawReading: {
    method: 'POST',
    path: '/api/studies/:study/questions/:question/readings',
    params: questionParams,
    body: readingCreateSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile', 'nothing_to_read_again'],
  },
  getReadingAnswers: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/readings/:reading/answers',
    access: 'coding',
    params: readingParams,
    reply: readingAnswersSchema,
    problems: ['not_your_reading'],
  },
  codeSecondReading: {
    method: 'PUT',
    path: '/api/studies/:study/questions/:question/readings/:reading/answers',
    access: 'coding',
    params: readingParams,
    body: secondCodingSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile', 'not_your_reading', 'reading_done'],
  },
  endReading: {
    method: 'POST',
    path: '/api/studies/:study/questions/:question/readings/:reading/end',
    params: readingParams,
    reply: doneSchema,
    problems: ['changed_meanwhile'],
  },
  removeReading: {
    method: 'DELETE',
    path: '/api/studies/:study/questions/:question/readings/:reading',
    params: readingParams,
    reply: doneSchema,
    problems: ['changed_meanwhile'],
  },
  getAgreement: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/readings/:reading/agreement',
    params: readingParams,
    query: agreementQuery,
    reply: agreementSchema,
    problems: ['reading_under_way'],
  },
  settleDisagreement: {
    method: 'PUT',
    path: '/api/studies/:study/questions/:question/readings/:reading/agreement',
    params: readingParams,
    body: disagreementResolutionSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile', 'reading_under_way'],
  },
});
