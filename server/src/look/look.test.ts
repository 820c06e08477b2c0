import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Contrast, Look, WordNetwork } from '@yellow-thread/contract';
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
