import { isIP } from 'node:net';
import type { FastifyRequest } from 'fastify';
import { problems } from './wording/problems.js';
import type { App } from './app.types.js';

/** Whether a request changes nothing. */
export const isRead = ({ method }: FastifyRequest): boolean =>
  ['GET', 'HEAD', 'OPTIONS'].includes(method);

/** The name in a `Host` header, without its port; null for what is none. */
function nameIn(host: string | undefined): string | null {
  try {
    return new URL(`http://${host}`).hostname.replace(/^\[|\]$/gu, '');
  } catch {
    return null;
  }
}

const isLoopback = (name: string) => name === 'localhost' || name === '::1' || /^127\./u.test(name);

/** Headers by which a proxy tells that somebody else asked. */
const forwardedBy = ['forwarded', 'via', 'x-forwarded-for', 'x-forwarded-host', 'x-real-ip'];

/**
 * Whether a request was made by a browser on this machine, as far as can be told: by the name, by the address, and as
 * no proxy makes it. Proxies that tell nothing about themselves speak HTTP/1.0 or pass on a foreign origin.
 */
export function isFromThisMachine({ headers, ip, raw }: FastifyRequest): boolean {
  const name = nameIn(headers.host);
  return (
    name !== null &&
    isLoopback(name) &&
    isLoopback(ip.replace(/^::ffff:/u, '')) &&
    raw.httpVersion !== '1.0' &&
    forwardedBy.every((header) => headers[header] === undefined)
  );
}

/**
 * Answers only to the names that the server is known by, so that no foreign page reaches it by a name of its own that
 * leads here (DNS rebinding), and takes changes only from its own pages.
 *
 * @param publicUrls addresses that people open the app at; without any, addresses in figures are known besides
 *   those of loopback, since no foreign page has one
 */
export function guardHosts(app: App, publicUrls: readonly URL[]): void {
  const names = new Set(publicUrls.map((url) => url.hostname.replace(/^\[|\]$/gu, '')));
  const origins = new Set(publicUrls.map((url) => url.origin));
  const isKnown = (name: string) =>
    isLoopback(name) || names.has(name) || (names.size === 0 && isIP(name) > 0);

  app.addHook('onRequest', (request, _, done) => {
    const { host, origin } = request.headers;
    const name = nameIn(host);
    if (name === null || !isKnown(name)) return done(problems.unknownHost(name ?? ''));
    if (isRead(request)) return done();
    const isOwn =
      origin === undefined
        ? request.headers['sec-fetch-site'] !== 'cross-site'
        : origins.has(origin) || origin === `http://${host}` || origin === `https://${host}`;
    done(isOwn ? undefined : problems.foreignOrigin());
  });
}
