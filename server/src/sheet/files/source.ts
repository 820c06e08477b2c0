import { Readable } from 'node:stream';

/** Size of the parts in which a file is kept; the last one may be shorter. */
export const PART_SIZE = 1024 * 1024;

/** A kept file that is read part by part, never whole. */
export interface FileSource {
  size: number;
  /** @param index from 0; parts beyond the end are not asked for */
  part: (index: number) => Promise<Uint8Array>;
}

/** The bytes of a file from `start` to `end` (exclusive), in order: while one part is worked on, the next is fetched. */
export async function* bytesOf(
  source: FileSource,
  start = 0,
  end = source.size,
): AsyncGenerator<Uint8Array> {
  const fetch = (index: number) => {
    if (index * PART_SIZE >= end) return null;
    const part = source.part(index);
    // reported when it is its turn, not as an unhandled rejection
    part.catch(() => {});
    return part;
  };
  let coming = start < end ? fetch(Math.floor(start / PART_SIZE)) : null;
  for (let at = start; coming;) {
    const index = Math.floor(at / PART_SIZE);
    const part = await coming;
    coming = fetch(index + 1);
    const from = at - index * PART_SIZE;
    const to = Math.min(part.length, end - index * PART_SIZE);
    if (to <= from) throw new Error('A part of the file is missing.');
    yield part.subarray(from, to);
    at = index * PART_SIZE + to;
  }
}

/**
 * Bytes that are turned into rows at a time. They are freed before the garbage collector runs: of a whole part
 * it would move every cell once.
 */
export const PIECE = 64 * 1024;

/** The bytes of a file in pieces of at most PIECE. */
export async function* piecesOf(source: FileSource): AsyncGenerator<Uint8Array> {
  for await (const bytes of bytesOf(source))
    for (let at = 0; at < bytes.length; at += PIECE) yield bytes.subarray(at, at + PIECE);
}

export const streamOf = (source: FileSource, start?: number, end?: number): Readable =>
  Readable.from(bytesOf(source, start, end), { objectMode: false });

/** A file that is in memory already. */
export const sourceOf = (content: Uint8Array): FileSource => ({
  size: content.length,
  part: (index) => Promise.resolve(content.subarray(index * PART_SIZE, (index + 1) * PART_SIZE)),
});

export async function firstBytes(source: FileSource, count: number): Promise<Uint8Array> {
  const pieces: Uint8Array[] = [];
  for await (const piece of bytesOf(source, 0, Math.min(count, source.size))) pieces.push(piece);
  return Buffer.concat(pieces);
}

/**
 * Cuts what comes in pieces of any size into parts, and writes each as soon as it is full: while one is being written,
 * the next is gathered.
 */
export function partWriter(write: (part: Uint8Array) => Promise<void>) {
  let waiting: Uint8Array[] = [];
  let length = 0;
  let size = 0;
  let writing = Promise.resolve();
  const put = async () => {
    const part = Buffer.concat(waiting, length);
    waiting = [];
    length = 0;
    await writing;
    writing = write(part);
    // reported when the next part or the end is awaited
    writing.catch(() => {});
  };
  return {
    async add(bytes: Uint8Array): Promise<void> {
      size += bytes.length;
      let rest = bytes;
      while (length + rest.length >= PART_SIZE) {
        const fits = PART_SIZE - length;
        waiting.push(rest.subarray(0, fits));
        length = PART_SIZE;
        rest = rest.subarray(fits);
        await put();
      }
      if (rest.length === 0) return;
      waiting.push(rest);
      length += rest.length;
    },
    /** Writes what is left. @returns the size of all parts together */
    async end(): Promise<number> {
      if (length > 0) await put();
      await writing;
      return size;
    },
  };
}
