import { api } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { makerOf, noteInAudit, requireAccount, requireStudy } from '../people/index.js';
import { deleteStudy } from './deleteStudy.js';
import { listStudies } from './listStudies.js';
import { changeMembership, readMembership } from './membership.js';
import { archiveStudy, createStudy, describeStudy } from './studies.js';
import { DONE, route } from '../route.js';

export function studyRoutes(app: App): void {
  route(app, api.listStudies, async (request) => ({
    studies: await listStudies(request.em, requireAccount(request).id),
  }));
  route(app, api.createStudy, (request) =>
    createStudy(request.em, requireAccount(request).id, request.body),
  );
  route(
    app,
    api.getStudy,
    async (request) => {
      const { em, params, role } = request;
      return describeStudy(em, { id: params.study, role: role! }, await request.within());
    },
    { onRequest: requireStudy },
  );
  route(
    app,
    api.archiveStudy,
    async ({ em, params, body, account }) => {
      await archiveStudy(em, params.study, body.isArchived);
      await noteInAudit(em, {
        action: body.isArchived ? 'study_archived' : 'study_unarchived',
        accountId: account!.id,
        studyId: params.study,
      });
      return DONE;
    },
    { onRequest: requireStudy },
  );
  route(
    app,
    api.deleteStudy,
    async (request) => {
      const { em, params, body } = request;
      await deleteStudy(em, makerOf(request, params.study), body.name);
      return DONE;
    },
    { onRequest: requireStudy },
  );
  route(
    app,
    api.getMembership,
    ({ em, params, account }) => readMembership(em, params.study, account!.id),
    { onRequest: requireStudy },
  );
  route(
    app,
    api.changeMembership,
    async ({ em, params, body, account }) => {
      await changeMembership(em, params.study, account!.id, body);
      return DONE;
    },
    { onRequest: requireStudy },
  );
}
