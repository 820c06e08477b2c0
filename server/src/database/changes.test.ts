import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import type { Codebook } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy } from '../../test/study.js';

let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
  study = await importStudy(
    client,
    'id,Why?\na,the fares are mad\nb,steps and fares\nc,more boats\nd,The fares are mad!\n',
  );
});
afterAll(() => server.stop());

const codebook = async () => (await client.get<Codebook>(`${study.base}/codebook`)).body;
const everything = async () => ({
  codebook: await codebook(),
  ledger: await study.ledger('same=apart'),
  notes: (await client.get(`${study.base}/notes`)).body,
});

/** Does something with two codes that there are. */
async function withCodes(
  a: number,
  b: number,
  deed: (one: string, other: string) => Promise<unknown>,
) {
  const { codes } = await codebook();
  if (codes.length > 0)
    await deed(codes[a % codes.length]!.id, codes[(a + 1 + b) % codes.length]!.id);
}

/** One thing that a person does, chosen by two numbers from what there is. */
const deeds = {
  newCode: async (_: number, b: number) => {
    const { answers } = await study.ledger();
    await study.code(answers[b % 3]!.id, { newCode: `Code ${randomUUID()}` }, [b % 4, 4 + (b % 3)]);
  },
  code: async (a: number, b: number) => {
    const { codes } = await codebook();
    const { answers } = await study.ledger();
    const code = codes[a % Math.max(1, codes.length)];
    if (code) await study.code(answers[b % 3]!.id, { codeId: code.id });
  },
  takeAway: async (a: number) => {
    const mentions = (await study.ledger()).answers.flatMap((answer) => answer.mentions);
    const mention = mentions[a % Math.max(1, mentions.length)];
    if (mention) await client.send('DELETE', `${study.base}/mentions/${mention.id}`);
  },
  settle: async (a: number, b: number) => {
    const { answers } = await study.ledger();
    await study.settle(answers[b % 3]!.id, a % 2 === 0);
  },
  newTheme: async () => {
    await client.send('POST', `${study.base}/themes`, {
      body: { id: randomUUID(), name: `Theme ${randomUUID()}` },
    });
  },
  toSame: async (a: number) => {
    const { codes } = await codebook();
    const [answer] = (await study.ledger()).answers;
    const codeId = codes[a % Math.max(1, codes.length)]?.id;
    const body = {
      id: randomUUID(),
      responseId: answer!.id,
      codeId,
      start: 0,
      end: 3,
      toSame: true,
    };
    if (codeId) await client.send('POST', `${study.base}/mentions`, { body });
  },
  merge: (a: number, b: number) =>
    withCodes(a, b, (from, into) =>
      client.send('POST', `${study.base}/codes/${from}/merge`, { body: { into } }),
    ),
  deal: async (a: number, b: number) => {
    const all = (await study.ledger('same=apart')).answers.flatMap((answer) => answer.mentions);
    const mentions = all.filter((_, i) => (i + a) % 2 === 0).map(({ id }) => id);
    if (mentions.length === 0) return;
    const { codes } = await codebook();
    const known = codes[b % (codes.length + 1)];
    const code = { id: known?.id ?? randomUUID(), name: `Part ${randomUUID()}`, themeId: null };
    await client.send('POST', `${study.base}/codes/deal`, {
      body: { parts: [{ code, mentions }] },
    });
  },
  move: (a: number, b: number) =>
    withCodes(a, b, (from, before) =>
      client.send('POST', `${study.base}/codes/${from}/place`, { body: { themeId: null, before } }),
    ),
  remove: (a: number) =>
    withCodes(a, 0, (code) => client.send('DELETE', `${study.base}/codes/${code}`)),
  toTheme: (a: number) =>
    withCodes(a, 0, (code) => client.send('POST', `${study.base}/codes/${code}/theme`)),
  toCode: async (a: number) => {
    const { themes } = await codebook();
    const theme = themes[a % Math.max(1, themes.length)]?.id;
    if (theme) await client.send('POST', `${study.base}/themes/${theme}/code`);
  },
  bundle: (a: number, b: number) =>
    withCodes(a, b, (one, other) =>
      client.send('PUT', `${study.base}/bundles/${randomUUID()}`, {
        body: { name: `Bundle ${randomUUID()}`, codeIds: [one, other] },
      }),
    ),
  noteOnCode: (a: number) =>
    withCodes(a, 0, (codeId) =>
      client.send('POST', `${study.base}/notes`, {
        body: {
          id: randomUUID(),
          responseId: null,
          start: null,
          end: null,
          respondentId: null,
          codeId,
          text: 'Hm',
          unsure: false,
        },
      }),
    ),
  line: async (a: number, b: number) => {
    const { answers } = await study.ledger('same=apart');
    const answer = answers[a % answers.length]!;
    const line = (['split', 'joined', 'as_written'] as const)[b % 3];
    await client.send('PUT', `${study.base}/responses/${answer.id}/lines`, {
      body: { at: 1 + (b % 5), line },
    });
  },
  edit: async (a: number, b: number) => {
    const { codes, themes } = await codebook();
    const code = codes[a % Math.max(1, codes.length)];
    if (!code) return;
    const themeId = themes[b % (themes.length + 1)]?.id ?? null;
    await client.send('PATCH', `${study.base}/codes/${code.id}`, {
      body: {
        from: { themeId: code.themeId, definition: code.definition },
        to: { themeId, definition: `Said ${a} times` },
      },
    });
  },
};

