import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { startServer, type TestServer } from '../test/app.js';

describe('on loopback', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await startServer();
  });
  afterAll(() => server.stop());
  const enterDemo = (headers: Record<string, string>, remoteAddress = '127.0.0.1') =>
    server.app
      .inject({ method: 'POST', url: '/api/session/demo', remoteAddress, headers })
      .then((reply) => [reply.statusCode, reply.json<{ code?: string }>().code ?? 'entered']);

  test('the demo is for a browser on this machine, not for one behind a proxy or of a foreign page', async () => {
    for (const host of ['localhost:4310', '127.0.0.1:4310', '[::1]:4310'])
      expect(await enterDemo({ host, origin: `http://${host}` })).toEqual([200, 'entered']);
    const host = '127.0.0.1:4310';
    // a page of a foreign name that was made to lead here
    expect(await enterDemo({ host: 'rebound.example:4310' })).toEqual([421, 'unknown_host']);
    // a proxy that tells of itself, and one that hands on nothing but what the browser says
    for (const header of ['x-forwarded-for', 'forwarded', 'via', 'x-real-ip'])
      expect(await enterDemo({ host, [header]: '192.0.2.7' })).toEqual([403, 'demo_not_offered']);
    expect(await enterDemo({ host, origin: 'http://survey.example' })).toEqual([
      403,
      'foreign_origin',
    ]);
    expect(await enterDemo({ host }, '192.0.2.7')).toEqual([403, 'demo_not_offered']);
    const offered = await server.app.inject({
      url: '/api/session',
      headers: { host, 'x-forwarded-for': '192.0.2.7' },
    });
    expect(offered.json()).toMatchObject({ demoOffered: false });
  });

  test('changes come from the server’s own pages only', async () => {
    const person = await server.enter('Rowan');
    const make = (headers: Record<string, string>) =>
      person.send('POST', '/studies', { body: { name: 'x', purpose: '' }, headers });
    expect((await make({ host: '10.1.2.3', origin: 'http://10.1.2.3' })).status).toBe(200);
    for (const origin of ['http://10.1.2.4', 'null', 'http://localhost:81'])
      expect((await make({ host: '10.1.2.3', origin })).body.code).toBe('foreign_origin');
    expect((await make({ 'sec-fetch-site': 'cross-site' })).body.code).toBe('foreign_origin');
  });
});

describe('behind a proxy', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await startServer({
      publicUrls: [new URL('https://threads.example')],
      trustProxy: ['127.0.0.1'],
    });
  });
  afterAll(() => server.stop());

  test('people sign in by the public address, with a cookie for encrypted connections', async () => {
    await server.sql(`insert into account (name, password_hash)
      select 'Ash', password_hash from account limit 1`);
    const signIn = (headers: Record<string, string>) =>
      server.app.inject({
        method: 'POST',
        url: '/api/session',
        headers: { host: 'threads.example', origin: 'https://threads.example', ...headers },
        payload: { name: 'Ash', password: 'x' },
      });
    expect((await signIn({})).json()).toMatchObject({ code: 'not_encrypted' });
    const through = { 'x-forwarded-proto': 'https', 'x-forwarded-for': '192.0.2.7' };
    expect((await signIn(through)).json()).toMatchObject({ code: 'wrong_sign_in' });
    const person = await server.enter('Rowan', through);
    expect(String((await person.get('/studies')).headers['set-cookie'])).toMatch(
      /Secure.*SameSite=Strict/,
    );
    expect((await signIn({ ...through, host: '10.1.2.3' })).statusCode).toBe(421);
  });

  test('tries are counted by who asks, and who cannot be believed is the proxy', async () => {
    const guess = (from: string, remoteAddress = '127.0.0.1') =>
      server.app.inject({
        method: 'POST',
        url: '/api/session',
        remoteAddress,
        headers: { host: 'localhost', 'x-forwarded-proto': 'https', 'x-forwarded-for': from },
        payload: { name: `nobody ${Math.random()}`, password: 'x' },
      });
    const statuses = [];
    for (let n = 0; n < 21; n++) statuses.push((await guess('192.0.2.8')).statusCode);
    expect(statuses.slice(0, 20)).toEqual(Array(20).fill(401));
    // the twenty-first waits, and nobody beside it does
    expect((await guess('192.0.2.8')).statusCode).toBe(429);
    expect((await guess('192.0.2.9')).statusCode).toBe(401);
    // somebody who is no proxy of ours says whatever they like
    expect((await guess('192.0.2.10', '203.0.113.1')).statusCode).toBe(403);
  });
});
