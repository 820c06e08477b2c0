import { randomUUID } from 'node:crypto';
import type { Client, TestServer } from './app.js';
import { importStudy, uploadSheet } from './study.js';

/** A study with something of most kinds in it, by the names of path parameters. @param mark a word of its own */
export async function makePlaces(
  server: TestServer,
  client: Client,
  mark: string,
): Promise<Record<string, string | number>> {
  const csv = `id,home,Why?\n1,Tye,more ${mark}\n2,Hask,dear\n3,Tye,late ${mark}\n4,Hask,n/a\n5,Tye,boats\n`;
  const study = await importStudy(client, csv);
  const { ids } = await study.ledger();
  const { codeId, id: mention } = await study.code(ids[0]!, { newCode: `Code ${mark}` }, [0, 4]);
  await study.settle(ids[0]!);
  const [theme, note, group, bundle] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()];
  const post = <Body>(path: string, body: object) =>
    client.send<Body>('POST', `${study.base}${path}`, { body });
  await post('/themes', { id: theme, name: `Theme ${mark}` });
  await post('/notes', {
    id: note,
    text: `Hm ${mark}`,
    responseId: ids[0],
    start: null,
    end: null,
  });
  await client.send('PUT', `${study.base}/bundles/${bundle}`, {
    body: { name: `Sea ${mark}`, codeIds: [codeId] },
  });
  await client.send('PUT', `${study.base}/groups/${group}`, {
    body: { name: `All ${mark}`, rule: { join: 'all', not: false, parts: [] } },
  });
  const sheet = await uploadSheet(client, study.id, 'more.csv', Buffer.from('id,Why?\n9,cold\n'));
  const [{ id: importId } = { id: 0 }] = await server.sql<{ id: number }>(
    'select max(id) as id from import',
  );
  const [{ id: variable } = { id: 0 }] = await server.sql<{ id: number }>(
    'select max(id) as id from variable',
  );
  const guest = await server.enter(`Guest of ${study.id}`);
  await post('/members', { name: `Guest of ${study.id}` });
  return {
    ...{ study: study.id, question: study.question, response: ids[0]!, respondent: 1 },
    ...{ code: codeId, theme, mention, note, group, bundle, sheet: sheet.id, variable },
    ...{ import: importId, job: 1, run: 1, member: guest.accountId, format: 'csv', key: 'a' },
  };
}
