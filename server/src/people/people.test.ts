import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  Invitation,
  InvitationLink,
  Member,
  OpenSession,
  Role,
} from '@yellow-thread/contract';
import { PASSWORD, startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy, letIn } from '../../test/study.js';
import { ensureOwner } from './accounts.js';
import { removeExpiredInvitations } from './invitations.js';
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
  const path = (study: number) => `/studies/${study}`;
  const newStudy = async (client: Client, name = 'Ferries') =>
    (await client.send<{ id: number }>('POST', '/studies', { body: { name, purpose: '' } })).body
      .id;
  const invite = (client: Client, study: number, name: string, role: Role = 'coder') =>
    client.send<InvitationLink & { code: string }>('POST', `${path(study)}/invitations`, {
      body: { name, role },
    });
  const team = async (client: Client, study: number) =>
    (await client.get<{ members: Member[]; invitations: Invitation[] }>(`${path(study)}/members`))
      .body;
  const use = (client: Client, body: object) =>
    client.session('POST', '/session/invitation/accepted', body) as Promise<{
      status: number;
      body: { code?: string; account?: { name: string } };
    }>;
  const OWN = 'seven quiet herons';

  test('a link lets one person in, once, with a password of their own; it can be withdrawn and ends after three days', async () => {
    const sorrel = await server.enter('Sorrel');
    const study = await newStudy(sorrel);
    const { body: link } = await invite(sorrel, study, ' Tansy ');
    expect(Date.parse(link.expiresAt) - Date.now()).toBeGreaterThan(2.99 * 86_400_000);
    expect(Date.parse(link.expiresAt) - Date.now()).toBeLessThanOrEqual(3 * 86_400_000);
    expect(await team(sorrel, study)).toMatchObject({
      members: [{ name: 'Sorrel', role: 'owner', mayBeReset: false }],
      invitations: [{ name: 'Tansy', role: 'coder', madeBy: 'Sorrel' }],
    });
    // the link itself is kept nowhere
    const kept = await server.sql('select to_jsonb(i)::text as row from invitation i');
    expect(JSON.stringify(kept)).not.toContain(link.token);

    const tansy = server.visitor();
    const opened = await tansy.send('POST', '/session/invitation', { body: { token: link.token } });
    expect(opened.body).toMatchObject({ study: 'Ferries', name: 'Tansy', role: 'coder' });
    const { token } = link;
    const bad = await use(tansy, { token, name: 'Tansy', password: 'password1234' });
    expect(bad.body.code).toBe('weak_password');
    const taken = await use(tansy, { token, name: 'Sorrel', password: OWN });
    expect(taken.body.code).toBe('account_name_taken');
    // of several who come by it at once, one gets in
    const tries = await Promise.all(
      ['Tansy', 'Tansy 2', 'Tansy 3'].map((name) =>
        use(server.visitor(), { token, name, password: OWN }),
      ),
    );
    expect(tries.map(({ status }) => status).sort()).toEqual([200, 410, 410]);
    const [entered] = tries.flatMap(({ body }) => body.account?.name ?? []);
    expect((await team(sorrel, study)).members.map(({ name }) => name)).toEqual([
      'Sorrel',
      entered,
    ]);
    expect((await use(tansy, { token, name: 'Late', password: OWN })).body.code).toBe(
      'link_not_valid',
    );

    const withdrawn = (await invite(sorrel, study, 'Rue')).body.token;
    const [{ id } = { id: '' }] = (await team(sorrel, study)).invitations;
    expect((await sorrel.send('DELETE', `${path(study)}/invitations/${id}`)).status).toBe(200);
    const old = (await invite(sorrel, study, 'Old')).body.token;
    await server.sql(`update invitation set expires_at = now() - interval '1 second'`);
    for (const gone of [withdrawn, old])
      expect((await use(server.visitor(), { token: gone, name: 'X', password: OWN })).status).toBe(
        410,
      );
    await removeExpiredInvitations(server.orm.em.fork());
    expect(await server.sql('select 1 from invitation')).toEqual([]);
    expect(logged.join('')).not.toContain(token);
  });

  test('whoever has an account joins with it; roles change, stand in the history, and one owner stays', async () => {
    const fern = await server.enter('Fern');
    const rue = await server.enter('Rue');
    const study = await newStudy(fern, 'Boats');
    const members = `${path(study)}/members`;
    const { token } = (await invite(fern, study, 'Rue')).body;
    expect((await use(server.visitor(), { token })).status).toBe(401);
    expect((await use(rue, { token })).body.account?.name).toBe('Rue');
    expect((await invite(fern, study, 'Rue')).body.code).toBe('already_member');
    const change = (client: Client, who: Client, role: Role) =>
      client.send('PATCH', `${members}/${who.accountId}`, { body: { role } });
    expect((await change(rue, rue, 'owner')).body.code).toBe('not_your_role');
    expect((await change(fern, fern, 'reader')).body.code).toBe('last_owner');
    expect((await fern.send('DELETE', `${members}/${fern.accountId}`)).body.code).toBe(
      'last_owner',
    );
    expect((await change(fern, rue, 'owner')).status).toBe(200);
    // two owners who shut each other out at once: one stays
    const both = await Promise.all([change(fern, rue, 'reader'), change(rue, fern, 'reader')]);
    expect(both.filter(({ status }) => status === 200)).toHaveLength(1);
    const { members: now } = await team(fern, study);
    const owner = now.find(({ role }) => role === 'owner')?.name === 'Rue' ? rue : fern;
    const other = owner === rue ? fern : rue;
    const { changes } = (
      await owner.get<{ changes: { summary: string }[] }>(`${path(study)}/history`)
    ).body;
    expect(changes.map(({ summary }) => summary)).toEqual([
      `making ${owner === rue ? 'Fern' : 'Rue'} a reader`,
      'making Rue an owner',
      'letting Rue in as a coder',
      'inviting Rue as a coder',
    ]);
    // who is in the team is not undone from there
    expect((await owner.send('POST', `${path(study)}/undo`)).body.code).toBe('nothing_to_undo');
    // a reader removes nobody, but leaves
    expect((await other.send('DELETE', `${members}/${owner.accountId}`)).body.code).toBe(
      'not_your_role',
    );
    expect((await other.send('DELETE', `${members}/${other.accountId}`)).status).toBe(200);
    expect((await other.get(path(study))).status).toBe(404);
  });

  test('a password is reset by a link of who owns all the person works in, and that ends their sessions', async () => {
    const fern = await server.enter('Fennel');
    const sage = await server.enter('Sage');
    const study = await newStudy(fern, 'Quays');
    await letIn(fern, study, sage, 'coder');
    const reset = (client: Client, who: Client) =>
      client.send<InvitationLink & { code: string }>(
        'POST',
        `${path(study)}/members/${who.accountId}/password`,
      );
    expect((await reset(sage, fern)).body.code).toBe('not_your_role');
    const first = (await reset(fern, sage)).body.token;
    const { token } = (await reset(fern, sage)).body;
    expect((await use(server.visitor(), { token: first, password: OWN })).status).toBe(410);
    const anew = server.visitor();
    expect((await use(anew, { token, password: OWN })).body.account?.name).toBe('Sage');
    expect((await sage.get('/studies')).status).toBe(401);
    expect((await anew.get(path(study))).status).toBe(200);
    // into a study of their own the owner of this one must not come
    await newStudy(anew, 'Mine');
    expect((await reset(fern, sage)).body.code).toBe('password_of_their_own');
    const owner = server.visitor();
    await owner.signIn('owner', 'long enough now');
    await use(owner, { token: (await invite(fern, study, 'owner', 'owner')).body.token });
    expect((await reset(owner, sage)).status).toBe(200);
    const { members } = await team(owner, study);
    const ownerId = members.find(({ name }) => name === 'owner')!.id;
    expect((await fern.send('DELETE', `${path(study)}/members/${ownerId}`)).body.code).toBe(
      'not_the_owner',
    );
  });

  test('people see where they are signed in and end that, theirs alone', async () => {
    const moss = await server.enter('Moss', { 'user-agent': 'Skiff 1.0' });
    const phone = server.visitor();
    await phone.signIn('Moss', PASSWORD);
    const open = async () =>
      (await moss.get<{ sessions: OpenSession[] }>('/sessions')).body.sessions;
    const [here, there] = await open();
    expect(here).toMatchObject({ isThis: true, browser: 'Skiff 1.0' });
    expect(there).toMatchObject({ isThis: false });
    expect(moss.cookie()).not.toContain(here!.id);
    const thief = await server.enter('Thief');
    expect((await thief.send('DELETE', `/sessions/${there!.id}`)).status).toBe(404);
    expect((await moss.send('DELETE', `/sessions/${there!.id}`)).status).toBe(200);
    expect((await phone.get('/studies')).status).toBe(401);
    expect(await open()).toHaveLength(1);
  });
});

test('the owner reads who did what, without a word of any answer or name of a study', async () => {
  const sedge = await server.enter('Sedge');
  const study = await importStudy(sedge, 'id,Why?\n1,whispered words\n');
  await sedge.get(`${study.base}/codebook/files/csv`);
  await server.visitor().signIn('Sedge', 'whispered');
  const owner = server.visitor();
  await owner.signIn('owner', 'long enough now');
  await letIn(sedge, study.id, owner, 'reader');
  const { entries } = (
    await owner.get<{ entries: { action: string; account: string; studyId: number }[] }>('/audit')
  ).body;
  const ofStudy = entries.filter(({ studyId }) => studyId === study.id);
  expect(ofStudy.map(({ action, account }) => [action, account])).toEqual([
    ['invitation_used', 'owner'],
    ['invited', 'Sedge'],
    ['exported', 'Sedge'],
  ]);
  const actions = entries.map(({ action }) => action);
  for (const action of ['signed_in', 'sign_in_refused', 'password_chosen', 'member_removed'])
    expect(actions).toContain(action);
  expect(JSON.stringify(entries)).not.toContain('whispered');
  expect((await sedge.get('/audit')).status).toBe(404);
});
