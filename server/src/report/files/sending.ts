import { PassThrough } from 'node:stream';
import type { FastifyReply } from 'fastify';
import { z } from 'zod';

/** What each kind of file is called when it is sent. */
export const contentTypes = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  html: 'text/html; charset=utf-8',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  zip: 'application/zip',
} as const;

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
