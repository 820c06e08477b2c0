import { z } from 'zod';
import { defineEndpoints } from '../endpoint.js';
import { doneSchema, questionParams } from '../ids.js';
import { jobSchema } from '../jobs/records.js';
import {
  clusterDecisionSchema,
  clusterParams,
  clustersQuery,
  clustersSchema,
  contrastQuery,
  contrastSchema,
  lookQuery,
  lookSchema,
  networkFileParams,
  networkQuery,
  networkSchema,
  representativesQuery,
  representativesSchema,
} from './records.js';

export const lookEndpoints = defineEndpoints({
  lookAtQuestion: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/look',
    params: questionParams,
    query: lookQuery,
    reply: lookSchema,
    problems: [],
  },
  contrastWords: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/look/contrast',
    params: questionParams,
    query: contrastQuery,
    reply: contrastSchema,
    problems: [],
  },
  getWordNetwork: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/look/network',
    params: questionParams,
    query: networkQuery,
    reply: networkSchema,
    problems: [],
  },
  downloadWordNetwork: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/look/network/files/:format',
    params: networkFileParams,
    query: networkQuery,
    reply: z.unknown(),
    produces: ['text/csv', 'application/graphml+xml'],
    problems: [],
  },
  getAnswerClusters: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/look/clusters',
    params: questionParams,
    query: clustersQuery,
    reply: clustersSchema,
    problems: [],
  },
  gatherAnswers: {
    method: 'POST',
    path: '/api/studies/:study/questions/:question/look/clusters',
    params: questionParams,
    query: clustersQuery,
    reply: jobSchema,
    problems: ['job_under_way'],
  },
  decideCluster: {
    method: 'PUT',
    path: '/api/studies/:study/questions/:question/look/clusters/:cluster',
    params: clusterParams,
    body: clusterDecisionSchema,
    reply: doneSchema,
    problems: ['name_taken', 'not_found'],
  },
  bringClusterBack: {
    method: 'DELETE',
    path: '/api/studies/:study/questions/:question/look/clusters/:cluster',
    params: clusterParams,
    reply: doneSchema,
    problems: ['not_found'],
  },
  getRepresentatives: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/look/representatives',
    params: questionParams,
    query: representativesQuery,
    reply: representativesSchema,
    problems: ['wrong_scope'],
  },
});
