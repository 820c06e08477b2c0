import { defineEndpoints } from '../endpoint.js';
import { doneSchema, questionParams, studyParams } from '../ids.js';
import { tellingAnswersSchema, tellingQuery } from '../learning/records.js';
import {
  assignmentCreateSchema,
  assignmentParams,
  assignmentsSchema,
  sampleCreateSchema,
  sampleDrawnSchema,
  saturationSchema,
} from './records.js';

export const samplingEndpoints = defineEndpoints({
  drawSample: {
    method: 'POST',
    path: '/api/studies/:study/questions/:question/samples',
    params: questionParams,
    body: sampleCreateSchema,
    reply: sampleDrawnSchema,
    problems: ['nothing_near', 'nothing_telling', 'nothing_to_draw', 'sample_after_suggestions'],
  },
  listAssignments: {
    method: 'GET',
    path: '/api/studies/:study/assignments',
    access: 'coding',
    params: studyParams,
    reply: assignmentsSchema,
    problems: [],
  },
  assignAnswers: {
    method: 'POST',
    path: '/api/studies/:study/questions/:question/assignments',
    params: questionParams,
    body: assignmentCreateSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile', 'nothing_to_assign'],
  },
  removeAssignment: {
    method: 'DELETE',
    path: '/api/studies/:study/assignments/:assignment',
    params: assignmentParams,
    reply: doneSchema,
    problems: ['changed_meanwhile'],
  },
  getTellingAnswers: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/telling',
    params: questionParams,
    query: tellingQuery,
    reply: tellingAnswersSchema,
    problems: [],
  },
  getSaturation: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/saturation',
    params: questionParams,
    reply: saturationSchema,
    problems: [],
  },
});
