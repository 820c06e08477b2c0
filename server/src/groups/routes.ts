import { api } from '@yellow-thread/contract';
import { makerOf } from '../people/index.js';
import type { App } from '../app.types.js';
import { listGroups, putGroup, removeGroup, sizeOf } from './groups.js';
import { DONE, route } from '../route.js';

export function groupRoutes(app: App): void {
  route(app, api.listGroups, ({ em, params }) => listGroups(em, params.study));
  route(app, api.sizeOfGroup, ({ em, params, body }) =>
    sizeOf(em, params.study, body.rule, body.groupId),
  );
  route(app, api.putGroup, async (request) => {
    const { params, body } = request;
    await putGroup(request.em, makerOf(request, params.study), params.group, body);
    return DONE;
  });
  route(app, api.removeGroup, async (request) => {
    const { params } = request;
    await removeGroup(request.em, makerOf(request, params.study), params.group);
    return DONE;
  });
}
