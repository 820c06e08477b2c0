import {
  doneSchema,
  membershipChangeSchema,
  membershipSchema,
  studyArchiveSchema,
  studyCreateSchema,
  studyDeleteSchema,
  studyDetailSchema,
  studyListSchema,
  studyParams,
  studySummarySchema,
  withinQuery,
} from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { makerOf, noteInAudit, requireAccount, requireStudy } from '../people/index.js';
import { deleteStudy } from './deleteStudy.js';
import { listStudies } from './listStudies.js';
import { changeMembership, readMembership } from './membership.js';
import { archiveStudy, createStudy, describeStudy } from './studies.js';

const done = { done: true as const };

export function studyRoutes(app: App): void {
  app.get(
    '/api/studies',
    { schema: { operationId: 'listStudies', response: { 200: studyListSchema } } },
    async (request) => ({
      studies: await listStudies(request.em, requireAccount(request).id),
    }),
  );
  app.post(
    '/api/studies',
    {
      schema: {
        operationId: 'createStudy',
        body: studyCreateSchema,
        response: { 200: studySummarySchema },
      },
    },
    (request) => createStudy(request.em, requireAccount(request).id, request.body),
  );
  app.get(
    '/api/studies/:study',
    {
      onRequest: requireStudy,
      schema: {
        operationId: 'getStudy',
        params: studyParams,
        querystring: withinQuery,
        response: { 200: studyDetailSchema },
      },
    },
    async (request) => describeStudy(request.em, request.params.study, await request.within()),
  );
  app.put(
    '/api/studies/:study/archived',
    {
      onRequest: requireStudy,
      schema: {
        operationId: 'archiveStudy',
        params: studyParams,
        body: studyArchiveSchema,
        response: { 200: doneSchema },
      },
    },
    async ({ em, params, body, account }) => {
      await archiveStudy(em, params.study, body.isArchived);
      await noteInAudit(em, {
        action: body.isArchived ? 'study_archived' : 'study_unarchived',
        accountId: account!.id,
        studyId: params.study,
      });
      return done;
    },
  );
  app.post(
    '/api/studies/:study/deletion',
    {
      onRequest: requireStudy,
      schema: {
        operationId: 'deleteStudy',
        params: studyParams,
        body: studyDeleteSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { em, params, body } = request;
      await deleteStudy(em, makerOf(request, params.study), body.name);
      return done;
    },
  );
  const membership = '/api/studies/:study/membership';
  app.get(
    membership,
    {
      onRequest: requireStudy,
      schema: {
        operationId: 'getMembership',
        params: studyParams,
        response: { 200: membershipSchema },
      },
    },
    ({ em, params, account }) => readMembership(em, params.study, account!.id),
  );
  app.patch(
    membership,
    {
      onRequest: requireStudy,
      schema: {
        operationId: 'changeMembership',
        params: studyParams,
        body: membershipChangeSchema,
        response: { 200: doneSchema },
      },
    },
    async ({ em, params, body, account }) => {
      await changeMembership(em, params.study, account!.id, body);
      return done;
    },
  );
}
