import {
  codebookFileParams,
  codebookSchema,
  codeListSchema,
  studyParams,
  takeCodeListSchema,
} from '@yellow-thread/contract';
import { z } from 'zod';
import { readCodebook } from '../codebook/index.js';
import { rows, StudyEntity } from '../database/index.js';
import { makerOf } from '../people/index.js';
import { problems } from '../problems.js';
import type { App } from '../routeScope.js';
import { contentTypes, writeCodebook } from './codebookFiles.js';
import { readCodeList, takeCodeList } from './codeList.js';

const LARGEST = 8 * 1024 * 1024;

/** Codebooks in and out, in formats of other programs. */
export function exchangeRoutes(app: App): void {
  app.get(
    '/api/studies/:study/codebook/files/:format',
    {
      schema: {
        operationId: 'downloadCodebook',
        params: codebookFileParams,
        produces: Object.values(contentTypes),
        response: { 200: z.unknown() },
      },
      // these are files, not replies in JSON
      serializerCompiler: () => (data) => data as string,
    },
    async ({ em, params }, reply) => {
      const { study, format } = params;
      const { name, purpose } = await em.findOneOrFail(StudyEntity, study);
      const examples = await rows<{ codeId: string; said: string[] }>(
        em,
        `select m.code_id as "codeId", array_agg(
           case when m.start is null then r.text
             else substr(r.text, m.start + 1, m."end" - m.start) end order by m.created_at) as said
         from mention m join code c on c.id = m.code_id and c.study_id = ?
         join response r on r.id = m.response_id where m.typical group by m.code_id`,
        [study],
      );
      const file = await writeCodebook(
        format,
        { name, purpose },
        await readCodebook(em, study),
        new Map(examples.map(({ codeId, said }) => [codeId, said])),
      );
      return reply
        .type(contentTypes[format])
        .header('Content-Disposition', `attachment; filename="codebook-${study}.${format}"`)
        .send(file);
    },
  );
  app.post(
    '/api/studies/:study/codebook/files',
    {
      schema: {
        operationId: 'readCodeList',
        params: studyParams,
        consumes: ['multipart/form-data'],
        response: { 200: codeListSchema },
      },
    },
    async (request) => {
      const file = await request.file({ limits: { fileSize: LARGEST } });
      if (!file) throw problems.unreadableSheet('No file came with the request.');
      const content = await file.toBuffer().catch(() => {
        throw problems.tooLarge('8 MB');
      });
      return readCodeList(request.em, request.params.study, file.filename.slice(-200), content);
    },
  );
  app.post(
    '/api/studies/:study/codebook/list',
    {
      schema: {
        operationId: 'takeCodeList',
        params: studyParams,
        body: takeCodeListSchema,
        response: { 200: codebookSchema },
      },
      bodyLimit: LARGEST,
    },
    async (request) => {
      const { study } = request.params;
      await takeCodeList(request.em, makerOf(request, study), request.body.codes);
      return readCodebook(request.em, study);
    },
  );
}
