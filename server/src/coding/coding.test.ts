import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type { Codebook, Hits, ListedNote, NearCodes, StudyDetail } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy, letIn } from '../../test/study.js';

let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
let first: number;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
beforeEach(async () => {
  study = await importStudy(
    client,
    'id,home,Why?\n1,Tye,The fares are mad. So are the steps.\n2,Hask,n/a\n3,Tye,late\n',
  );
  first = (await study.ledger()).answers[0]!.id;
});
afterAll(() => server.stop());

const codebook = async () => (await client.get<Codebook>(`${study.base}/codebook`)).body;
const mentionsOfFirst = async () => (await study.ledger()).answers[0]!.mentions;

describe('coding', () => {
  test('a new code is made and applied in one stroke, at a passage', async () => {
    const reply = await study.code(first, { newCode: 'Fares' }, [4, 9]);
    expect(reply.status).toBe(200);
    expect(await mentionsOfFirst()).toEqual([
      expect.objectContaining({
        codeId: reply.codeId,
        start: 4,
        end: 9,
        origin: 'hand',
        coderId: client.accountId,
      }),
    ]);
    expect((await codebook()).codes).toEqual([
      expect.objectContaining({ name: 'Fares', people: 1, mentions: 1, themeId: null }),
    ]);
  });

  test('the same request twice is carried out once', async () => {
    const body = {
      id: randomUUID(),
      responseId: first,
      codeId: randomUUID(),
      start: null,
      end: null,
    };
    const withCode = { ...body, newCode: { id: body.codeId, name: 'Steps', themeId: null } };
    await client.send('POST', `${study.base}/mentions`, { body: withCode });
    expect((await client.send('POST', `${study.base}/mentions`, { body: withCode })).status).toBe(
      200,
    );
    expect(await mentionsOfFirst()).toHaveLength(1);
    await study.undo();
    expect((await study.undo()).body.code).toBe('nothing_to_undo');
  });

  test('a passage outside the text, a code of another study and a response that says nothing are refused', async () => {
    expect((await study.code(first, { newCode: 'A' }, [30, 99])).body.code).toBe('passage_outside');
    expect((await study.code(first, { newCode: 'A' }, [9, 4])).body.code).toBe('invalid_request');
    const other = await importStudy(client, 'id,Why?\n1,boats\n');
    const elsewhere = await other.code((await other.ledger()).answers[0]!.id, { newCode: 'Boats' });
    expect((await study.code(first, { codeId: elsewhere.codeId })).body.code).toBe('not_found');
    const [empty] = (await study.ledger('show=no_answer')).answers;
    expect((await study.code(empty!.id, { newCode: 'A' })).body.code).toBe('no_answer_to_code');
    expect(await mentionsOfFirst()).toEqual([]);
    expect((await codebook()).codes).toEqual([]);
  });

  test('"nothing applies" settles without a code; settled and open answers are told apart', async () => {
    await study.settle(first);
    expect((await study.ledger('show=settled')).answers.map((answer) => answer.id)).toEqual([
      first,
    ]);
    expect((await study.ledger('show=open')).total).toBe(1);
    await study.settle(first, false);
    expect((await study.ledger('show=open')).total).toBe(2);
  });
});

describe('answers with the same words', () => {
  beforeEach(async () => {
    study = await importStudy(
      client,
      'id,Why?\n1,More boats!\n2,late\n3,more  boats\n4,MORE BOATS\n5,fewer\n',
    );
    first = (await study.ledger()).answers[0]!.id;
  });
  const add = (extra: object) =>
    client.send('POST', `${study.base}/mentions`, {
      body: { id: randomUUID(), responseId: first, start: null, end: null, ...extra },
    });
  const apart = async () => (await study.ledger('same=apart')).answers;

  test('stand as one, are coded and settled as one, and each can be removed', async () => {
    const joined = await study.ledger();
    expect(joined).toMatchObject({ counts: [3, 1, 1], total: 5 });
    const codeId = randomUUID();
    const newCode = { id: codeId, name: 'Boats', themeId: null };
    await add({ codeId, newCode, start: 5, end: 11, toSame: true });
    await client.send('PUT', `${study.base}/responses/${first}/settlement`, {
      body: { settled: true, toSame: true },
    });
    const coded = (await apart()).filter((answer) => answer.mentions.length > 0);
    expect(
      coded.map(({ text, settled, mentions: [m] }) => [settled, text.slice(m!.start!, m!.end!)]),
    ).toEqual([
      [true, 'boats!'],
      [true, 'boats'],
      [true, 'BOATS'],
    ]);
    expect((await study.ledger('show=open')).total).toBe(2);
    // said again, nothing is added where the code stands already
    await add({ codeId, start: 5, end: 11, toSame: true });
    expect((await apart()).flatMap((answer) => answer.mentions)).toHaveLength(4);
    await study.undo();
    await client.send('DELETE', `${study.base}/mentions/${coded[1]!.mentions[0]!.id}`);
    expect((await apart()).map((answer) => answer.mentions.length)).toEqual([1, 0, 0, 1, 0]);
    await client.send('DELETE', `${study.base}/mentions/${coded[0]!.mentions[0]!.id}?toSame=true`);
    expect((await apart()).flatMap((answer) => answer.mentions)).toEqual([]);
    expect((await study.undo()).body.summary).toBe('removing “Boats” from 2 answers');
    // what another study's answer says is not compared with
    const other = await importStudy(client, 'id,Why?\n1,more boats\n');
    expect((await study.ledger(`like=${first}&same=apart`)).total).toBe(3);
    expect((await other.ledger(`like=${first}&same=apart`)).total).toBe(0);
  });
});

