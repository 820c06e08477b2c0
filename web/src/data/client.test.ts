import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { api } from '@yellow-thread/contract';
import { call, callSession, withQuery } from './client.js';
import { asProblem, failureKind, ProblemError } from '../lib/problem.js';

const realFetch = globalThis.fetch;
let requests: { path: string; init: RequestInit }[];
const reply = (status: number, body: unknown) => {
  globalThis.fetch = (path, init) => {
    requests.push({ path: typeof path === 'string' ? path : '', init: init ?? {} });
    return Promise.resolve(new Response(JSON.stringify(body), { status }));
  };
};
const session = { account: null, csrfToken: 'token-1', demoOffered: false };

beforeEach(() => {
  requests = [];
  // no group restricts the study
  globalThis.sessionStorage = { getItem: () => null } as unknown as Storage;
});
afterEach(() => {
  globalThis.fetch = realFetch;
});

test('a change is given up only when it was refused for good', () => {
  const problem = (status: number) => new ProblemError(status, { code: 'busy', sentence: 'X.' });
  expect([400, 404, 409, 422].map((status) => failureKind(problem(status)))).toEqual(
    Array(4).fill('refused'),
  );
  expect([401, 403, 429].map((status) => failureKind(problem(status)))).toEqual(
    Array(3).fill('not_now'),
  );
  expect([problem(500), problem(503), new TypeError('away')].map(failureKind)).toEqual(
    Array(3).fill('not_answered'),
  );
});

describe('calling the API', () => {
  test('changes carry the token of the session, reading does not', async () => {
    reply(200, session);
    await callSession(api.getSession);
    reply(200, { done: true });
    await call(api.archiveStudy, { params: { study: 1 }, body: { isArchived: true } });
    reply(200, { studies: [] });
    await call(api.listStudies);
    const [, post, get] = requests;
    expect(post!.init.headers).toMatchObject({
      'csrf-token': 'token-1',
      'content-type': 'application/json',
    });
    expect(post!.init.body).toBe('{"isArchived":true}');
    expect(get!.init.headers).toEqual({});
  });

  test('a file is sent as it is: the browser names its type', async () => {
    reply(200, { codes: [], newThemes: [], newBundles: [], intoBundles: 0, left: [] });
    const body = new FormData();
    body.append('file', new Blob(['a,b']), 'a.csv');
    await call(api.readCodeList, { params: { study: 1 }, body });
    expect(requests[0]!.init.body).toBe(body);
    expect(requests[0]!.init.headers).not.toHaveProperty('content-type');
  });

  test('a problem comes through with its code, sentence and status', async () => {
    reply(409, { code: 'name_taken', sentence: 'There already is one.' });
    const failed = call(api.signOut);
    await expect(failed).rejects.toBeInstanceOf(ProblemError);
    await expect(failed).rejects.toMatchObject({ status: 409, problem: { code: 'name_taken' } });
    await expect(failed.catch((error: unknown) => asProblem(error).sentence)).resolves.toBe(
      'There already is one.',
    );
  });

  test('an answer that is not what the contract says is not taken for one', async () => {
    reply(200, { done: 'perhaps' });
    await expect(call(api.signOut)).rejects.toThrow();
    reply(502, { oops: true });
    await expect(call(api.signOut)).rejects.toMatchObject({
      problem: { code: 'unexpected' },
    });
  });

  test('a server that does not answer is told as such', () => {
    expect(asProblem(new TypeError('fetch failed')).code).toBe('no_connection');
    expect(asProblem(new Error('else')).code).toBe('unexpected');
  });

  test('an address holds only what was chosen', () => {
    expect(withQuery('/a', { by: 'none', after: undefined, words: 'a b&c' })).toBe(
      '/a?by=none&words=a+b%26c',
    );
    expect(withQuery('/a')).toBe('/a');
  });
});
