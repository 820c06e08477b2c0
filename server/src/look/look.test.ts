import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type {
  AnswerClusters,
  Codebook,
  Contrast,
  Job,
  Look,
  Report,
  Representatives,
  WordNetwork,
} from '@yellow-thread/contract';
import fc from 'fast-check';
import { SaxesParser } from 'saxes';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy } from '../../test/study.js';

let server: TestServer;
let client: Client;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

const ISLES = ['Tye', 'Hask'];
/** On Tye people queue at Carrow, on Hask they miss cabins by night; a third of all says something else. */
const answerOf = (i: number) => {
  if (i % 3 === 0) return `gull${i}. <b>fares</b>`;
  return i % 2 === 0 ? `Queues at Carrow. Dear ${i}` : `the cabins by night`;
};

test('groups compared, words together and their files: what opens is what was counted', async () => {
  const lines = Array.from({ length: 120 }, (_, i) => `${i},${ISLES[i % 2]},"${answerOf(i)}"`);
  const study = await importStudy(client, `id,Home,What of the boats?\n${lines.join('\n')}\n`);
  const look = `${study.base}/questions/${study.question}/look`;
  const found = async (words: string, match: string, more = '') =>
    (await study.ledger(`words=${encodeURIComponent(words)}&match=${match}&same=apart${more}`))
      .total;
  const { variables } = (
    await client.get<{ variables: { id: number; name: string }[] }>(study.base)
  ).body;
  const home = variables.find(({ name }) => name === 'Home')!.id;

  const rule = { is: 'value', variableId: home, test: 'any_of', labels: ['Tye'] };
  const of = `of=${encodeURIComponent(JSON.stringify(rule))}`;
  const { body: contrast } = await client.get<Contrast>(`${look}/contrast?${of}`);
  expect([contrast.group, contrast.rest]).toEqual([60, 60]);
  expect(contrast.more.map(({ term }) => term)).toContain('queues');
  expect(contrast.less.map(({ term }) => term)).toContain('cabins');
  for (const { term, group } of [...contrast.more, ...contrast.less])
    expect([term, await found(term, 'stem', `&${of}`)]).toEqual([term, group]);
  expect((await client.get(`${look}/contrast`)).status).toBe(400);

  const { body: network } = await client.get<WordNetwork>(`${look}/network?by=${home}`);
  const { words, links, topics, columns } = network;
  expect(columns).toEqual([
    { label: 'Hask', answers: 60 },
    { label: 'Tye', answers: 60 },
  ]);
  expect(topics.length).toBeGreaterThan(1);
  for (const { from, to, answers } of links)
    expect(await found(`${words[from]!.word} ${words[to]!.word}`, 'line')).toBe(answers);
  for (const topic of topics) {
    const its = topic.words.map((word) => words[word]!.word).join(' ');
    expect(await found(its, 'any')).toBe(topic.answers);
    expect(topic.byColumn[1]).toBe(await found(its, 'any', `&where=${home}:Tye`));
    expect(topic.typical.length).toBeGreaterThan(0);
  }
  expect(
    (await client.get<WordNetwork>(`${look}/network?hidden=Carrow`)).body.words,
  ).not.toContainEqual(expect.objectContaining({ word: 'carrow' }));

  const graph = await client.get(`${look}/network/files/graphml`);
  // throws at what is not well-formed
  new SaxesParser({ xmlns: true }).write(graph.text).close();
  expect(graph.text.match(/<node /gu)).toHaveLength(words.length);
  const table = await client.get(`${look}/network/files/links.csv`);
  expect(table.text.trim().split('\r\n')).toHaveLength(links.length + 1);

  // restricted to a group, all of it is of these people alone
  const group = randomUUID();
  await client.send('PUT', `${study.base}/groups/${group}`, {
    body: { name: 'Tye', description: '', rule },
  });
  const within = await client.get<Look>(`${look}?group=${group}`);
  expect(within.body.answered).toBe(60);
  expect(within.body.words.map(({ word }) => word)).not.toContain('cabins');
  const theirs = await client.get<WordNetwork>(`${look}/network?group=${group}`);
  expect(theirs.body.answered).toBe(60);
  expect(theirs.body.words.map(({ word }) => word)).not.toContain('cabins');
});

