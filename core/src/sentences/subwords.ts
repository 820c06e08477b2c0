/** A piece of a word, with the logarithm of how likely it is. */
export type Piece = readonly [text: string, score: number];

/** Stands for the beginning of a word in pieces. */
const WORD_START = '▁';
/** The first pieces are signs that no text has; 0 stands for what no piece covers. */
const RESERVED = 6;
const UNKNOWN = 0;

interface Node {
  next: Map<string, Node>;
  /** −1 where no piece ends. */
  piece: number;
}

/**
 * Splits texts into the likeliest pieces of a vocabulary (unigram language model).
 *
 * @see Kudo (2018) Subword regularization, arXiv:1804.10959, section 3.2; Viterbi (1967)
 */
export class SubwordSplitter {
  private readonly pieces: readonly Piece[];
  private readonly root: Node = { next: new Map(), piece: -1 };

  /** @param pieces in the order of their numbers */
  constructor(pieces: readonly Piece[]) {
    this.pieces = pieces;
    for (let piece = RESERVED; piece < pieces.length; piece++) {
      let node = this.root;
      for (const letter of pieces[piece]![0]) {
        let next = node.next.get(letter);
        if (!next) node.next.set(letter, (next = { next: new Map(), piece: -1 }));
        node = next;
      }
      node.piece = piece;
    }
  }

  /** @returns numbers of pieces, in order; several unknown characters in a row are one */
  split(text: string): Int32Array {
    const letters = [...`${WORD_START}${text.normalize('NFKC').replaceAll(' ', WORD_START)}`];
    const best = new Float64Array(letters.length + 1).fill(-Infinity);
    const piece = new Int32Array(letters.length + 1);
    const from = new Int32Array(letters.length + 1);
    best[0] = 0;
    const reach = (start: number, end: number, by: number, score: number) => {
      const total = best[start]! + score;
      // of equals the last, as the published runtime has it
      if (total < best[end]!) return;
      best[end] = total;
      piece[end] = by;
      from[end] = start;
    };
    for (let start = 0; start < letters.length; start++) {
      let isCovered = false;
      let node = this.root.next.get(letters[start]!);
      for (let end = start + 1; node; end++) {
        if (node.piece !== -1) {
          isCovered = true;
          reach(start, end, node.piece, this.pieces[node.piece]![1]);
        }
        node = end < letters.length ? node.next.get(letters[end]!) : undefined;
      }
      if (!isCovered) reach(start, start + 1, UNKNOWN, 0);
    }
    const split: number[] = [];
    for (let end = letters.length; end > 0; end = from[end]!)
      if (piece[end] !== UNKNOWN || split.at(-1) !== UNKNOWN) split.push(piece[end]!);
    return Int32Array.from(split.reverse());
  }
}
