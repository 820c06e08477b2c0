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
