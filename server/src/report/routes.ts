import {
  behindQuery,
  behindSchema,
  questionParams,
  reportQuery,
  reportSchema,
} from '@yellow-thread/contract';
import { z } from 'zod';
import type { App } from '../routeScope.js';
import { StudyEntity, VariableEntity } from '../database/index.js';
import { findQuestion } from '../study/index.js';
import { reportAsCsv } from './csv.js';
import { makeReport, readBehind } from './report.js';

export function reportRoutes(app: App): void {
  const path = '/api/studies/:study/questions/:question/report';
  const params = questionParams;

  app.get(
    path,
    {
      schema: {
        operationId: 'getReport',
        params,
        querystring: reportQuery,
        response: { 200: reportSchema },
      },
    },
    async ({ em, params: { study, question }, query }) =>
      makeReport(em, study, await findQuestion(em, study, question), query),
  );
  app.get(
    `${path}/answers`,
    {
      schema: {
        operationId: 'getAnswersBehind',
        params,
        querystring: behindQuery,
        response: { 200: behindSchema },
      },
    },
    async ({ em, params: { study, question }, query }) =>
      readBehind(em, study, await findQuestion(em, study, question), query),
  );
  app.get(
    `${path}.csv`,
    {
      schema: {
        operationId: 'downloadReport',
        params,
        querystring: reportQuery,
        produces: ['text/csv'],
        response: { 200: z.string() },
      },
      serializerCompiler: () => String,
    },
    async ({ em, params: { study, question }, query }, reply) => {
      const asked = await findQuestion(em, study, question);
      const report = await makeReport(em, study, asked, query);
      const { name } = await em.findOneOrFail(StudyEntity, study);
      const variable =
        typeof query.by === 'number' ? await em.findOneOrFail(VariableEntity, query.by) : null;
      reply
        .type('text/csv; charset=utf-8')
        .header('Content-Disposition', `attachment; filename="report-${question}.csv"`);
      return (
        '\uFEFF' +
        reportAsCsv(report, {
          study: name,
          question: query.by === 'question' ? 'all questions' : asked.wording,
          columns: variable?.name ?? (query.by === 'question' ? 'questions' : 'total'),
          date: new Date().toISOString().slice(0, 10),
        })
      );
    },
  );
}
