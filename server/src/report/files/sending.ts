import { once } from 'node:events';
import { PassThrough } from 'node:stream';
import type { FastifyReply } from 'fastify';
import { z } from 'zod';
import { contentTypes as codebookTypes } from '../../exchange/index.js';
import type { Threads } from '../../jobs/index.js';
import { asPart, type RespondentFile } from './respondentFile.js';
import type { RespondentValue } from './respondentTypes.js';

/** What each kind of file is called when it is sent. */
const { csv, xlsx, html, docx } = codebookTypes;
export const contentTypes = { csv, xlsx, html, docx, zip: 'application/zip' };

/** Files are sent as they are, not as replies in JSON. */
export const asFile = {
  response: { 200: z.unknown() },
  serializerCompiler: () => (data: unknown) => data as string,
};

/** Sends a file that is written bit by bit; what goes wrong on the way breaks it off. */
export function sendWritten(reply: FastifyReply, write: (to: PassThrough) => Promise<void>) {
  const stream = new PassThrough();
  write(stream).catch((error: unknown) => {
    // whoever took it has gone: nobody is to be told
    if (stream.destroyed) return;
    reply.request.log.error({ err: error }, 'a file could not be written');
    stream.destroy(error instanceof Error ? error : new Error('The file could not be written.'));
  });
  return reply.send(stream);
}

/** Sends a respondent-level file that a thread writes while it is taken; whoever goes away ends it. */
export const sendByThread = (
  reply: FastifyReply,
  threads: Threads,
  file: RespondentFile,
  pages: AsyncGenerator<RespondentValue[][]>,
) =>
  sendWritten(reply, async (to) => {
    const gone = new AbortController();
    to.once('close', () => gone.abort());
    try {
      await threads.run('writeRespondents', file, {
        part: async () => {
          const page = await pages.next();
          return asPart(page.done ? [] : page.value);
        },
        write: async (_, bytes) => {
          if (!to.write(bytes)) await once(to, 'drain', { signal: gone.signal });
        },
        signal: gone.signal,
      });
      to.end();
    } finally {
      await pages.return(undefined);
    }
  });
