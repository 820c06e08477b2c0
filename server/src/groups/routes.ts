import {
  doneSchema,
  groupFields,
  groupListSchema,
  groupParams,
  groupSizeQuery,
  groupSizeSchema,
  studyParams,
} from '@yellow-thread/contract';
import { makerOf } from '../people/index.js';
import type { App } from '../app.types.js';
import { listGroups, putGroup, removeGroup, sizeOf } from './groups.js';

const done = { done: true as const };
const path = '/api/studies/:study/groups';

export function groupRoutes(app: App): void {
  app.get(
    path,
    {
      schema: {
        operationId: 'listGroups',
        params: studyParams,
        response: { 200: groupListSchema },
      },
    },
    ({ em, params }) => listGroups(em, params.study),
  );
  app.post(
    `${path}/size`,
    {
      schema: {
        operationId: 'sizeOfGroup',
        params: studyParams,
        body: groupSizeQuery,
        response: { 200: groupSizeSchema },
      },
    },
    ({ em, params, body }) => sizeOf(em, params.study, body.rule, body.groupId),
  );
  app.put(
    `${path}/:group`,
    {
      schema: {
        operationId: 'putGroup',
        params: groupParams,
        body: groupFields,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { params, body } = request;
      await putGroup(request.em, makerOf(request, params.study), params.group, body);
      return done;
    },
  );
  app.delete(
    `${path}/:group`,
    {
      schema: { operationId: 'removeGroup', params: groupParams, response: { 200: doneSchema } },
    },
    async (request) => {
      const { params } = request;
      await removeGroup(request.em, makerOf(request, params.study), params.group);
      return done;
    },
  );
}
