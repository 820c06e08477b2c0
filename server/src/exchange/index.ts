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
import type { Threads } from '../jobs/index.js';
import { makerOf } from '../people/index.js';
import { problems } from '../wording/problems.js';
import type { App } from '../app.types.js';
import { contentTypes, writeCodebook } from './codebookFiles.js';
import { readCodeList, takeCodeList } from './codeList.js';
import { nameFile } from './download.js';
import { indexTexts } from '../wording/exchange.js';

export { contentTypes, nameFile };

const LARGEST = 8 * 1024 * 1024;

/** Codebooks in and out, in formats of other programs. */
export function exchangeRoutes(app: App, threads: Threads): void {
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
      const typical = await rows<{
        codeId: string;
        text: string;
        start: number | null;
        end: number | null;
      }>(
        em,
        `select m.code_id as "codeId", r.text, m.start, m."end"
         from mention m join code c on c.id = m.code_id and c.study_id = ?
         join response r on r.id = m.response_id where m.typical order by m.created_at`,
        [study],
      );
      const examples = new Map<string, string[]>();
      for (const { codeId, text, start, end } of typical)
        // passages count as JavaScript does, where some characters are two
        examples.set(codeId, [
          ...(examples.get(codeId) ?? []),
          start === null || end === null ? text : text.slice(start, end),
        ]);
      const file = await writeCodebook(
        format,
        { name, purpose },
        await readCodebook(em, study),
        examples,
      );
      nameFile(reply, [name, 'codebook'], format);
      return reply.type(contentTypes[format]).send(file);
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
      if (!file) throw problems.unreadableSheet(indexTexts.noFileCameRequest);
      const content = await file.toBuffer().catch(() => {
        throw problems.tooLarge('8 MB');
      });
      return readCodeList(request.em, threads, request.params.study, {
        fileName: file.filename.slice(-200),
        content,
      });
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
