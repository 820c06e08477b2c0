import { text } from 'node:stream/consumers';
import type { Readable } from 'node:stream';
import type { Entry, ZipFile } from 'yauzl';

const LARGEST_RATIO = 250;
const RATIO_COUNTS_FROM = 100 * 1024 ** 2;
const IS_LOCKED = 1;

/** An opened zip file of which any entry can be read. */
export interface Zip {
  names: string[];
  open(name: string): Promise<Readable>;
  text(name: string): Promise<string>;
  close(): void;
}

/** What is said of a zip that cannot be read, and what it may unpack to. */
export interface ZipLimits {
  largestUnpacked: number;
  /** It is no zip, is damaged, or has no such entry. */
  damaged: () => Error;
  /** It would unpack to more than may be, or than any honest file of its size. */
  tooLarge: (unpacked: number) => Error;
  locked: () => Error;
}

/**
 * Reads a zip by its directory. What an entry unpacks to can never exceed what the directory says, and
 * that is looked at first.
 *
 * @param start opens the file with yauzl, which keeps it open
 * @throws what the limits say
 */
export async function openZip(
  start: (done: (error: Error | null, file: ZipFile) => void) => void,
  { largestUnpacked, damaged, tooLarge, locked }: ZipLimits,
): Promise<Zip> {
  const file = await new Promise<ZipFile>((resolve, reject) => {
    start((error, opened) => (error ? reject(damaged()) : resolve(opened)));
  });
  const entries = await new Promise<Map<string, Entry>>((resolve, reject) => {
    const found = new Map<string, Entry>();
    file.on('entry', (entry: Entry) => found.set(entry.fileName, entry));
    file.on('end', () => resolve(found));
    file.on('error', () => reject(damaged()));
  }).catch((error: unknown) => {
    file.close();
    throw error;
  });
  let unpacked = 0;
  for (const entry of entries.values()) unpacked += entry.uncompressedSize;
  if (
    unpacked > largestUnpacked ||
    (unpacked > RATIO_COUNTS_FROM && unpacked > LARGEST_RATIO * file.fileSize)
  ) {
    file.close();
    throw tooLarge(unpacked);
  }
  const open = (name: string) =>
    new Promise<Readable>((resolve, reject) => {
      const entry = entries.get(name);
      if (!entry) return reject(damaged());
      if ((entry.generalPurposeBitFlag & IS_LOCKED) === IS_LOCKED) return reject(locked());
      file.openReadStream(entry, (error, stream) => (error ? reject(damaged()) : resolve(stream)));
    });
  return {
    names: [...entries.keys()],
    open,
    text: async (name) => text(await open(name)),
    close: () => file.close(),
  };
}
