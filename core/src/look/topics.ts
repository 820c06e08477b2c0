import { UndirectedGraph } from 'graphology';
import louvain from 'graphology-communities-louvain';
import { randomSource } from '../statistics/index.js';
import type { LinkedWords } from './wordNetwork.js';

/** Words that keep company with each other more than with the rest, by their indices, most used first. */
export interface Topics {
  topics: number[][];
  /** How much more of the links' weight lies within topics than would by chance: −½ to 1. */
  modularity: number;
}

/** The package's types speak of a default export that its CommonJS module does not have. */
const communitiesOf = louvain as unknown as typeof louvain.default;
const RUNS = 20;
const FEWEST_WORDS = 2;

/**
 * Parts the words of a network into topics: the best of some seeded runs of Louvain's method by modularity. Words
 * without a link belong to none.
 *
 * @returns the topics of most people first; the same for the same words and links
 * @see Blondel, Guillaume, Lambiotte & Lefebvre (2008) Fast unfolding of communities in large networks; Newman (2004)
 *   Analysis of weighted networks, for the modularity
 */
export function findTopics({ words, links }: Pick<LinkedWords, 'words' | 'links'>): Topics {
  const graph = new UndirectedGraph();
  for (const { from, to, npmi } of links) {
    for (const word of [from, to]) if (!graph.hasNode(word)) graph.addNode(word);
    graph.addEdge(from, to, { weight: npmi });
  }
  if (graph.size === 0) return { topics: [], modularity: 0 };
  const { communities, modularity } = bestCommunities(graph);
  const byCommunity = new Map<number, number[]>();
  for (const [word, community] of Object.entries(communities)) {
    const its = byCommunity.get(community) ?? [];
    byCommunity.set(community, [...its, Number(word)]);
  }
  const peopleOf = (topic: number[]) => topic.reduce((sum, word) => sum + words[word]!.answers, 0);
  const topics = [...byCommunity.values()]
    .map((its) => its.sort((x, y) => x - y))
    .filter(({ length }) => length >= FEWEST_WORDS)
    .sort((x, y) => peopleOf(y) - peopleOf(x) || x[0]! - y[0]!);
  return { topics, modularity };
}

/** The best of some runs of Louvain's method; edges have a `weight`. */
export function bestCommunities(graph: UndirectedGraph): {
  communities: Record<string, number>;
  modularity: number;
} {
  const runs = Array.from({ length: RUNS }, (_, seed) => {
    const next = randomSource(seed);
    return communitiesOf.detailed(graph, { getEdgeWeight: 'weight', rng: () => next() / 2 ** 32 });
  });
  return runs.reduce((best, run) => (run.modularity > best.modularity + 1e-12 ? run : best));
}

const NAMED_BY = 3;

/** What a topic is called: its most used words. */
export const topicName = (words: readonly string[]): string => words.slice(0, NAMED_BY).join(' · ');
