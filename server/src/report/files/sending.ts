import { once } from 'node:events';
import type { FastifyReply } from 'fastify';
import { sendWritten } from '../../exchange/index.js';
import type { Threads } from '../../jobs/index.js';
import { asPart, type RespondentFile } from './respondentFile.js';
import type { RespondentValue } from './respondentTypes.js';

/** Sends a respondent-level file while a thread writes it; it ends when the client goes away. */
export const sendByThread = (
  reply: FastifyReply,
  threads: Threads,
  file: RespondentFile,
  pages: AsyncGenerator<RespondentValue[][]>,
) =>
  sendWritten(reply, async (to, gone) => {
    try {
      await threads.run('writeRespondents', file, {
        part: async () => {
          const page = await pages.next();
          return asPart(page.done ? [] : page.value);
        },
        write: async (_, bytes) => {
          if (!to.write(bytes)) await once(to, 'drain', { signal: gone });
        },
        signal: gone,
      });
      to.end();
    } finally {
      await pages.return(undefined);
    }
  });