test('whatever was done, undoing all of it gives the beginning, and doing it again the end', async () => {
  const deed = fc.constantFrom(...(Object.keys(deeds) as (keyof typeof deeds)[]));
  const story = fc.array(fc.tuple(deed, fc.nat(20), fc.nat(20)), { minLength: 6, maxLength: 24 });
  await fc.assert(
    fc.asyncProperty(story, async (steps) => {
      const begin = await everything();
      for (const [name, a, b] of steps) await deeds[name](a, b);
      const end = await everything();
      let undone = 0;
      while ((await study.undo()).status === 200) undone += 1;
      expect(await everything()).toEqual(begin);
      for (let n = 0; n < undone; n++) expect((await study.redo()).status).toBe(200);
      expect(await everything()).toEqual(end);
      while ((await study.undo()).status === 200);
    }),
    { numRuns: 14 },
  );
});

test('many changes at once from several people are all kept', async () => {
  const people = [client];
  for (const name of ['Ash', 'Hazel', 'Elm']) {
    const person = await server.enter(name);
    await server.sql(
      `insert into membership (study_id, account_id, role) values (:studyId, :personAccountId, 'owner')`,
      { studyId: study.id, personAccountId: person.accountId },
    );
    people.push(person);
  }
  const { codeId } = await study.code((await study.ledger()).answers[0]!.id, { newCode: 'Shared' });
  const { answers } = await study.ledger();
  const replies = await Promise.all(
    people.flatMap((person) =>
      answers.map((answer) =>
        person.send('POST', `${study.base}/mentions`, {
          body: { id: randomUUID(), responseId: answer.id, codeId, start: null, end: null },
        }),
      ),
    ),
  );
  expect(replies.every((reply) => reply.status === 200)).toBe(true);
  const shared = (await codebook()).codes.find((code) => code.id === codeId)!;
  expect(shared).toMatchObject({ people: 3, mentions: 1 + 4 * 3 });
});

test('of two people who make the same code at once, one makes it and the other is told', async () => {
  const [first, second] = (await study.ledger()).answers;
  const replies = await Promise.all([
    study.code(first!.id, { newCode: 'Queue' }),
    study.code(second!.id, { newCode: 'queue' }),
  ]);
  expect(replies.map((reply) => reply.status).sort()).toEqual([200, 409]);
  const refused = replies.find((reply) => reply.status === 409)!;
  expect(['name_taken', 'changed_meanwhile']).toContain(refused.body.code);
  expect((await codebook()).codes.filter((code) => /^queue$/i.test(code.name))).toHaveLength(1);
});

test('a change is kept whole or not at all', async () => {
  const before = await everything();
  const [answer] = before.ledger.answers;
  // the code is new and good, the passage is not: neither may stay
  const reply = await study.code(answer!.id, { newCode: 'Half' }, [2, 999]);
  expect(reply.status).toBe(422);
  expect(await everything()).toEqual(before);
});