test('what like answers were coded with by hand is found for one that is being read', async () => {
  const like = await importStudy(
    client,
    'id,Why?\n1,the fares are mad\n2,mad fares\n3,steps\n4,the fares: quite mad\n',
  );
  const [one, two, three, four] = (await like.ledger()).answers.map(({ id }) => id);
  const near = async (id: number, by = client) =>
    by.get<NearCodes>(`${like.base}/responses/${id}/near`);
  expect((await near(four!)).body).toEqual({ codes: [] });
  const { codeId } = await like.code(one!, { newCode: 'Fares' });
  await like.code(two!, { codeId });
  const { codeId: season } = await like.code(two!, { newCode: 'Season' });
  await like.code(three!, { newCode: 'Steps' });
  const { codes } = (await near(four!)).body;
  expect(codes.map((code) => code.codeId)).toEqual([codeId, season]);
  expect(codes[0]!.share).toBeCloseTo(1, 12);
  // an answer says nothing of itself, and nothing to a stranger
  expect((await near(three!)).body).toEqual({ codes: [] });
  expect((await near(four!, await server.enter('Sorrel'))).status).toBe(404);
});

describe('what is chosen of the answers', () => {
  test('by codes in the answer or in one line, by background, words, notes and order', async () => {
    const a = await study.code(first, { newCode: 'A' }, [4, 9]);
    const b = await study.code(first, { newCode: 'B' }, [20, 24]);
    const last = (await study.ledger()).answers.at(-1)!.id;
    await study.code(last, { codeId: a.codeId });
    const chosen = async (query: string) => (await study.ledger(query)).ids;
    const both = `all=${a.codeId},${b.codeId}`;
    expect(await chosen(both)).toEqual([first]);
    expect(await chosen(`${both}&together=line`)).toEqual([]);
    expect(await chosen(`all=${a.codeId}&none=${b.codeId}`)).toEqual([last]);
    expect(await chosen(`all=${a.codeId}&none=${b.codeId}&together=line`)).toEqual([first, last]);
    expect(await chosen(`any=${b.codeId},${randomUUID()}`)).toEqual([first]);
    expect(await chosen(`coder=${client.accountId + 1000}`)).toEqual([]);
    const { body } = await client.get<StudyDetail>(study.base);
    const home = body.variables[0]!.id;
    expect(await chosen(`where=${home}:Tye`)).toEqual([first, last]);
    expect(await chosen(`where=${home}:Hask&where=${home}:Tye`)).toEqual([first, last]);
    expect(await chosen(`where=${home}:`)).toEqual([]);
    expect(await chosen('words=step&match=word')).toEqual([]);
    expect(await chosen('words=step&match=stem')).toEqual([first]);
    expect(await chosen('words=l?te&match=wildcard')).toEqual([last]);
    expect(await chosen('order=shortest')).toEqual([last, first]);
    expect(await chosen('show=unread')).toEqual([]);
    expect((await chosen('order=random&seed=5')).toSorted()).toEqual([first, last].toSorted());
    expect(await chosen('order=random&seed=5')).toEqual(await chosen('order=random&seed=5'));
    expect((await chosen('order=similar')).toSorted()).toEqual([first, last].toSorted());
  });

  test('words are found in every form and coded at once, as one change that says so', async () => {
    const query = 'words=fare&match=stem';
    const path = `${study.base}/questions/${study.question}/hits`;
    const { body: hits } = await client.get<Hits>(`${path}?${query}`);
    expect(hits).toMatchObject({ found: { answers: 1, hits: 1 } });
    const codeId = randomUUID();
    const body = {
      codeId,
      newCode: { id: codeId, name: 'Fares', themeId: null },
      hits: [{ responseId: first, ...hits.answers[0]!.hits[0] }],
    };
    const code = (on: string) =>
      client.send<{ mentions: number }>('POST', path, { body: { ...body, on } });
    expect((await code('line')).body.mentions).toBe(1);
    expect((await code('line')).body.mentions).toBe(0);
    expect((await code('answer')).body.mentions).toBe(1);
    expect((await mentionsOfFirst()).map(({ start, end, origin }) => [start, end, origin])).toEqual(
      [
        [null, null, 'words'],
        [0, 18, 'words'],
      ],
    );
    expect((await study.undo()).body.summary).toBe('coding “Fares” 1 time by a search for words');
  });
});

