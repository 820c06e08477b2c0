import { api } from '@yellow-thread/contract';
import { makerOf } from '../people/index.js';
import type { App } from '../app.types.js';
import { changeBackground, listRespondents, readRespondents } from './respondents.js';
import {
  addBands,
  addByRule,
  changeCategories,
  describeVariable,
  removeVariable,
  renameVariable,
} from './variableChanges.js';
import { DONE, route } from '../route.js';

/** Respondents and their background. */
export function respondentRoutes(app: App): void {
  route(app, api.listRespondents, async (request) => {
    const { em, params, query } = request;
    return { ids: await listRespondents(em, params.study, query, await request.within()) };
  });
  route(app, api.readRespondents, async ({ em, params, query }) => ({
    respondents: await readRespondents(em, params.study, query.ids),
  }));
  route(app, api.changeBackground, async (request) => {
    const { params, body } = request;
    const maker = makerOf(request, params.study);
    await changeBackground(request.em, {
      maker,
      respondentId: params.respondent,
      variableId: body.variableId,
      value: body.value,
    });
    return DONE;
  });
  route(app, api.addVariable, async (request) => {
    const { em, params, body } = request;
    return { id: await addByRule(em, makerOf(request, params.study), body.name, body.by) };
  });
  route(app, api.getVariable, ({ em, params }) =>
    describeVariable(em, params.study, params.variable),
  );
  route(app, api.renameVariable, async (request) => {
    const { params, body } = request;
    await renameVariable(request.em, makerOf(request, params.study), params.variable, body.name);
    return DONE;
  });
  route(app, api.removeVariable, async (request) => {
    const { params } = request;
    await removeVariable(request.em, makerOf(request, params.study), params.variable);
    return DONE;
  });
  route(app, api.changeCategories, async (request) => {
    const { params, body } = request;
    const maker = makerOf(request, params.study);
    await changeCategories(request.em, maker, params.variable, body.categories);
    return DONE;
  });
  route(app, api.addBands, async (request) => {
    const { params, body } = request;
    const maker = makerOf(request, params.study);
    return {
      id: await addBands(request.em, {
        maker,
        from: params.variable,
        name: body.name,
        bands: body.bands,
      }),
    };
  });
}
