import { z } from 'zod';
import { defineEndpoints } from '../endpoint.js';
import { doneSchema, studyParams } from '../ids.js';
import {
  codeMapsSchema,
  drawnMapSchema,
  mapChangeSchema,
  mapFileParams,
  mapNameSchema,
  mapParams,
} from './records.js';

export const codeMapsEndpoints = defineEndpoints({
  listCodeMaps: {
    method: 'GET',
    path: '/api/studies/:study/maps',
    params: studyParams,
    reply: codeMapsSchema,
    problems: [],
  },
  getCodeMap: {
    method: 'GET',
    path: '/api/studies/:study/maps/:map',
    params: mapParams,
    reply: drawnMapSchema,
    problems: [],
  },
  putCodeMap: {
    method: 'PUT',
    path: '/api/studies/:study/maps/:map',
    params: mapParams,
    body: mapNameSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile', 'name_taken'],
  },
  removeCodeMap: {
    method: 'DELETE',
    path: '/api/studies/:study/maps/:map',
    params: mapParams,
    reply: doneSchema,
    problems: ['changed_meanwhile'],
  },
  changeCodeMap: {
    method: 'POST',
    path: '/api/studies/:study/maps/:map/changes',
    params: mapParams,
    body: mapChangeSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile'],
  },
  downloadCodeMap: {
    method: 'GET',
    path: '/api/studies/:study/maps/:map/files/:format',
    params: mapFileParams,
    reply: z.unknown(),
    produces: ['text/csv', 'application/graphml+xml'],
    problems: [],
  },
});