test('a study in Japanese, and one of few people', async () => {
  const said = ['船が遅い。運賃が高い。', '船が遅い', '運賃が高い。階段が怖い', '船は静か'];
  const lines = Array.from({ length: 30 }, (_, i) => `${i},${said[i % said.length]}。第${i}便`);
  const study = await importStudy(client, `id,いかがですか\n${lines.join('\n')}\n`);
  const look = `${study.base}/questions/${study.question}/look`;
  const { body } = await client.get<WordNetwork>(`${look}/network`);
  expect(body.words.map(({ word }) => word)).toEqual(expect.arrayContaining(['船', '運賃']));
  expect(body.links.length).toBeGreaterThan(0);
  for (const { from, to, answers } of body.links) {
    const words = encodeURIComponent(`${body.words[from]!.word} ${body.words[to]!.word}`);
    expect((await study.ledger(`words=${words}&match=line&same=apart`)).total).toBe(answers);
  }
});

test('answers are gathered, adopted, kept for later and dismissed; no decision is a mention', async () => {
  const said = ['The toilets and seats on deck', 'late boats every winter', 'dear fares for cars'];
  const lines = Array.from({ length: 60 }, (_, i) => `${i},${said[i % 3]} ${i}`);
  const study = await importStudy(client, `id,What else?\n${lines.join('\n')}\n`);
  const base = `${study.base}/questions/${study.question}`;
  const gathered = async (query = '') =>
    (await client.get<AnswerClusters>(`${base}/look/clusters?${query}`)).body;
  const before = await gathered('k=3');
  expect(before).toMatchObject({ among: 'all', answers: 60, found: 3, decided: [] });
  expect(before.clusters.map(({ responseIds }) => responseIds.length)).toEqual([20, 20, 20]);
  expect((await gathered()).found).toBe(3);
  const of = (word: string) => before.clusters.find(({ name }) => name.includes(word))!;
  const counted = async () => (await client.get<Report>(`${base}/report?counts=settled`)).body;
  const report = await counted();

  const decide = (id: string, body: object) =>
    client.send<{ code?: string }>('PUT', `${base}/look/clusters/${id}`, { body });
  const [toilets, late, dear] = [of('toilets'), of('late'), of('dear')];
  const codeId = randomUUID();
  const adopted = randomUUID();
  const { responseIds } = toilets;
  await decide(adopted, { state: 'adopted', name: 'Comfort', responseIds, codeId });
  const codes = async () =>
    (await client.get<Codebook>(`${study.base}/codebook`)).body.codes.map(({ name }) => name);
  expect(await codes()).toEqual(['Comfort']);
  expect((await study.ledger(`cluster=${adopted}&same=apart`)).ids.toSorted()).toEqual(
    responseIds.toSorted(),
  );
  // a code of this name is there, and nothing is half done
  const again = await decide(randomUUID(), {
    state: 'adopted',
    name: 'comfort',
    responseIds: late.responseIds,
    codeId: randomUUID(),
  });
  expect([again.status, again.body.code]).toEqual([409, 'name_taken']);
  expect(
    (await decide(randomUUID(), { state: 'later', name: 'x', responseIds, codeId })).status,
  ).toBe(400);
  const later = randomUUID();
  await decide(later, {
    state: 'later',
    name: late.name,
    responseIds: late.responseIds,
    codeId: null,
  });
  await decide(randomUUID(), {
    state: 'dismissed',
    name: dear.name,
    responseIds: dear.responseIds,
    codeId: null,
  });
  const after = await gathered();
  expect(after.answers).toBe(0);
  expect(after.clusters).toEqual([]);
  expect(after.decided.map(({ state, answers }) => [state, answers])).toEqual([
    ['adopted', 20],
    ['dismissed', 20],
    ['later', 20],
  ]);
  // nothing of it is counted
  expect({ ...(await counted()), rows: [] }).toEqual({ ...report, rows: [] });
  expect((await study.ledger('show=settled')).total).toBe(0);
  expect((await study.undo()).body.summary).toContain('dismissing');
  expect((await gathered('k=2')).answers).toBe(20);
  await client.send('DELETE', `${base}/look/clusters/${later}`);
  expect((await gathered('k=2')).answers).toBe(40);

  // once something is coded, only what no code covers is gathered
  await study.code(late.responseIds[0]!, { codeId });
  expect(await gathered('k=2')).toMatchObject({ among: 'uncovered', answers: 39 });

  const { body: few } = await client.get<Representatives>(`${base}/look/representatives?count=3`);
  expect(few.answers).toBe(60);
  expect(few.chosen).toHaveLength(3);
  expect(few.chosen.flatMap(({ like }) => like)).toHaveLength(few.covered);
  expect(few.chosen.every(({ answer, like }) => like[0] === answer.id)).toBe(true);
  const rule = { is: 'mentions', which: 'any', codeIds: [codeId], themeIds: [], questionId: null };
  const chosenOf = `of=${encodeURIComponent(JSON.stringify(rule))}`;
  expect(
    (await client.get<Representatives>(`${base}/look/representatives?${chosenOf}`)).body,
  ).toMatchObject({ answers: 1, covered: 1 });
});

