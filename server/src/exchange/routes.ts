import { api, FILE_TYPES } from '@yellow-thread/contract';
import { readCodebook } from '../codebook/index.js';
import { StudyEntity } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { makerOf } from '../people/index.js';
import { problems } from '../wording/problems.js';
import type { App } from '../app.types.js';
import { writeCodebook } from './codebookFiles.js';
import { readCodeList, takeCodeList } from './codeList.js';
import { nameFile } from './download.js';
import { readExamples } from './examples.js';
import { indexTexts } from '../wording/exchange.js';
import { route } from '../route.js';

const LARGEST = 8 * 1024 * 1024;

/** Codebooks in and out, in formats of other programs. */
export function exchangeRoutes(app: App, threads: Threads): void {
  route(app, api.downloadCodebook, async ({ em, params }, reply) => {
    const { study, format } = params;
    const { name, purpose } = await em.findOneOrFail(StudyEntity, study);
    const examples = await readExamples(em, study);
    const file = await writeCodebook(
      format,
      { name, purpose },
      await readCodebook(em, study),
      examples,
    );
    nameFile(reply, [name, 'codebook'], format);
    return reply.type(FILE_TYPES[format]).send(file);
  });
  route(app, api.readCodeList, async (request) => {
    const file = await request.file({ limits: { fileSize: LARGEST } });
    if (!file) throw problems.unreadableSheet(indexTexts.noFileCameRequest);
    const content = await file.toBuffer().catch(() => {
      throw problems.tooLarge('8 MB');
    });
    return readCodeList(request.em, threads, request.params.study, {
      fileName: file.filename.slice(-200),
      content,
    });
  });
  route(
    app,
    api.importCodeList,
    async (request) => {
      const { study } = request.params;
      await takeCodeList(request.em, makerOf(request, study), request.body.codes);
      return readCodebook(request.em, study);
    },
    { bodyLimit: LARGEST },
  );
}