describe('notes and lines', () => {
  const note = (extra: object) => ({
    id: randomUUID(),
    responseId: first,
    start: null,
    end: null,
    respondentId: null,
    codeId: null,
    text: '',
    unsure: false,
    ...extra,
  });
  const send = (body: object) => client.send('POST', `${study.base}/notes`, { body });

  test('a mark, a note and an “unsure” are kept, listed, filtered for and undone', async () => {
    const mark = note({ start: 4, end: 9 });
    await send(mark);
    await send(mark);
    await send(note({ text: 'Really?' }));
    const unsure = note({ unsure: true });
    await send(unsure);
    expect((await study.ledger('show=unsure')).ids).toEqual([first]);
    await client.send('DELETE', `${study.base}/notes/${unsure.id}`);
    expect((await study.ledger('show=unsure')).ids).toEqual([]);
    expect((await study.ledger('show=marked')).ids).toEqual([first]);
    const [answer] = (await study.ledger()).answers;
    expect(answer!.notes.map(({ text, start, author }) => [text, start, author])).toEqual([
      ['Really?', null, 'Rowan'],
      ['', 4, 'Rowan'],
    ]);
    const edit = (from: string, to: string) =>
      client.send('PATCH', `${study.base}/notes/${mark.id}`, {
        body: { from: { text: from, unsure: false }, to: { text: to, unsure: false } },
      });
    expect((await edit('', 'Ask again')).status).toBe(200);
    expect((await edit('', 'Something else')).body.code).toBe('changed_meanwhile');
    const { body } = await client.get<{ notes: ListedNote[] }>(`${study.base}/notes`);
    expect(body.notes.map(({ text, on }) => [text, on?.words])).toEqual([
      ['Really?', 'The fares are mad. So are the steps.'],
      ['Ask again', 'fares'],
    ]);
    expect((await send(note({ start: 4, end: 99 }))).body.code).toBe('passage_outside');
    expect((await send(note({ codeId: randomUUID() }))).body.code).toBe('invalid_request');
  });

  test('a line split or joined by hand stays so, and is undone', async () => {
    const cut = (at: number, line: string) =>
      client.send('PUT', `${study.base}/responses/${first}/lines`, { body: { at, line } });
    await cut(4, 'split');
    await cut(19, 'joined');
    const cuts = async () =>
      (await study.ledger()).answers[0]!.cuts.map(({ at, joined }) => [at, joined]);
    expect(await cuts()).toEqual([
      [4, false],
      [19, true],
    ]);
    await cut(4, 'as_written');
    expect(await cuts()).toEqual([[19, true]]);
    await study.undo();
    await study.undo();
    expect(await cuts()).toEqual([[4, false]]);
    expect((await cut(999, 'split')).body.code).toBe('passage_outside');
  });

  test('a code is exchanged, moved and pinned as an example, each in one action', async () => {
    const { id } = await study.code(first, { newCode: 'Fares' }, [4, 9]);
    const other = await study.code(first, { newCode: 'Steps' });
    const edit = (body: object) => client.send('PATCH', `${study.base}/mentions/${id}`, { body });
    await edit({ codeId: other.codeId });
    await edit({ passage: { start: 19, end: 35 } });
    await edit({ typical: true });
    await edit({ typical: true });
    expect((await edit({ passage: { start: 19, end: 99 } })).body.code).toBe('passage_outside');
    expect((await mentionsOfFirst()).find((one) => one.id === id)).toMatchObject({
      codeId: other.codeId,
      start: 19,
      end: 35,
      typical: true,
    });
    const undone = [await study.undo(), await study.undo(), await study.undo()];
    expect(undone.map((reply) => reply.body.summary)).toEqual([
      'the example of “Steps”',
      'moving “Steps”',
      '“Steps” instead of “Fares”',
    ]);
  });
});

