import { api, FILE_TYPES, GRAPHML } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { codesOf, themesOf } from '../codebook/index.js';
import { StudyEntity } from '../database/index.js';
import { nameFile } from '../exchange/index.js';
import { makerOf } from '../people/index.js';
import { DONE, route } from '../route.js';
import { changeMap, putMap, removeMap } from './changeMap.js';
import { mapFile } from './mapFile.js';
import { listMaps, readMap } from './maps.js';

export function codeMapRoutes(app: App): void {
  route(app, api.listCodeMaps, ({ em, params }) => listMaps(em, params.study));
  route(app, api.getCodeMap, ({ em, params }) => readMap(em, params.study, params.map));
  route(app, api.putCodeMap, async (request) => {
    const { em, params, body } = request;
    await putMap(em, makerOf(request, params.study), params.map, body.name);
    return DONE;
  });
  route(app, api.removeCodeMap, async (request) => {
    const { em, params } = request;
    await removeMap(em, makerOf(request, params.study), params.map);
    return DONE;
  });
  route(app, api.changeCodeMap, async (request) => {
    const { em, params, body } = request;
    await changeMap(em, makerOf(request, params.study), params.map, body);
    return DONE;
  });
  route(app, api.downloadCodeMap, async (request, reply) => {
    const { em, params } = request;
    const map = await readMap(em, params.study, params.map);
    const codes = await codesOf(em, params.study);
    const themes = await themesOf(em, params.study);
    const { name } = await em.findOneOrFail(StudyEntity, params.study);
    reply.type(params.format === 'csv' ? FILE_TYPES.csv : GRAPHML);
    nameFile(reply, [name, map.name], params.format);
    return reply.send(mapFile(map, { codes, themes }, params.format));
  });
}
