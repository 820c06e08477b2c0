import type { NetworkFormat, WordNetwork } from '@yellow-thread/contract';
import { writeCsv } from '@yellow-thread/core/exchange';
import { writeGraphml } from '../exchange/index.js';
import { networkFileTexts as texts } from '../wording/look.js';

/** A network of words as a file: its words, links or topics as a table, or all of it as a graph. */
export function networkFile(network: WordNetwork, format: NetworkFormat): string {
  const { words, links, topics, columns } = network;
  const nameOf = (topic: number | null) => (topic === null ? null : topics[topic]!.name);
  switch (format) {
    case 'words.csv':
      return writeCsv([
        [texts.word, texts.people, texts.topic],
        ...words.map(({ word, answers, topic }) => [word, answers, nameOf(topic)]),
      ]);
    case 'links.csv':
      return writeCsv([
        [texts.word, texts.with, texts.people, texts.lines, texts.npmi],
        ...links.map(({ from, to, answers, lines, npmi }) => [
          words[from]!.word,
          words[to]!.word,
          answers,
          lines,
          npmi,
        ]),
      ]);
    case 'topics.csv':
      return writeCsv([
        [
          texts.topic,
          texts.words,
          texts.people,
          ...columns.flatMap(({ label, answers }) => [label, texts.outOf(label, answers)]),
        ],
        ...topics.map((topic, t) => [
          nameOf(t),
          topic.words.map((word) => words[word]!.word).join(' '),
          topic.answers,
          ...topic.byColumn.flatMap((count, c) => [
            count,
            columns[c]!.answers === 0 ? null : count / columns[c]!.answers,
          ]),
        ]),
      ]);
    case 'graphml':
      return asGraphml(network, nameOf);
  }
}

const asGraphml = (
  { words, links }: WordNetwork,
  nameOf: (topic: number | null) => string | null,
): string =>
  writeGraphml({
    id: 'words',
    nodes: words.map(({ word, answers, topic }, i) => ({
      id: `w${i}`,
      data: { label: word, people: answers, topic: nameOf(topic) },
    })),
    edges: links.map(({ from, to, answers, lines, npmi }) => ({
      ...{ from: `w${from}`, to: `w${to}`, directed: false },
      data: { together: answers, lines, weight: npmi },
    })),
  });
