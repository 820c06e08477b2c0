import type { WordNetwork } from '@yellow-thread/contract';
import { UndirectedGraph } from 'graphology';
import forceAtlas2 from 'graphology-layout-forceatlas2';

/** What is laid out of a network. */
export type Drawn = Pick<WordNetwork, 'words' | 'links' | 'topics'>;

/** A word in the picture: its middle, its size, and which of the network's words it is. */
export interface PlacedWord {
  index: number;
  x: number;
  y: number;
  width: number;
  height: number;
  fontSize: number;
}

export interface NetworkLayout {
  words: PlacedWord[];
  width: number;
  height: number;
}

const ASPECT = 1.6;
const FONT = { least: 13, most: 34 };
/** Of a letter of the serif, in parts of its size. */
const LETTER = 0.52;
const LINE = 1.3;
const GAP = { x: 12, y: 9 };
const ROUNDS = { forces: 400, apart: 300 };
/** How strongly words of one topic hold together besides their links. */
const WITHIN_TOPIC = 0.15;
const MARGIN = 30;

/**
 * Lays words out so that those that keep company stand near each other and none covers another: forces of links
 * (ForceAtlas2) from fixed places, then words are pushed apart as boxes. The same network always looks the same.
 *
 * @returns only words with a link
 * @see Jacomy, Venturini, Heymann & Bastian (2014) ForceAtlas2
 */
export function layoutNetwork({ words, links, topics }: Drawn): NetworkLayout {
  const linked = [...new Set(links.flatMap(({ from, to }) => [from, to]))].sort((x, y) => x - y);
  if (linked.length === 0) return { words: [], width: 0, height: 0 };
  const graph = new UndirectedGraph();
  for (const [place, word] of linked.entries()) {
    const angle = (2 * Math.PI * (words[word]!.topic ?? 0)) / Math.max(1, topics.length);
    // along a spiral of its topic: never two in one place
    const turn = 2.4 * place;
    graph.addNode(word, {
      x: 100 * Math.cos(angle) + (3 + place / 4) * Math.cos(turn),
      y: 100 * Math.sin(angle) + (3 + place / 4) * Math.sin(turn),
    });
  }
  for (const { words: its } of topics)
    for (const [i, one] of its.entries())
      for (const other of its.slice(i + 1))
        if (graph.hasNode(one) && graph.hasNode(other))
          graph.addEdge(one, other, { weight: WITHIN_TOPIC });
  for (const { from, to, npmi } of links)
    graph.updateEdge(from, to, ({ weight = 0 }) => ({ weight: Number(weight) + npmi }));
  const places = forceAtlas2(graph, {
    iterations: ROUNDS.forces,
    getEdgeWeight: 'weight',
    settings: {
      ...forceAtlas2.inferSettings(graph),
      gravity: 1.5,
      strongGravityMode: true,
      scalingRatio: 20,
    },
  });
  const most = Math.max(...linked.map((word) => words[word]!.answers));
  const boxes = linked.map((index): PlacedWord => {
    const { word, answers } = words[index]!;
    const fontSize = FONT.least + (FONT.most - FONT.least) * Math.sqrt(answers / most);
    const { x, y } = places[index]!;
    const width = Math.max(1, [...word].length) * LETTER * fontSize;
    return { index, x: x * ASPECT, y, width, height: LINE * fontSize, fontSize };
  });
  spread(boxes);
  pushApart(boxes);
  return framed(boxes);
}

/** Scales places so that boxes have about the room that they take. */
function spread(boxes: PlacedWord[]): void {
  const room = boxes.reduce((sum, { width, height }) => sum + (width + 40) * (height + 26), 0);
  const xs = boxes.map(({ x }) => x);
  const ys = boxes.map(({ y }) => y);
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const width = Math.max(1, Math.max(...xs) - left);
  const height = Math.max(1, Math.max(...ys) - top);
  const wanted = Math.sqrt(room * 1.5);
  for (const box of boxes) {
    box.x = ((box.x - left) / width) * wanted * Math.sqrt(ASPECT);
    box.y = ((box.y - top) / height) * (wanted / Math.sqrt(ASPECT));
  }
}

/** Moves boxes that overlap away from each other, along the shorter way. */
function pushApart(boxes: PlacedWord[]): void {
  for (let round = 0; round < ROUNDS.apart; round++) {
    let isFree = true;
    for (const [i, one] of boxes.entries())
      for (const other of boxes.slice(i + 1)) {
        const dx = other.x - one.x;
        const dy = other.y - one.y;
        const overX = (one.width + other.width) / 2 + GAP.x - Math.abs(dx);
        const overY = (one.height + other.height) / 2 + GAP.y - Math.abs(dy);
        if (overX <= 0 || overY <= 0) continue;
        isFree = false;
        // boxes are wide: up and down is usually the shorter way
        if (overX < overY) {
          const step = ((dx < 0 ? -1 : 1) * overX) / 2;
          one.x -= step;
          other.x += step;
        } else {
          const step = ((dy < 0 ? -1 : 1) * overY) / 2;
          one.y -= step;
          other.y += step;
        }
      }
    if (isFree) return;
  }
}

function framed(boxes: PlacedWord[]): NetworkLayout {
  const left = Math.min(...boxes.map(({ x, width }) => x - width / 2)) - MARGIN;
  // topics have their names above them
  const top = Math.min(...boxes.map(({ y, height }) => y - height / 2)) - 1.5 * MARGIN;
  const right = Math.max(...boxes.map(({ x, width }) => x + width / 2)) + MARGIN;
  const bottom = Math.max(...boxes.map(({ y, height }) => y + height / 2)) + MARGIN;
  return {
    words: boxes.map((box) => ({ ...box, x: box.x - left, y: box.y - top })),
    width: Math.ceil(right - left),
    height: Math.ceil(bottom - top),
  };
}