describe('undo', () => {
  test('undoes changes in order, names each, and does them again', async () => {
    const { codeId } = await study.code(first, { newCode: 'Fares' });
    await study.code(first, { codeId }, [0, 3]);
    await study.settle(first);
    const whole = await study.ledger();
    const undone = [await study.undo(), await study.undo(), await study.undo()];
    expect(undone.map((reply) => reply.body.summary)).toEqual([
      'settling an answer',
      'coding “Fares”',
      'coding “Fares”',
    ]);
    expect(await mentionsOfFirst()).toEqual([]);
    expect((await codebook()).codes).toEqual([]);
    for (let n = 0; n < 3; n++) await study.redo();
    expect(await study.ledger()).toEqual(whole);
    expect((await study.redo()).body.code).toBe('nothing_to_redo');
  });

  test('a change after an undo leaves nothing to do again', async () => {
    await study.code(first, { newCode: 'Fares' });
    await study.undo();
    await study.settle(first);
    expect((await study.redo()).body.code).toBe('nothing_to_redo');
  });

  test('does not pull a new code from under somebody who uses it since', async () => {
    const { codeId } = await study.code(first, { newCode: 'Fares' });
    const colleague = await server.enter(`Colleague ${study.id}`);
    await letIn(client, study.id, colleague);
    const last = (await study.ledger()).answers.at(-1)!.id;
    await colleague.send('POST', `${study.base}/mentions`, {
      body: { id: randomUUID(), responseId: last, codeId, start: null, end: null },
    });
    expect((await study.undo()).body.code).toBe('undo_crosses');
    expect(await mentionsOfFirst()).toHaveLength(1);
    // each undoes their own
    expect((await colleague.send<{ summary: string }>('POST', `${study.base}/undo`)).status).toBe(
      200,
    );
    expect((await study.undo()).status).toBe(200);
    expect((await codebook()).codes).toEqual([]);
  });

  test('two tabs that undo at once undo two different changes', async () => {
    const { codeId } = await study.code(first, { newCode: 'Fares' });
    await study.code(first, { codeId }, [0, 3]);
    const replies = await Promise.all([study.undo(), study.undo()]);
    expect(replies.map((reply) => reply.status)).toEqual([200, 200]);
    expect((await codebook()).codes).toEqual([]);
  });
});

describe('the codebook', () => {
  test('an edit of what somebody changed in the meantime is refused, and loses nothing', async () => {
    const { codeId } = await study.code(first, { newCode: 'Fares' });
    const edit = (from: string, to: string) =>
      client.send('PATCH', `${study.base}/codes/${codeId}`, {
        body: { from: { definition: from }, to: { definition: to } },
      });
    expect((await edit('', 'What it costs')).status).toBe(200);
    expect((await edit('', 'Something else')).body.code).toBe('changed_meanwhile');
    expect((await codebook()).codes[0]!.definition).toBe('What it costs');
    // a field that nobody else touched is free
    const renamed = await client.send('PATCH', `${study.base}/codes/${codeId}`, {
      body: { from: { name: 'Fares' }, to: { name: 'Prices' } },
    });
    expect(renamed.status).toBe(200);
  });

  test('names are unique whatever their case; a code goes with its mentions and comes back with them', async () => {
    const { codeId } = await study.code(first, { newCode: 'Fares' }, [4, 9]);
    expect((await study.code(first, { newCode: 'FARES' })).body.code).toBe('name_taken');
    const before = { codebook: await codebook(), mentions: await mentionsOfFirst() };
    expect((await client.send('DELETE', `${study.base}/codes/${codeId}`)).status).toBe(200);
    expect(await mentionsOfFirst()).toEqual([]);
    expect((await study.undo()).body.summary).toBe('the removal of “Fares”');
    expect({ codebook: await codebook(), mentions: await mentionsOfFirst() }).toEqual(before);
  });

  test('a theme gets a look of its own, and a code moves under it', async () => {
    const { codeId } = await study.code(first, { newCode: 'Fares' });
    const theme = { id: randomUUID(), name: 'Price' };
    await client.send('POST', `${study.base}/themes`, { body: theme });
    const other = await client.send('POST', `${study.base}/themes`, {
      body: { id: randomUUID(), name: 'price' },
    });
    expect(other.body.code).toBe('name_taken');
    await client.send('PATCH', `${study.base}/codes/${codeId}`, {
      body: { from: { themeId: null }, to: { themeId: theme.id } },
    });
    const { themes, codes } = await codebook();
    expect(themes).toEqual([
      expect.objectContaining({ ...theme, ink: '#3F4C9A', stitch: 'running' }),
    ]);
    expect(codes[0]!.themeId).toBe(theme.id);
  });
});
