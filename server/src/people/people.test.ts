import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { PASSWORD, startServer, type TestServer } from '../../test/app.js';
import { importStudy } from '../../test/study.js';
import { ensureOwner } from './accounts.js';
import { createSessionStore, removeExpiredSessions } from './sessionStore.js';

let server: TestServer;
const logged: string[] = [];
beforeAll(async () => {
  server = await startServer({ log: { write: (line) => void logged.push(line) } });
});
afterAll(() => server.stop());

describe('signing in', () => {
  test('the owner’s one-time password is printed once and must be replaced before anything else', async () => {
    const oneTime = await ensureOwner(server.orm.em.fork());
    expect(oneTime).toMatch(/^[\w-]{12}$/);
    expect(await ensureOwner(server.orm.em.fork())).toBeNull();
    const owner = server.visitor();
    await owner.signIn('owner', oneTime!);
    expect((await owner.get('/studies')).body).toMatchObject({ code: 'password_to_choose' });
    expect((await owner.session('PUT', '/password', { password: 'short' })).status).toBe(400);
    for (const password of ['password1234', 'qwertyuiop12', 'owner owner 1'])
      expect((await owner.session('PUT', '/password', { password })).body).toMatchObject({
        code: 'weak_password',
      });
    expect((await owner.session('PUT', '/password', { password: 'long enough now' })).status).toBe(
      200,
    );
    expect((await owner.get('/studies')).status).toBe(200);
    const again = server.visitor();
    expect((await again.signIn('owner', oneTime!)).status).toBe(401);
  });

  test('a wrong password and an unknown name are told the same', async () => {
    const visitor = server.visitor();
    await server.enter('Rowan');
    const wrong = await visitor.signIn('Rowan', 'not it at all');
    const unknown = await visitor.signIn('Nobody', 'not it at all');
    expect([wrong.status, wrong.body]).toEqual([unknown.status, unknown.body]);
    expect(wrong.status).toBe(401);
  });

  test('guesses from many addresses wait longer and longer; who was here before is not locked out', async () => {
    const hazel = await server.enter('Hazel');
    const answers = await Promise.all(
      Array.from({ length: 40 }, () => server.visitor().signIn('Hazel', 'a guess')),
    );
    const statuses = answers.map(({ status }) => status);
    expect(statuses.filter((status) => status === 401)).toHaveLength(5);
    expect(statuses.filter((status) => status === 429)).toHaveLength(35);
    const waits = () =>
      server.visitor().signIn('Hazel', PASSWORD) as Promise<{
        body: { details?: { seconds: number } };
      }>;
    const first = (await waits()).body.details!.seconds;
    // as if that time were over, and one more guess were made
    await server.sql(
      `update sign_in_try set last_at = last_at - interval '10 minutes' where kind = 'account'`,
    );
    await server.visitor().signIn('Hazel', 'a guess');
    expect((await waits()).body.details!.seconds).toBeGreaterThan(first);
    expect((await hazel.signIn('Hazel', PASSWORD)).status).toBe(200);
  });

  test('nothing is kept of who only looks in, and sessions end in the end', async () => {
    const count = async () =>
      (await server.sql<{ n: number }>('select count(*)::int as n from session'))[0]!.n;
    const before = await count();
    for (let n = 0; n < 5; n++) await server.visitor().session('GET', '/session');
    expect(await count()).toBe(before);
    const linden = await server.enter('Linden');
    await server.sql(`update session set started_at = now() - interval '61 days'
      where account_id = ${linden.accountId}`);
    expect((await linden.get('/studies')).status).toBe(401);
    await removeExpiredSessions(server.orm.em.fork());
    expect(await count()).toBeLessThanOrEqual(before);
  });

  test('a request that ends after its session was ended does not bring it back', async () => {
    const store = createSessionStore(server.orm);
    const { accountId } = await server.enter('Wren');
    const session = { accountId, cookie: { originalMaxAge: null } } as Parameters<
      typeof store.set
    >[1];
    const save = () => new Promise((resolve) => store.set('wren', session, resolve));
    const stored = () =>
      new Promise((resolve) => store.get('wren', (_, found) => resolve(found ?? null)));
    await save();
    expect(await stored()).toMatchObject({ accountId });
    await new Promise((resolve) => store.destroy('wren', resolve));
    await save();
    expect(await stored()).toBeNull();
  });

  test('a new password ends the person’s other sessions; signing out ends this one', async () => {
    const first = await server.enter('Ash');
    const second = server.visitor();
    await second.signIn('Ash', PASSWORD);
    const password = 'another good one';
    for (const old of [undefined, 'not it at all'])
      expect((await second.session('PUT', '/password', { password, old })).body).toMatchObject({
        code: 'wrong_old_password',
      });
    await second.session('PUT', '/password', { password, old: PASSWORD });
    expect((await first.get('/studies')).status).toBe(401);
    expect((await second.get('/studies')).status).toBe(200);
    await second.send('DELETE', '/session');
    expect((await second.get('/studies')).status).toBe(401);
  });

  test('the cookie is out of reach of scripts and other sites, and changes need a token', async () => {
    const person = await server.enter('Birch');
    const { headers } = await person.get('/studies');
    expect(String(headers['set-cookie'])).toMatch(/HttpOnly.*SameSite=Lax/);
    expect(String(headers['content-security-policy'])).toContain("default-src 'self'");
    const withoutToken = await person.send('POST', '/studies', {
      body: { name: 'x', purpose: '' },
      headers: { 'csrf-token': '' },
    });
    expect(withoutToken.body).toMatchObject({ code: 'stale_page' });
  });
});

