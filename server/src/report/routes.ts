import { api, FILE_TYPES } from '@yellow-thread/contract';
import type { FastifyReply } from 'fastify';
import { readAgreement } from '../agreement/index.js';
import { CodeEntity, StudyEntity, ThemeEntity } from '../database/index.js';
import { describeRule, findGroup } from '../groups/index.js';
import { nameFile, sendWritten } from '../exchange/index.js';
import type { Threads } from '../jobs/index.js';
import { behindForReaders, readerMask, requireAccount } from '../people/index.js';
import type { App } from '../app.types.js';
import { findQuestion } from '../study/index.js';
import { readBehind } from './behind.js';
import {
  agreementGrid,
  factBlocks,
  gridsAsCsv,
  readAnswerRows,
  readFacts,
  reportGrid,
  reportTable,
  sendByThread,
  testGrid,
  togetherGrid,
  writeDocx,
  writeHtml,
  writeTidy,
  writeWorkbook,
  type Fact,
  type Grid,
} from './files/index.js';
import { makeReport } from './report.js';
import { readRespondentTable } from './respondentTable.js';
import { readTogether } from './together.js';
import { routesTexts } from '../wording/report.js';
import { route } from '../route.js';

const sendGrid = (reply: FastifyReply, format: 'csv' | 'xlsx', grid: Grid) =>
  format === 'csv'
    ? reply.send(gridsAsCsv([grid]))
    : sendWritten(reply, (to) => writeWorkbook(to, [grid]));

export function reportRoutes(app: App, threads: Threads): void {
  route(app, api.getReport, async (request) => {
    const { em, params: place, query } = request;
    const question = await findQuestion(em, place.study, place.question);
    return makeReport(em, {
      studyId: place.study,
      question,
      query,
      within: await request.within(),
    });
  });
  route(app, api.getAnswersBehind, async (request) => {
    const { em, params: place, query } = request;
    const question = await findQuestion(em, place.study, place.question);
    const { id: accountId } = requireAccount(request);
    const behind = await readBehind(em, {
      studyId: place.study,
      question,
      query,
      within: await request.within(),
      accountId,
    });
    if (request.role !== 'reader') return behind;
    return behindForReaders(behind, await readerMask(em, place.study, request.role));
  });
  route(app, api.getCodesTogether, async (request) => {
    const { em, params: place, query } = request;
    const question = await findQuestion(em, place.study, place.question);
    return readTogether(em, {
      studyId: place.study,
      question,
      query,
      within: await request.within(),
    });
  });
  route(app, api.downloadTogether, async (request, reply) => {
    const { em, params: place, query } = request;
    const { study, format } = place;
    const question = await findQuestion(em, study, place.question);
    const found = await readTogether(em, {
      studyId: study,
      question,
      query,
      within: await request.within(),
    });
    const { name } = await em.findOneOrFail(StudyEntity, study);
    const group = query.group ? await findGroup(em, study, query.group) : null;
    const restricted = group && `${group.name}: ${await describeRule(em, study, group.rule)}`;
    const grid = togetherGrid(found, query.inOne, [
      [routesTexts.study, name],
      [routesTexts.question, question.wording],
      ...(restricted ? [[routesTexts.restricted, restricted] satisfies Fact] : []),
    ]);
    const about = [name, 'codes-together', question.label, query.inOne];
    nameFile(reply.type(FILE_TYPES[format]), about, format);
    return sendGrid(reply, format, grid);
  });
  route(app, api.downloadReport, async (request, reply) => {
    const { em, params: place, query } = request;
    const { study, format } = place;
    const question = await findQuestion(em, study, place.question);
    const within = await request.within();
    // most files have no room for every test
    const asked = { ...query, tests: format === 'xlsx' || format === 'zip' };
    const report = await makeReport(em, { studyId: study, question, query: asked, within });
    const facts = await readFacts(em, { studyId: study, question, query, report });
    const tests = testGrid(report, facts);
    const grid = reportGrid(report, facts, question.label);
    const { name } = await em.findOneOrFail(StudyEntity, study);
    const [, across = ''] = facts.find(([fact]) => fact === 'Columns') ?? [];
    const about = [name, 'table', question.label, query.by === 'none' ? '' : `by ${across}`];
    nameFile(reply.type(FILE_TYPES[format]), about, format);
    // they name their respondents
    const answers = (await readerMask(em, study, request.role))
      ? []
      : readAnswerRows(em, [question.id], within);
    const title = `${question.label} – ${name}`;
    const blocks = [
      { kind: 'heading' as const, level: 1 as const, text: question.label },
      ...factBlocks(facts),
      reportTable(report),
    ];
    switch (format) {
      case 'csv':
        return reply.send(gridsAsCsv([grid]));
      case 'html':
        return reply.send(writeHtml(title, blocks));
      case 'docx':
        return reply.send(await writeDocx(title, blocks, requireAccount(request).name));
      case 'xlsx':
        return sendWritten(reply, (to) =>
          writeWorkbook(to, tests ? [grid, tests] : [grid], answers),
        );
      case 'zip':
        return reply.send(writeTidy(report, facts, tests));
    }
  });
  route(app, api.downloadAgreement, async ({ em, params, query }, reply) => {
    const { study, reading, format } = params;
    const question = await findQuestion(em, study, params.question);
    const place = { studyId: study, questionId: question.id, id: reading };
    const agreement = await readAgreement(em, place, query.against);
    const named = [
      ...(await em.find(CodeEntity, { studyId: study })),
      ...(await em.find(ThemeEntity, { studyId: study })),
    ];
    const { name } = await em.findOneOrFail(StudyEntity, study);
    const grid = agreementGrid(agreement, new Map(named.map((one) => [one.id, one.name])), [
      [routesTexts.study, name],
      [routesTexts.question, question.wording],
    ]);
    const about = [name, 'agreement', question.label, agreement.reading.reader];
    nameFile(reply.type(FILE_TYPES[format]), about, format);
    return sendGrid(reply, format, grid);
  });
  route(app, api.downloadRespondents, async (request, reply) => {
    const { em, params: place, query } = request;
    const { study, format } = place;
    const { name, purpose } = await em.findOneOrFail(StudyEntity, study);
    const table = await readRespondentTable(em, study, await request.within());
    const group = query.group ? await findGroup(em, study, query.group) : null;
    const description = [
      routesTexts.oneRowRespondentColumn,
      group
        ? routesTexts.restricted2(group.name, await describeRule(em, study, group.rule))
        : routesTexts.allRespondents,
      routesTexts.written(new Date().toISOString().slice(0, 10)),
    ].join(' ');
    nameFile(reply.type(FILE_TYPES[format]), [name, 'respondents', group?.name ?? ''], format);
    const file = { format, fields: table.fields, text: { name, purpose, description } };
    return sendByThread(reply, threads, file, table.pages());
  });
}
