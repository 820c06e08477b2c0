/**
 * Turns texts into vectors that stand close together where the texts mean alike, whatever their words. Another encoder
 * takes its place by implementing this.
 */
export interface SentenceEncoder {
  /** Which encoder, and which of its versions: vectors of different ones cannot be compared. */
  readonly name: string;
  readonly version: string;
  /** Numbers in a vector. */
  readonly size: number;
  /** Languages that it reads, as ISO 639-1 codes. */
  readonly languages: readonly string[];
  /**
   * @returns a vector of length 1 for each text; null for a text without anything to read. A text's vector is the same
   *   to the last bit whatever is encoded beside it.
   */
  encode(texts: readonly string[]): (Float32Array | null)[];
}

/** What tells an encoder's vectors from another's. */
export const encoderId = ({ name, version }: Pick<SentenceEncoder, 'name' | 'version'>): string =>
  `${name}@${version}`;
