import { problemSchema, sessionSchema, type Problem, type Session } from '@yellow-thread/contract';
import type { z } from 'zod';
import { groupFor } from './restriction.js';
import { clientTexts } from './texts.js';

/** A reply that says what went wrong. */
export class ProblemError extends Error {
  readonly problem: Problem;
  readonly status: number;
  constructor(status: number, problem: Problem) {
    super(problem.sentence);
    this.status = status;
    this.problem = problem;
  }
}

/**
 * What became of a request: refused for good; not for now, as the session or the page is out of date; or not
 * answered, by a server that is away or in trouble.
 */
export function failureKind(error: unknown): 'refused' | 'not_now' | 'not_answered' {
  if (!(error instanceof ProblemError) || error.status >= 500) return 'not_answered';
  return [401, 403, 408, 429].includes(error.status) ? 'not_now' : 'refused';
}

/** Whatever was thrown, as something that can be told to a person. */
export function asProblem(error: unknown): Problem {
  if (error instanceof ProblemError) return error.problem;
  if (error instanceof TypeError)
    return {
      code: 'no_connection',
      sentence: clientTexts.serverAnswerCheckRuns,
    };
  return {
    code: 'unexpected',
    sentence: clientTexts.somethingWentWrongPage,
  };
}

let csrfToken = '';

/** Tells this tab from others: what it changed itself it need not be told. */
export const TAB = crypto.randomUUID();

export interface Call<Reply extends z.ZodType> {
  reply: Reply;
  method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  query?: Record<string, string | number | boolean | undefined>;
  body?: unknown;
  signal?: AbortSignal;
}

/** Calls the API and checks what comes back against the contract. @throws ProblemError, TypeError */
export async function call<Reply extends z.ZodType>(
  path: string,
  { reply, method = 'GET', query, body, signal }: Call<Reply>,
): Promise<z.output<Reply>> {
  const isForm = body instanceof FormData;
  const response = await fetch(withGroup(path, query), {
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
  const problem = problemSchema.safeParse(received);
  throw new ProblemError(
    response.status,
    problem.success
      ? problem.data
      : { code: 'unexpected', sentence: clientTexts.serverGaveAnswerMakes },
  );
}

/** An address with what is asked for, and with the group that the study is restricted to. */
export const withGroup = (path: string, query: Call<z.ZodType>['query'] = {}): string =>
  withQuery(path, { ...query, group: groupFor(path) });

export function withQuery(path: string, query: Call<z.ZodType>['query'] = {}): string {
  const params = new URLSearchParams();
  for (const [key, value] of Object.entries(query))
    if (value !== undefined) params.set(key, String(value));
  if (params.size === 0) return path;
  return `${path}${path.includes('?') ? '&' : '?'}${params}`;
}

/** Calls that begin, end or ask about the session; they bring the token that changes must carry. */
export async function callSession(
  path: string,
  options: Omit<Call<typeof sessionSchema>, 'reply'> = {},
): Promise<Session> {
  const session = await call(path, { ...options, reply: sessionSchema });
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
  }: { onProgress: (share: number) => void; onRequest: (request: XMLHttpRequest) => void },
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
    onRequest(request);
    request.send(body);
  });
