import { Readable } from 'node:stream';
import { hash } from '@node-rs/argon2';
import { buildApp } from '../src/app.js';
import type { AppOptions } from '../src/appOptions.js';
import type { App } from '../src/app.types.js';
import { openDatabase, row, rows, type SqlValues } from '../src/database/index.js';
import { createThreads } from '../src/jobs/index.js';
import { startRunners } from '../src/runners.js';
import { createDatabase } from './databases.js';

// texts are read for meaning only where a test is about that: it takes seconds of every thread
process.env['SENTENCE_ENCODER'] ??= 'none';

export type TestServer = Awaited<ReturnType<typeof startServer>>;
export type Client = ReturnType<typeof createClient>;
export const PASSWORD = 'correct horse battery';

/** The whole server on a database of its own, as it runs in the product. */
export async function startServer(
  options: Omit<Partial<AppOptions>, 'orm' | 'threads' | 'beats'> = {},
) {
  const database = await createDatabase();
  const orm = await openDatabase(database.url, { migrate: false });
  const jobs = await openDatabase(database.url, { migrate: false, use: 'jobs' });
  const threads = createThreads();
  const errors: unknown[] = [];
  const undeclared = new Set<string>();
  const runners = startRunners(jobs, threads, (error) => errors.push(error));
  const app = await buildApp({
    orm,
    threads,
    demo: true,
    beats: runners.beats,
    onUndeclaredProblem: (operation, code) => undeclared.add(`${operation}: ${code}`),
    ...options,
  });
  return {
    app,
    orm,
    threads,
    url: database.url,
    /** What the job runner complained of. */
    errors,
    sql: <Row>(text: string, values: SqlValues = {}) => rows<Row>(orm.em.fork(), text, values),
    /** A new person, signed in. */
    async enter(name: string, headers: Record<string, string> = {}): Promise<Client> {
      const { id } = await row<{ id: number }>(
        orm.em.fork(),
        'insert into account (name, password_hash) values (:name, :passwordHash) returning id',
        { name, passwordHash: await hash(PASSWORD, { memoryCost: 1024, timeCost: 1 }) },
      );
      const client = createClient(app, id, headers);
      await client.signIn(name, PASSWORD);
      return client;
    },
    visitor: () => createClient(app, 0),
    async stop() {
      await app.close();
      await runners.stop();
      await threads.close();
      await jobs.close();
      await orm.close();
      await database.drop();
      // every test holds the contract to the problems that it declares
      if (undeclared.size > 0)
        throw new Error(`Problems that no endpoint declares: ${[...undeclared].join(', ')}`);
    },
  };
}

export interface Reply<Body> {
  status: number;
  body: Body;
  text: string;
  bytes: Buffer;
  headers: Record<string, unknown>;
}
type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

let clients = 0;

/** A browser's part, at an address of its own: keeps the cookie, sends the token that changes must carry. */
export function createClient(app: App, accountId: number, own: Record<string, string> = {}) {
  clients += 1;
  const remoteAddress = own['x-forwarded-for'] ? '127.0.0.1' : `10.0.0.${clients}`;
  let cookie = '';
  let token = '';
  async function send<Body = { code: string; sentence: string }>(
    method: Method,
    path: string,
    options: { body?: unknown; headers?: Record<string, string>; payload?: Readable | string } = {},
  ): Promise<Reply<Body>> {
    const reply = await app.inject({
      method,
      remoteAddress,
      url: `/api${path}`,
      headers: {
        cookie,
        ...own,
        ...(method !== 'GET' && { 'csrf-token': token }),
        ...(options.body !== undefined && { 'content-type': 'application/json' }),
        ...options.headers,
      },
      ...(options.body !== undefined && { payload: JSON.stringify(options.body) }),
      ...(options.payload && { payload: options.payload }),
    });
    const set = reply.headers['set-cookie'];
    if (set) cookie = String(Array.isArray(set) ? set[0] : set).split(';')[0]!;
    const isJson = String(reply.headers['content-type']).includes('json');
    return {
      status: reply.statusCode,
      // the caller names the shape; the server has checked it against the contract
      body: (isJson ? reply.json() : undefined) as Body,
      text: reply.body,
      bytes: reply.rawPayload,
      headers: reply.headers,
    };
  }
  const session = async (method: Method, path: string, body?: unknown) => {
    const reply = await send<{ csrfToken: string; account: { name: string } | null }>(
      method,
      path,
      body === undefined ? {} : { body },
    );
    if (reply.status === 200) token = reply.body.csrfToken;
    return reply;
  };
  function uploadTo<Body>(path: string, fileName: string, content: Uint8Array) {
    const boundary = 'a-boundary-that-is-not-in-the-file';
    const payload = Buffer.concat([
      Buffer.from(
        `--${boundary}\r\nContent-Disposition: form-data; name="file"; filename="${fileName}"\r\n` +
          'Content-Type: application/octet-stream\r\n\r\n',
      ),
      content,
      Buffer.from(`\r\n--${boundary}--\r\n`),
    ]);
    return send<Body>('POST', path, {
      payload: Readable.from([payload]),
      headers: { 'content-type': `multipart/form-data; boundary=${boundary}` },
    });
  }
  return {
    accountId,
    cookie: () => cookie,
    token: () => token,
    /** Goes on with somebody's session, at another server. */
    continueAs(one: { cookie: () => string; token: () => string }) {
      cookie = one.cookie();
      token = one.token();
    },
    send,
    session,
    get: <Body>(path: string) => send<Body>('GET', path),
    async signIn(name: string, password: string) {
      await session('GET', '/session');
      return session('POST', '/session', { name, password });
    },
    upload: <Body>(study: number, fileName: string, content: Uint8Array) =>
      uploadTo<Body>(`/studies/${study}/sheets`, fileName, content),
    uploadTo,
    /** Waits until a job has ended, whatever became of it. */
    async jobEnd(study: number, job: number) {
      for (;;) {
        const { body } = await send<{
          state: string;
          problem: { code: string; sentence: string } | null;
        }>('GET', `/studies/${study}/jobs/${job}`);
        if (body.state !== 'waiting' && body.state !== 'running') return body;
        await new Promise((resolve) => setTimeout(resolve, 50));
      }
    },
  };
}
