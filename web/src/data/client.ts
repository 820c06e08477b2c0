import {
  problemCodeSchema,
  problemSchema,
  type Endpoint,
  type ReplyOf,
  type SentBody,
  type SentParams,
  type Session,
  type sessionSchema,
} from '@yellow-thread/contract';
import type { z } from 'zod';
import { ProblemError } from '../lib/problem.js';
import { groupFor } from './restriction.js';
import { clientTexts } from './texts.js';

/** A server that is newer than this page may know other codes: its sentence is told all the same. */
const receivedProblem = problemSchema.extend({ code: problemCodeSchema.catch('unexpected') });

let csrfToken = '';

/** Tells this tab from others: what it changed itself it need not be told. */
export const TAB = crypto.randomUUID();

type Query = Record<string, string | number | boolean | undefined>;

/** What is sent to an operation beside its method. */
export type CallOptions<One extends Endpoint> = {
  query?: Query;
  /** The same as it stands in an address. */
  search?: string;
  signal?: AbortSignal;
} & (One['params'] extends z.ZodType ? { params: SentParams<One> } : { params?: undefined }) &
  (One['body'] extends z.ZodType ? { body: SentBody<One> } : { body?: FormData });

type Optional<Options> = object extends Options ? [options?: Options] : [options: Options];

/** A request that is ready to be sent, now or later. */
export interface PreparedRequest {
  method: Endpoint['method'];
  path: string;
  body?: unknown;
}

/** The address of an operation, without the group that the study is restricted to. */
export function pathOf<One extends Endpoint>(
  endpoint: One,
  options: Omit<CallOptions<One>, 'body' | 'signal'>,
): string {
  const params = new Map(Object.entries(options.params ?? {}));
  const path = endpoint.path.replaceAll(/:(\w+)/gu, (_, name: string) =>
    encodeURIComponent(String(params.get(name))),
  );
  return withQuery(options.search ? `${path}?${options.search}` : path, options.query);
}

/** The address at which a file is downloaded or an operation called by something else than `call`. */
export const addressOf = <One extends Endpoint>(
  endpoint: One,
  options: Omit<CallOptions<One>, 'body' | 'signal'>,
): string => withGroup(pathOf(endpoint, options));

export function prepare<One extends Endpoint>(
  endpoint: One,
  ...[options = {} as CallOptions<One>]: Optional<CallOptions<One>>
): PreparedRequest {
  const { method } = endpoint;
  const path = pathOf(endpoint, options);
  return { method, path, ...(options.body !== undefined && { body: options.body }) };
}

/** Calls an operation of the API and checks what comes back against the contract. @throws ProblemError, TypeError */
export const call = <One extends Endpoint>(
  endpoint: One,
  ...[options = {} as CallOptions<One>]: Optional<CallOptions<One>>
): Promise<ReplyOf<One>> =>
  sendRequest(
    prepare<Endpoint>(endpoint, options as CallOptions<Endpoint>),
    endpoint.reply,
    options.signal,
  ) as Promise<ReplyOf<One>>;

/** Sends a request that was prepared. @throws ProblemError, TypeError */
export async function sendRequest<Reply extends z.ZodType>(
  { method, path, body }: PreparedRequest,
  reply: Reply,
  signal?: AbortSignal,
): Promise<z.output<Reply>> {
  const isForm = body instanceof FormData;
  const response = await fetch(withGroup(path), {
    method,
    signal: signal ?? null,
    headers: {
      ...(method !== 'GET' && { 'csrf-token': csrfToken, tab: TAB }),
      ...(body !== undefined && !isForm && { 'content-type': 'application/json' }),
    },
    body: body === undefined ? null : isForm ? body : JSON.stringify(body),
  });
  const received: unknown = await response.json();
  if (response.ok) return reply.parse(received);
  const problem = receivedProblem.safeParse(received);
  throw new ProblemError(
    response.status,
    problem.success
      ? problem.data
      : { code: 'unexpected', sentence: clientTexts.serverGaveAnswerMakes },
  );
}

/** An address with the group that the study is restricted to. */
const withGroup = (path: string): string => withQuery(path, { group: groupFor(path) });

export function withQuery(path: string, query: Query = {}): string {
  const params = new URLSearchParams();
  for (const [key, value] of Object.entries(query))
    if (value !== undefined) params.set(key, String(value));
  if (params.size === 0) return path;
  return `${path}${path.includes('?') ? '&' : '?'}${params}`;
}

type SessionEndpoint = Endpoint & { reply: typeof sessionSchema };

/** Calls that begin, end or ask about the session; they bring the token that changes must carry. */
export async function callSession<One extends SessionEndpoint>(
  endpoint: One,
  ...options: Optional<CallOptions<One>>
): Promise<Session> {
  const session: Session = await call(endpoint, ...options);
  csrfToken = session.csrfToken ?? '';
  return session;
}

/**
 * Sends a form with a file in it. Unlike `fetch` this tells how much is sent already.
 *
 * @returns status 0 when it was called off
 */
export const send = (
  path: string,
  body: FormData,
  {
    onProgress,
    onRequest,
  }: { onProgress: (share: number) => void; onRequest?: (request: XMLHttpRequest) => void },
): Promise<{ status: number; received: unknown }> =>
  new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', path);
    request.setRequestHeader('csrf-token', csrfToken);
    request.responseType = 'json';
    request.upload.addEventListener('progress', ({ loaded, total }) => onProgress(loaded / total));
    request.addEventListener('load', () =>
      resolve({ status: request.status, received: request.response as unknown }),
    );
    request.addEventListener('abort', () => resolve({ status: 0, received: null }));
    request.addEventListener('error', () => reject(new TypeError('no connection')));
    onRequest?.(request);
    request.send(body);
  });
