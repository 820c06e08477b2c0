import { api } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import type { Threads } from '../jobs/index.js';
import { makerOf, requireAccount } from '../people/index.js';
import { DONE, route } from '../route.js';
import { localAssistant } from './assistant.js';
import { putTerm, readGlossary, removeTerm } from './glossary.js';
import { readHelp } from './help.js';

export function assistantRoutes(app: App, threads: Threads): void {
  const assistant = localAssistant(threads);
  route(app, api.helpWithAnswer, (request) =>
    readHelp(request.em, assistant, {
      studyId: request.params.study,
      responseId: request.params.response,
      accountId: requireAccount(request).id,
    }),
  );
  route(app, api.getGlossary, async ({ em, params }) => ({
    terms: await readGlossary(em, params.study),
  }));
  route(app, api.putGlossaryTerm, async (request) => {
    const { em, params, body } = request;
    await putTerm(em, makerOf(request, params.study), { id: params.term, ...body });
    return DONE;
  });
  route(app, api.removeGlossaryTerm, async (request) => {
    const { em, params } = request;
    await removeTerm(em, makerOf(request, params.study), params.term);
    return DONE;
  });
}
