import {
  bandsSchema,
  byRuleCreateSchema,
  categoriesSchema,
  doneSchema,
  idSchema,
  noAnswerListSchema,
  noAnswerResultSchema,
  questionChangeSchema,
  questionOrderSchema,
  questionParams,
  respondentChangeSchema,
  respondentIdsSchema,
  respondentParams,
  respondentQuery,
  respondentRowsQuery,
  respondentRowsSchema,
  studyChangeSchema,
  studyParams,
  variableChangeSchema,
  variableDetailSchema,
  variableParams,
} from '@yellow-thread/contract';
import { z } from 'zod';
import { makerOf } from '../people/index.js';
import type { App } from '../app.types.js';
import { changeBackground, listRespondents, readRespondents } from './respondents.js';
import { changeNoAnswers, changeQuestion, changeStudy, orderQuestions } from './studyChanges.js';
import {
  addBands,
  addByRule,
  changeCategories,
  describeVariable,
  removeVariable,
  renameVariable,
} from './variableChanges.js';

const done = { done: true as const };
const study = '/api/studies/:study';

/** Respondents, their background, and the study's own page. */
export function backgroundRoutes(app: App): void {
  app.get(
    `${study}/respondents`,
    {
      schema: {
        operationId: 'listRespondents',
        params: studyParams,
        querystring: respondentQuery,
        response: { 200: respondentIdsSchema },
      },
    },
    async (request) => {
      const { em, params, query } = request;
      return { ids: await listRespondents(em, params.study, query, await request.within()) };
    },
  );
  app.get(
    `${study}/respondents/rows`,
    {
      schema: {
        operationId: 'readRespondents',
        params: studyParams,
        querystring: respondentRowsQuery,
        response: { 200: respondentRowsSchema },
      },
    },
    async ({ em, params, query }) => ({
      respondents: await readRespondents(em, params.study, query.ids),
    }),
  );
  app.patch(
    `${study}/respondents/:respondent`,
    {
      schema: {
        operationId: 'changeBackground',
        params: respondentParams,
        body: respondentChangeSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { params, body } = request;
      const maker = makerOf(request, params.study);
      await changeBackground(request.em, maker, params.respondent, body.variableId, body.value);
      return done;
    },
  );
  app.post(
    `${study}/variables`,
    {
      schema: {
        operationId: 'addVariable',
        params: studyParams,
        body: byRuleCreateSchema,
        response: { 200: z.object({ id: idSchema }) },
      },
    },
    async (request) => {
      const { em, params, body } = request;
      return { id: await addByRule(em, makerOf(request, params.study), body.name, body.by) };
    },
  );
  app.get(
    `${study}/variables/:variable`,
    {
      schema: {
        operationId: 'getVariable',
        params: variableParams,
        response: { 200: variableDetailSchema },
      },
    },
    ({ em, params }) => describeVariable(em, params.study, params.variable),
  );
  app.patch(
    `${study}/variables/:variable`,
    {
      schema: {
        operationId: 'renameVariable',
        params: variableParams,
        body: variableChangeSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { params, body } = request;
      await renameVariable(request.em, makerOf(request, params.study), params.variable, body.name);
      return done;
    },
  );
  app.delete(
    `${study}/variables/:variable`,
    {
      schema: {
        operationId: 'removeVariable',
        params: variableParams,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { params } = request;
      await removeVariable(request.em, makerOf(request, params.study), params.variable);
      return done;
    },
  );
  app.put(
    `${study}/variables/:variable/categories`,
    {
      schema: {
        operationId: 'changeCategories',
        params: variableParams,
        body: categoriesSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { params, body } = request;
      const maker = makerOf(request, params.study);
      await changeCategories(request.em, maker, params.variable, body.categories);
      return done;
    },
  );
  app.post(
    `${study}/variables/:variable/bands`,
    {
      schema: {
        operationId: 'addBands',
        params: variableParams,
        body: bandsSchema,
        response: { 200: z.object({ id: idSchema }) },
      },
    },
    async (request) => {
      const { params, body } = request;
      const maker = makerOf(request, params.study);
      return { id: await addBands(request.em, maker, params.variable, body.name, body.bands) };
    },
  );
  app.patch(
    study,
    {
      schema: {
        operationId: 'changeStudy',
        params: studyParams,
        body: studyChangeSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      await changeStudy(request.em, makerOf(request, request.params.study), request.body);
      return done;
    },
  );
  app.put(
    `${study}/no-answers`,
    {
      schema: {
        operationId: 'changeNoAnswers',
        params: studyParams,
        body: noAnswerListSchema,
        response: { 200: noAnswerResultSchema },
      },
    },
    ({ em, params, body }) => changeNoAnswers(em, params.study, body.noAnswers),
  );
  app.patch(
    `${study}/questions/:question`,
    {
      schema: {
        operationId: 'changeQuestion',
        params: questionParams,
        body: questionChangeSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { params, body } = request;
      await changeQuestion(request.em, makerOf(request, params.study), params.question, body);
      return done;
    },
  );
  app.put(
    `${study}/question-order`,
    {
      schema: {
        operationId: 'orderQuestions',
        params: studyParams,
        body: questionOrderSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { params, body } = request;
      await orderQuestions(request.em, makerOf(request, params.study), body.questions);
      return done;
    },
  );
}
