import { escapeUTF8 } from 'entities';

type Value = string | number | boolean;
/** What is told of a node or an edge; what is null is left out. */
type Data = Record<string, Value | null>;

export interface Graph {
  id: string;
  nodes: { id: string; data: Data }[];
  edges: { from: string; to: string; directed: boolean; data: Data }[];
}

/** @see Brandes et al. (2002) GraphML Progress Report, and graphml.graphdrawing.org for the schema */
export function writeGraphml({ id, nodes, edges }: Graph): string {
  const keys = [...keysOf('node', nodes), ...keysOf('edge', edges)];
  const dataOf = (of: 'node' | 'edge', data: Data) =>
    Object.entries(data)
      .filter(([, value]) => value !== null)
      .map(([name, value]) => `<data key="${of}-${name}">${escapeUTF8(String(value))}</data>`)
      .join('');
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<graphml xmlns="http://graphml.graphdrawing.org/xmlns">',
    ...keys.map(
      ({ of, name, type }) =>
        `  <key id="${of}-${name}" for="${of}" attr.name="${name}" attr.type="${type}"/>`,
    ),
    `  <graph id="${id}" edgedefault="undirected">`,
    ...nodes.map((node) => `    <node id="${node.id}">${dataOf('node', node.data)}</node>`),
    ...edges.map(
      ({ from, to, directed, data }) =>
        `    <edge source="${from}" target="${to}"${directed ? ' directed="true"' : ''}>${dataOf('edge', data)}</edge>`,
    ),
    '  </graph>',
    '</graphml>',
    '',
  ].join('\n');
}

function keysOf(of: 'node' | 'edge', all: readonly { data: Data }[]) {
  const names = new Set(all.flatMap(({ data }) => Object.keys(data)));
  return [...names].flatMap((name) => {
    const values = all.flatMap(({ data }) => data[name] ?? []);
    return values.length === 0 ? [] : [{ of, name, type: typeOf(values) }];
  });
}

function typeOf(values: readonly Value[]): string {
  if (!values.every((value) => typeof value === 'number')) return typeof values[0];
  return values.every(Number.isInteger) ? 'int' : 'double';
}
