import { once } from 'node:events';
import { PassThrough } from 'node:stream';
import type { FastifyReply } from 'fastify';
import type { Threads } from '../../jobs/index.js';
import { asPart, type RespondentFile } from './respondentFile.js';
import type { RespondentValue } from './respondentTypes.js';

/** Sends a file that is written bit by bit; what goes wrong on the way breaks it off. */
export function sendWritten(reply: FastifyReply, write: (to: PassThrough) => Promise<void>) {
  const stream = new PassThrough();
  write(stream).catch((error: unknown) => {
    // whoever took it has gone: nobody is to be reported
    if (stream.destroyed) return;
    reply.request.log.error({ err: error }, 'a file could not be written');
    stream.destroy(error instanceof Error ? error : new Error('The file could not be written.'));
  });
  return reply.send(stream);
}

/** Sends a respondent-level file while a thread writes it; it ends when the client goes away. */
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
