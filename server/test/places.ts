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
  const [theme, note, group, bundle, map, node] = Array.from({ length: 6 }, () => randomUUID());
  const send = async (method: 'POST' | 'PUT', path: string, body: object) => {
    const { status } = await client.send(method, `${study.base}${path}`, { body });
    if (status !== 200) throw new Error(`${path} was not made: ${status}`);
  };
  const ofAnswer = { responseId: ids[0]!, respondentId: null, codeId: null };
  const place = { start: null, end: null, unsure: false };
  await send('POST', '/themes', { id: theme, name: `Theme ${mark}` });
  await send('POST', '/notes', { id: note, text: `Hm ${mark}`, ...ofAnswer, ...place });
  await send('PUT', `/maps/${map}`, { name: `Map ${mark}` });
  await send('POST', `/maps/${map}/changes`, {
    nodes: [{ id: node, mapId: map, codeId, themeId: null, x: 0, y: 0 }],
    pins: [
      {
        ...{ id: randomUUID(), mapId: map, nodeId: node, relationId: null },
        ...{ responseId: ids[0]!, start: null, end: null },
      },
    ],
  });
  await send('PUT', `/bundles/${bundle}`, { name: `Sea ${mark}`, codeIds: [codeId] });
  await send('PUT', `/groups/${group}`, {
    name: `All ${mark}`,
    description: '',
    rule: { is: 'answered', questionId: study.question, answered: true },
  });
  const sheet = await uploadSheet(client, study.id, 'more.csv', Buffer.from('id,Why?\n9,cold\n'));
  const [{ id: importId } = { id: 0 }] = await server.sql<{ id: number }>(
    'select max(id) as id from import',
  );
  const [{ id: variable } = { id: 0 }] = await server.sql<{ id: number }>(
    'select max(id) as id from variable',
  );
  const guest = await server.enter(`Guest of ${study.id}`);
  await server.sql(
    `insert into membership (study_id, account_id, role) values (:studyId, :guestAccountId, 'owner')`,
    { studyId: study.id, guestAccountId: guest.accountId },
  );
  const [{ respondent } = { respondent: 0 }] = await server.sql<{ respondent: number }>(
    'select respondent_id as respondent from response where id = :id',
    { id: ids[0]! },
  );
  return {
    study: study.id,
    question: study.question,
    response: ids[0]!,
    respondent,
    code: codeId,
    theme: theme!,
    mention,
    note: note!,
    group: group!,
    bundle: bundle!,
    map: map!,
    sheet: sheet.id,
    variable,
    import: importId,
    job: 1,
    run: 1,
    member: guest.accountId,
    format: 'csv',
    key: 'a',
  };
}
