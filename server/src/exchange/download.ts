import { PassThrough } from 'node:stream';
import { fileNameOf } from '@yellow-thread/core/exchange';
import { create as contentDisposition } from 'content-disposition';
import type { FastifyReply } from 'fastify';

/**
 * Names the file that a reply is, by its study, what it is and the date. A page to be printed is shown, anything else
 * is kept.
 *
 * @see RFC 6266 for the header
 */
export function nameFile(reply: FastifyReply, parts: readonly string[], extension: string) {
  const name = fileNameOf(parts, new Date().toISOString().slice(0, 10), extension);
  const type = extension === 'html' ? 'inline' : 'attachment';
  return reply.header('Content-Disposition', contentDisposition(name, { type }));
}

/**
 * Sends a file that is written bit by bit; what goes wrong on the way breaks it off.
 *
 * @param write is told by a signal when whoever takes the file has gone
 */
export function sendWritten(
  reply: FastifyReply,
  write: (to: PassThrough, gone: AbortSignal) => Promise<void>,
) {
  const stream = new PassThrough();
  const gone = new AbortController();
  stream.once('close', () => gone.abort());
  write(stream, gone.signal).catch((error: unknown) => {
    // whoever took it has gone: nobody is to be reported
    if (stream.destroyed) return;
    reply.request.log.error({ err: error }, 'a file could not be written');
    stream.destroy(error instanceof Error ? error : new Error('The file could not be written.'));
  });
  return reply.send(stream);
}
