import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { api, FILE_TYPES, type StudySummary } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { open as openZipFile } from 'yauzl';
import type { FastifyRequest } from 'fastify';
import type { App } from '../app.types.js';
import { row, StudyEntity } from '../database/index.js';
import { nameFile, sendWritten } from '../exchange/index.js';
import { makerOf, requireAccount } from '../people/index.js';
import { route } from '../route.js';
import { enqueueEncoding } from '../sentences/index.js';
import { problems } from '../wording/problems.js';
import { studyFileTexts as texts } from '../wording/studyFile.js';
import { openZip, type Zip } from '../zip.js';
import { mergeCopy, previewMerge } from './mergeCopy.js';
import { openCopy } from './openCopy.js';
import { saveCopy } from './saveCopy.js';

const LARGEST_FILE = 2 * 1024 ** 3;
/** What a copy may unpack to: more is taken for a file made to fill the memory. */
const LARGEST_UNPACKED = 8 * 1024 ** 3;

/** Copies of a study that leave it. */
export function saveCopyRoute(app: App): void {
  route(app, api.saveStudyFile, async (request, reply) => {
    const { em, params } = request;
    await refuseReaders(em, params.study, requireAccount(request).id);
    const { name } = await em.findOneOrFail(StudyEntity, params.study);
    nameFile(reply.type(FILE_TYPES.zip), [name, 'study'], 'zip');
    return sendWritten(reply, (to, gone) =>
      saveCopy(em.fork(), { studyId: params.study, leftOut: request.query.without, to, gone }),
    );
  });
}

/** Whoever codes answers again may not see how they were coded. @throws Problem reading_under_way */
async function refuseReaders(em: EntityManager, studyId: number, accountId: number): Promise<void> {
  const { left } = await row<{ left: number }>(
    em,
    `select count(*)::int as left from second_reading_answer a
     join second_reading d on d.id = a.reading_id
     where d.study_id = :studyId and d.reader_id = :accountId and a.second_codes is null`,
    { studyId, accountId },
  );
  if (left > 0) throw problems.copyBeforeReading(left);
}

/** @throws Problem bad_study_file for what is no zip, damaged, or made to fill the memory */
function openCopyZip(path: string) {
  const refused = () => problems.badStudyFile(texts.noZip);
  return openZip((done) => openZipFile(path, { lazyEntries: false, autoClose: false }, done), {
    largestUnpacked: LARGEST_UNPACKED,
    ...{ damaged: refused, tooLarge: refused, locked: refused },
  });
}

/** Takes a study file in and works with it. @throws Problem invalid_request, too_large, upload_cut_off, bad_study_file */
async function withStudyFile<Result>(
  request: FastifyRequest,
  work: (zip: Zip) => Promise<Result>,
): Promise<Result> {
  const file = await request.file({ limits: { fileSize: LARGEST_FILE } });
  if (!file) throw problems.invalidRequest({ reason: 'no file' });
  const folder = await mkdtemp(join(tmpdir(), 'yellow-thread-copy-'));
  try {
    const path = join(folder, 'copy.zip');
    await pipeline(file.file, createWriteStream(path)).catch(() => {
      throw problems.uploadCutOff();
    });
    if (file.file.truncated) throw problems.tooLarge('2 GB');
    const zip = await openCopyZip(path);
    try {
      return await work(zip);
    } finally {
      zip.close();
    }
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Copies that become studies here. */
export function openCopyRoute(app: App): void {
  route(
    app,
    api.openStudyFile,
    async (request): Promise<StudySummary> => {
      const { em } = request;
      const account = requireAccount(request);
      const id = await withStudyFile(request, (zip) =>
        openCopy(em, zip, { accountId: account.id, name: account.name }),
      );
      await enqueueEncoding(em, { studyId: id, accountId: account.id });
      return row<StudySummary>(
        em,
        `select s.id, s.name, s.purpose,
           (select count(*)::int from respondent r where r.study_id = s.id) as respondents,
           (select count(*)::int from question q where q.study_id = s.id) as questions
         from study s where s.id = :id`,
        { id },
      );
    },
    { bodyLimit: LARGEST_FILE },
  );
}

/** Copies whose coding is brought into a study. */
export function mergeRoutes(app: App): void {
  const large = { bodyLimit: LARGEST_FILE };
  const prepare = (request: FastifyRequest<{ Params: { study: number } }>) =>
    refuseReaders(request.em, request.params.study, requireAccount(request).id);
  route(
    app,
    api.previewMerge,
    async (request) => {
      await prepare(request);
      return withStudyFile(request, (zip) => previewMerge(request.em, zip, request.params.study));
    },
    large,
  );
  route(
    app,
    api.mergeStudyFile,
    async (request) => {
      await prepare(request);
      const maker = makerOf(request, request.params.study);
      return withStudyFile(request, (zip) => mergeCopy(request.em, zip, maker));
    },
    large,
  );
}
