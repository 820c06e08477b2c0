import { api, FILE_TYPES, GRAPHML, type Look } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { StudyEntity } from '../database/index.js';
import { nameFile } from '../exchange/index.js';
import { respondentsOfRule } from '../groups/index.js';
import { enqueueJob, type Threads } from '../jobs/index.js';
import { makerOf, requireAccount } from '../people/index.js';
import { DONE, route } from '../route.js';
import { findQuestion } from '../study/index.js';
import { bringClusterBack, decideCluster, readClusters, type GatherPayload } from './clusters.js';
import { countOf, readLooked } from './looked.js';
import { answersOf } from './material.js';
import { readNetwork } from './network.js';
import { networkFile } from './networkFile.js';
import { readRepresentatives } from './representatives.js';
import { resultsOf } from './results.js';

export function lookRoutes(app: App, threads: Threads): void {
  route(app, api.lookAtQuestion, async (request): Promise<Look> => {
    const { em, params } = request;
    const looked = await readLooked(em, threads, params, await request.within());
    const { material, leftOut, included } = looked;
    const counted = await resultsOf(em).get('look', material, { leftOut, included }, async () =>
      threads.run('look', { terms: await material.terms(), leftOut, included }),
    );
    return { answered: countOf(looked), ...counted };
  });

  route(app, api.contrastWords, async (request) => {
    const { em, params, query } = request;
    const looked = await readLooked(em, threads, params, await request.within());
    const { material, leftOut, included } = looked;
    const inGroup = answersOf(material, await respondentsOfRule(em, params.study, query.of))!;
    return resultsOf(em).get('contrast', material, { leftOut, included, inGroup }, async () =>
      threads.run('contrast', { terms: await material.terms(), leftOut, included, inGroup }),
    );
  });

  route(app, api.getWordNetwork, async (request) => {
    const { em, params, query } = request;
    const looked = await readLooked(em, threads, params, await request.within());
    return readNetwork(em, threads, looked, query);
  });
  route(app, api.downloadWordNetwork, async (request, reply) => {
    const { em, params, query } = request;
    const looked = await readLooked(em, threads, params, await request.within());
    const network = await readNetwork(em, threads, looked, query);
    const { name } = await em.findOneOrFail(StudyEntity, params.study);
    const isGraph = params.format === 'graphml';
    const [what] = params.format.split('.');
    nameFile(
      reply.type(isGraph ? GRAPHML : FILE_TYPES.csv),
      [name, 'words-together', looked.label, ...(isGraph ? [] : [what!])],
      isGraph ? 'graphml' : 'csv',
    );
    return reply.send(networkFile(network, params.format));
  });

  route(app, api.getAnswerClusters, async (request) => {
    const { em, params, query } = request;
    const looked = await readLooked(em, threads, params, await request.within());
    return readClusters(em, threads, looked, query.k ?? null);
  });
  route(app, api.gatherAnswers, async (request) => {
    const { em, params, query } = request;
    const { id: questionId } = await findQuestion(em, params.study, params.question);
    const payload: GatherPayload = { k: query.k ?? null, within: await request.within() };
    return enqueueJob(em, {
      ...{ kind: 'cluster', studyId: params.study, questionId, payload },
      accountId: requireAccount(request).id,
    });
  });
  route(app, api.decideCluster, async (request) => {
    const { em, params, body } = request;
    const { id: questionId } = await findQuestion(em, params.study, params.question);
    const at = { id: params.cluster, questionId };
    await decideCluster(em, makerOf(request, params.study), at, body);
    return DONE;
  });
  route(app, api.bringClusterBack, async (request) => {
    const { em, params } = request;
    const { id: questionId } = await findQuestion(em, params.study, params.question);
    const at = { id: params.cluster, questionId };
    await bringClusterBack(em, makerOf(request, params.study), at);
    return DONE;
  });

  route(app, api.getRepresentatives, async (request) => {
    const { em, params, query } = request;
    const looked = await readLooked(em, threads, params, await request.within());
    return readRepresentatives(em, threads, looked, query, requireAccount(request).id);
  });
}
