import { PassThrough } from 'node:stream';
import type { FastifyReply } from 'fastify';
import { z } from 'zod';
import { contentTypes as codebookTypes } from '../../exchange/index.js';

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
  write(stream).catch((error: unknown) =>
    stream.destroy(error instanceof Error ? error : new Error('The file could not be written.')),
  );
  return reply.send(stream);
}