test('every address of a study exists for its members only', async () => {
  const member = await server.enter('Member');
  const stranger = await server.enter('Stranger');
  const { body: study } = await member.send<{ id: number }>('POST', '/studies', {
    body: { name: 'Mine', purpose: '' },
  });
  const { body: api } = await member.get<{ paths: Record<string, Record<string, unknown>> }>(
    '/docs/json',
  );
  const uuid = '11111111-1111-4111-8111-111111111111';
  let tried = 0;
  for (const [path, methods] of Object.entries(api.paths)) {
    if (!path.includes('{study}')) continue;
    const address = path
      .replace('/api', '')
      .replace('{study}', String(study.id))
      .replaceAll(/\{(code|theme|mention)\}/g, uuid)
      .replaceAll(/\{\w+\}/g, '1');
    for (const method of Object.keys(methods)) {
      const verb = method.toUpperCase() as 'GET';
      const foreign = await stranger.send(verb, address, verb === 'GET' ? {} : { body: {} });
      expect([path, method, foreign.status, foreign.body.sentence]).toEqual([
        path,
        method,
        404,
        'There is no such study here, or you have no access to it.',
      ]);
      const signedOut = await server.app.inject({ method: 'GET', url: `/api${address}` });
      if (verb === 'GET') expect([path, signedOut.statusCode]).toEqual([path, 401]);
      tried += 1;
    }
  }
  expect(tried).toBeGreaterThan(20);
});

test('logs say what was asked and never what was written', async () => {
  const person = await server.enter('Quill');
  await person.send('POST', '/studies', { body: { name: 'A whispered name', purpose: '' } });
  await person.get('/studies/1/questions/1/ledger?words=whispered');
  // a failure inside the database quotes its values: they must not get out either
  await server.sql('alter table study rename to study_away');
  const failed = await person.send('POST', '/studies', {
    body: { name: 'A whispered name', purpose: '' },
  });
  await server.sql('alter table study_away rename to study');
  expect(failed.status).toBe(500);
  expect(failed.body.sentence).toContain('Something went wrong');
  const all = logged.join('');
  expect(all).toContain('"path":"/api/studies"');
  expect(all).toContain('"level":50');
  for (const secret of ['whispered', PASSWORD, 'long enough now'])
    expect(logged.filter((line) => line.includes(secret))).toEqual([]);
});

