import type { NetworkFormat, WordNetwork } from '@yellow-thread/contract';
import { writeCsv } from '@yellow-thread/core/exchange';
import { escapeUTF8 } from 'entities';
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

/** @see Brandes et al. (2002) GraphML Progress Report, and graphml.graphdrawing.org for the schema */
function asGraphml(
  { words, links }: WordNetwork,
  nameOf: (topic: number | null) => string | null,
): string {
  const data = (key: string, value: string | number) =>
    `<data key="${key}">${escapeUTF8(String(value))}</data>`;
  const key = (id: string, of: 'node' | 'edge', type: 'string' | 'int' | 'double') =>
    `  <key id="${id}" for="${of}" attr.name="${id}" attr.type="${type}"/>`;
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<graphml xmlns="http://graphml.graphdrawing.org/xmlns">',
    key('label', 'node', 'string'),
    key('people', 'node', 'int'),
    key('topic', 'node', 'string'),
    key('together', 'edge', 'int'),
    key('lines', 'edge', 'int'),
    key('weight', 'edge', 'double'),
    '  <graph id="words" edgedefault="undirected">',
    ...words.map(({ word, answers, topic }, i) => {
      const name = nameOf(topic);
      return `    <node id="w${i}">${data('label', word)}${data('people', answers)}${name === null ? '' : data('topic', name)}</node>`;
    }),
    ...links.map(
      ({ from, to, answers, lines, npmi }) =>
        `    <edge source="w${from}" target="w${to}">${data('together', answers)}${data('lines', lines)}${data('weight', npmi)}</edge>`,
    ),
    '  </graph>',
    '</graphml>',
    '',
  ].join('\n');
}