test('whatever is looked at, adopted or dismissed, the report of what was coded stays as it was', async () => {
  const said = ['late boats again', 'dear fares for cars', 'steep steps', 'lovely crew'];
  const lines = Array.from(
    { length: 40 },
    (_, i) => `${i},${['Tye', 'Hask'][i % 2]},${said[i % 4]} ${i}`,
  );
  const study = await importStudy(client, `id,Home,What else?\n${lines.join('\n')}\n`);
  const base = `${study.base}/questions/${study.question}`;
  const { ids } = await study.ledger('same=apart');
  const { codeId } = await study.code(ids[0]!, { newCode: 'Late' });
  for (const id of ids.slice(4, 20)) await study.code(id, { codeId });
  for (const id of ids.slice(0, 24)) await study.settle(id);
  const { body: detail } = await client.get<{ variables: { id: number }[] }>(study.base);
  const by = `by=${detail.variables[0]!.id}`;
  const counted = async () => {
    const rules = ['settled', 'decided'];
    const reports = await Promise.all(
      rules.map((counts) => client.get<Report>(`${base}/report?${by}&counts=${counts}`)),
    );
    return reports.map(({ body }) => ({
      columns: body.columns,
      // a code that was adopted is a row of its own, without anybody
      rows: body.rows.filter(({ id }) => id === codeId),
    }));
  };
  const before = await counted();
  const some = fc.uniqueArray(fc.constantFrom(...ids), { minLength: 1, maxLength: 12 });
  const decision = fc.constantFrom('adopted', 'later', 'dismissed').chain((state) =>
    some.map(
      (responseIds) => () =>
        client.send('PUT', `${base}/look/clusters/${randomUUID()}`, {
          body: {
            ...{ state, responseIds, name: `Found ${randomUUID()}` },
            codeId: state === 'adopted' ? randomUUID() : null,
          },
        }),
    ),
  );
  const looking = fc
    .constantFrom('look', 'look/network', 'look/clusters', 'look/representatives')
    .map((path) => () => client.get(`${base}/${path}`));
  const aside = fc
    .constantFrom('late', 'crew')
    .map((word) => () => client.send('PATCH', study.base, { body: { setAside: [word] } }));
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.oneof(decision, looking, aside), { maxLength: 6 }),
      async (acts) => {
        for (const act of acts) expect((await act()).status).toBe(200);
        expect(await counted()).toEqual(before);
      },
    ),
    { numRuns: 12 },
  );
});

test('many answers are gathered by a job that says how far it is; what stands for most of a filter', async () => {
  const said = ['The toilets and seats on deck', 'late boats every winter', 'dear fares for cars'];
  const lines = Array.from({ length: 5100 }, (_, i) => `${i},${said[i % 3]} ${i}`);
  const study = await importStudy(client, `id,What else?\n${lines.join('\n')}\n`);
  const look = `${study.base}/questions/${study.question}/look`;
  const gathered = async (query = '') =>
    (await client.get<AnswerClusters>(`${look}/clusters?${query}`)).body;
  expect(await gathered('k=3')).toMatchObject({
    ...{ isGathered: false, job: null, answers: 5100, clusters: [] },
  });
  const { body: job } = await client.send<Job>('POST', `${look}/clusters?k=3`);
  expect((await client.jobEnd(study.id, job.id)).state).toBe('done');
  const found = await gathered('k=3');
  expect(found).toMatchObject({ isGathered: true, found: 3, compared: 5100 });
  expect(found.clusters.map(({ responseIds }) => responseIds.length)).toEqual([1700, 1700, 1700]);
  // of another number it is another question
  expect((await gathered('k=4')).isGathered).toBe(false);

  const filter = encodeURIComponent('words=winter fares&match=any');
  const { body: few } = await client.get<Representatives>(
    `${look}/representatives?count=2&filter=${filter}`,
  );
  expect(few.answers).toBe(3400);
  expect(few.chosen.map(({ answer }) => answer.text)).toEqual([
    expect.stringMatching(/winter|fares/u),
    expect.stringMatching(/winter|fares/u),
  ]);
  const wrong = await client.get<{ code: string }>(`${look}/representatives?filter=show%3Dnever`);
  expect([wrong.status, wrong.body.code]).toEqual([422, 'wrong_scope']);
});
