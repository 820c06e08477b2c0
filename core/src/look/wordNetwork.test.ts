import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { UndirectedGraph } from 'graphology';
import { checkTable, checkValue } from '../../test/checkValues.js';
import { hitTester } from '../text/index.js';
import { readTermLines } from './readTerms.js';
import { countTopics } from './topicCounts.js';
import { bestCommunities, findTopics } from './topics.js';
import { linkWords } from './wordNetwork.js';

const NOTHING = { question: '', setAside: [] };
const ALL = { columnOf: null, columns: 0 };

/** Answers in which queues come with Carrow and cabins with nights, among others that speak of neither. */
const answers = [
  ...Array.from({ length: 8 }, (_, i) => `The queue at Carrow again. I pay ${i}`),
  ...Array.from({ length: 8 }, () => 'Cabins at night; queueing'),
  ...Array.from({ length: 60 }, (_, i) => `Gull${i} boats and fares${i % 3}`),
];

function networkOf(said: readonly string[], hidden: readonly string[] = []) {
  const lines = readTermLines(said);
  const linked = linkWords(lines, NOTHING, hidden, 150);
  const { topics } = findTopics(linked);
  const numbers = topics.map((words) => words.map((word) => linked.words[word]!.id));
  return { ...linked, topics, ...countTopics(lines, numbers, ALL) };
}

test('words of one line are linked, and their topics told; hidden words leave the others their company', () => {
  const { words, links, topics, counts } = networkOf(answers);
  const named = links.map(({ from, to }) => [words[from]!.word, words[to]!.word].toSorted());
  expect(named).toEqual(
    expect.arrayContaining([
      ['carrow', 'queue'],
      ['cabins', 'night'],
    ]),
  );
  // words of different lines of one answer keep no company
  expect(named).not.toContainEqual(['carrow', 'pay']);
  const topicOf = (word: string) =>
    topics.findIndex((its) => its.some((one) => words[one]!.word === word));
  expect(topicOf('carrow')).not.toBe(topicOf('night'));
  expect(counts[topicOf('night')]!.answers).toBe(8);
  const without = networkOf(answers, ['queueing']);
  expect(without.words.map(({ word }) => word)).not.toContain('queue');
  expect(without.words.map(({ word }) => word)).toContain('carrow');
});

test('frequent topics that never meet are a gap', () => {
  const said = [
    ...Array.from({ length: 40 }, () => 'queue at carrow'),
    ...Array.from({ length: 40 }, () => 'cabins by night'),
    ...Array.from({ length: 2 }, () => 'queue at carrow. cabins by night'),
    ...Array.from({ length: 60 }, (_, i) => `gull${i} gannet${i}`),
  ];
  const { gaps, counts } = networkOf(said);
  expect(gaps).toHaveLength(1);
  const [{ one, other, both, expected, joined }] = gaps as [(typeof gaps)[number]];
  expect(both).toBe(2);
  expect(expected).toBeCloseTo((counts[one]!.answers * counts[other]!.answers) / said.length, 12);
  expect(joined.map((index) => said[index])).toEqual([said[80], said[81]]);
});

test('what a link or a topic counts is what a search for it finds', () => {
  const word = fc.constantFrom(
    'queue',
    'queues',
    'Carrow',
    'cabin',
    'Cabins',
    'night',
    'café',
    'x',
  );
  const mark = fc.constantFrom(' ', ' ', ' ', '. ', '; ', '\n', ', ');
  const said = fc
    .array(fc.tuple(word, mark), { minLength: 1, maxLength: 7 })
    .map((pieces) => pieces.flat().join(''));
  fc.assert(
    fc.property(fc.array(said, { minLength: 5, maxLength: 12 }), (some) => {
      // often enough to be told from chance
      const all = [...some, ...some, ...some, ...some, ...Array<string>(200).fill('gull')];
      const { words, links, topics, counts, gaps } = networkOf(all);
      const found = (wanted: string, match: 'line' | 'any') =>
        all.filter(hitTester(wanted, match)).length;
      for (const { from, to, answers: counted } of links)
        expect(found(`${words[from]!.word} ${words[to]!.word}`, 'line')).toBe(counted);
      const wordsOf = (topic: number) => topics[topic]!.map((one) => words[one]!.word).join(' ');
      for (const [topic, { answers: counted }] of counts.entries())
        expect(found(wordsOf(topic), 'any')).toBe(counted);
      for (const { one, other, both } of gaps)
        expect(found(`${wordsOf(one)} + ${wordsOf(other)}`, 'any')).toBe(both);
    }),
  );
});

/** A graph of the check values' edges. */
function graphOf(file: string): UndirectedGraph {
  const graph = new UndirectedGraph();
  for (const { from, to, weight } of checkTable(file)) {
    graph.mergeNode(from);
    graph.mergeNode(to);
    graph.addEdge(from, to, { weight: Number(weight ?? 1) });
  }
  return graph;
}

test('communities of the karate club (Zachary 1977; optimum by igraph, check values 6.1 and 6.5)', () => {
  const { expected } = checkValue<unknown, { optimal_modularity: number }>('6.1');
  const { modularity } = bestCommunities(graphOf('karate_edges.csv'));
  // of twenty runs the best is one of the two best partitions that 2,000 runs of igraph and networkx found
  expect(modularity).toBeGreaterThan(0.4188);
  expect(modularity).toBeLessThan(expected.optimal_modularity + 1e-9);
  const weighted = checkValue<
    unknown,
    { louvain_weighted_modularity_range_300_seeds: [number, number] }
  >('6.5').expected.louvain_weighted_modularity_range_300_seeds;
  const found = bestCommunities(graphOf('karate_weighted_edges.csv')).modularity;
  expect(found).toBeGreaterThan(weighted[0]);
  expect(found).toBeLessThan(weighted[1] + 1e-9);
});
