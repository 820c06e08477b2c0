import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type { Codebook } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy } from '../../test/study.js';

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

  test('finds answers that hold the words as written, wildcards of the database included', async () => {
    expect((await study.ledger('words=FARES')).total).toBe(1);
    expect((await study.ledger('words=%25')).total).toBe(0);
  });
});

describe('undo', () => {
  test('takes back changes in order, names each, and does them again', async () => {
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
    await server.sql('insert into membership (study_id, account_id) values (?, ?)', [
      study.id,
      colleague.accountId,
    ]);
    const last = (await study.ledger()).answers.at(-1)!.id;
    await colleague.send('POST', `${study.base}/mentions`, {
      body: { id: randomUUID(), responseId: last, codeId, start: null, end: null },
    });
    expect((await study.undo()).body.code).toBe('undo_crosses');
    expect(await mentionsOfFirst()).toHaveLength(1);
    // each takes back their own
    expect((await colleague.send<{ summary: string }>('POST', `${study.base}/undo`)).status).toBe(
      200,
    );
    expect((await study.undo()).status).toBe(200);
    expect((await codebook()).codes).toEqual([]);
  });

  test('two tabs that undo at once take back two different changes', async () => {
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

  test('names are unique whatever their case; a code in use is not removed', async () => {
    const { codeId, id } = await study.code(first, { newCode: 'Fares' });
    expect((await study.code(first, { newCode: 'FARES' })).body.code).toBe('name_taken');
    expect((await client.send('DELETE', `${study.base}/codes/${codeId}`)).body.code).toBe(
      'code_in_use',
    );
    await client.send('DELETE', `${study.base}/mentions/${id}`);
    expect((await client.send('DELETE', `${study.base}/codes/${codeId}`)).status).toBe(200);
    expect((await study.undo()).body.summary).toBe('the removal of “Fares”');
    expect((await codebook()).codes).toHaveLength(1);
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