describe('who works in a study', () => {
  interface Members {
    members: { id: number; name: string; hasEntered: boolean; mayBeGivenPassword: boolean }[];
  }
  type Given = { password: string; code: string };

  test('a new person signs in with a one-time password; strangers stay out', async () => {
    const maker = await server.enter('Sorrel');
    const { body: study } = await maker.send<{ id: number }>('POST', '/studies', {
      body: { name: 'Ferries', purpose: '' },
    });
    const path = `/studies/${study.id}/members`;
    const members = async () => (await maker.get<Members>(path)).body.members;
    const added = await maker.send<Given>('POST', path, { body: { name: ' Tansy ' } });
    expect(added.body.password).toMatch(/^[\w-]{12}$/);
    expect((await maker.send<Given>('POST', path, { body: { name: 'Tansy' } })).body.code).toBe(
      'already_member',
    );
    expect(await members()).toMatchObject([
      { name: 'Sorrel', hasEntered: true, mayBeGivenPassword: false },
      { name: 'Tansy', hasEntered: false, mayBeGivenPassword: true },
    ]);
    const [, { id }] = (await members()) as [unknown, { id: number }];
    // whoever knows a one-time password must not come by it into a study of somebody else
    const elsewhere = await server.enter('Teasel');
    const { body: other } = await elsewhere.send<{ id: number }>('POST', '/studies', {
      body: { name: 'Piers', purpose: '' },
    });
    const letIn = () =>
      elsewhere.send<Given>('POST', `/studies/${other.id}/members`, { body: { name: 'Tansy' } });
    expect((await letIn()).body.code).toBe('not_entered_yet');
    // removed before they signed in and added again, they get another password
    await maker.send('DELETE', `${path}/${id}`);
    const anew = await maker.send<Given>('POST', path, { body: { name: 'Tansy' } });
    expect(anew.body.password).not.toBe(added.body.password);
    const again = await maker.send<Given>('POST', `${path}/${id}/password`);
    const tansy = server.visitor();
    expect((await tansy.signIn('Tansy', added.body.password)).status).toBe(401);
    await tansy.signIn('Tansy', again.body.password);
    expect((await tansy.get(path)).body).toMatchObject({ code: 'password_to_choose' });
    await tansy.session('PUT', '/password', { password: 'one of my own' });
    expect((await tansy.get(path)).status).toBe(200);
    expect((await maker.send<Given>('POST', `${path}/${id}/password`)).body.code).toBe(
      'password_of_their_own',
    );
    const stranger = await server.enter('Yarrow');
    for (const reply of [
      await stranger.send('POST', path, { body: { name: 'Yarrow' } }),
      await stranger.send('POST', `${path}/${id}/password`),
      await stranger.send('DELETE', `${path}/${id}`),
    ])
      expect(reply.status).toBe(404);
    // nobody outside the study is given a password through it
    expect((await maker.send('POST', `${path}/${stranger.accountId}/password`)).status).toBe(404);
    expect((await letIn()).body).toEqual({ password: null });
    await maker.send('DELETE', `${path}/${id}`);
    expect((await tansy.get(path)).status).toBe(404);
    expect((await maker.send('DELETE', `${path}/${maker.accountId}`)).body.code).toBe(
      'last_member',
    );
  });

  test('the owner alone replaces a password that somebody chose, which ends their sessions', async () => {
    const fern = await server.enter('Fern');
    const { body: study } = await fern.send<{ id: number }>('POST', '/studies', {
      body: { name: 'Boats', purpose: '' },
    });
    const path = `/studies/${study.id}/members`;
    await fern.send('POST', path, { body: { name: 'owner' } });
    const owner = server.visitor();
    await owner.signIn('owner', 'long enough now');
    const { members } = (await owner.get<Members>(path)).body;
    expect(members.map(({ name, mayBeGivenPassword }) => [name, mayBeGivenPassword])).toEqual([
      ['Fern', true],
      ['owner', false],
    ]);
    const [, { id: ownerId }] = members as [unknown, { id: number }];
    expect((await fern.send<Given>('DELETE', `${path}/${ownerId}`)).body.code).toBe(
      'not_the_owner',
    );
    const { body } = await owner.send<Given>('POST', `${path}/${fern.accountId}/password`);
    expect((await fern.get('/studies')).status).toBe(401);
    // the new one may open other studies too: who shares but this one may not replace it
    const { body: more } = await owner.send<{ id: number }>('POST', '/studies', {
      body: { name: 'More', purpose: '' },
    });
    await server.sql(
      'insert into membership (study_id, account_id) values (:moreId, :fernAccountId)',
      { moreId: more.id, fernAccountId: fern.accountId },
    );
    const rue = await server.enter('Rue');
    await owner.send('POST', path, { body: { name: 'Rue' } });
    expect((await rue.send<Given>('POST', `${path}/${fern.accountId}/password`)).status).toBe(403);
    expect((await fern.signIn('Fern', body.password)).status).toBe(200);
    expect((await fern.get('/studies')).body).toMatchObject({ code: 'password_to_choose' });
    expect(logged.join('')).not.toContain(body.password);
  });
});

test('the owner reads who did what, without a word of any answer or name of a study', async () => {
  const sedge = await server.enter('Sedge');
  const study = await importStudy(sedge, 'id,Why?\n1,whispered words\n');
  await sedge.get(`${study.base}/codebook/files/csv`);
  await server.visitor().signIn('Sedge', 'whispered');
  const { id } = (
    await sedge.send<{ id: number }>('POST', `${study.base}/members`, { body: { name: 'owner' } })
  ).body;
  expect(id).toBeUndefined();
  const owner = server.visitor();
  await owner.signIn('owner', 'long enough now');
  const { entries } = (
    await owner.get<{ entries: { action: string; account: string; studyId: number }[] }>('/audit')
  ).body;
  const ofStudy = entries.filter(({ studyId }) => studyId === study.id);
  expect(ofStudy.map(({ action, account }) => [action, account])).toEqual([
    ['member_added', 'Sedge'],
    ['exported', 'Sedge'],
  ]);
  const actions = entries.map(({ action }) => action);
  for (const action of ['signed_in', 'sign_in_refused', 'password_chosen', 'member_removed'])
    expect(actions).toContain(action);
  expect(JSON.stringify(entries)).not.toContain('whispered');
  expect((await sedge.get('/audit')).status).toBe(404);
});
