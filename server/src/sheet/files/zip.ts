import { text } from 'node:stream/consumers';
import type { Readable } from 'node:stream';
import { fromRandomAccessReader, RandomAccessReader, type Entry, type ZipFile } from 'yauzl';
import { problems } from '../../wording/problems.js';
import { streamOf, type FileSource } from './source.js';
import { zipTexts } from '../../wording/sheet.js';

/** What a workbook may unpack to: more is taken for a file made to fill the memory. */
const LARGEST_UNPACKED = 2 * 1024 ** 3;
const LARGEST_RATIO = 250;
const RATIO_COUNTS_FROM = 100 * 1024 ** 2;

/** An opened zip file of which any entry can be read. */
export interface Zip {
  names: string[];
  open(name: string): Promise<Readable>;
  text(name: string): Promise<string>;
  close(): void;
}

class PartsReader extends RandomAccessReader {
  readonly #source: FileSource;
  constructor(source: FileSource) {
    super();
    this.#source = source;
  }
  override _readStreamForRange(start: number, end: number): Readable {
    return streamOf(this.#source, start, end);
  }
}

/**
 * Opens a zip by its directory. What an entry unpacks to can never exceed what the directory says, and
 * that is looked at first.
 *
 * @throws Problem unreadable_sheet for what is damaged, cut off or made to fill the memory
 */
export async function openZip(source: FileSource, fileName: string): Promise<Zip> {
  const damaged = () => problems.unreadableSheet(zipTexts.damagedCutOffWay(fileName));
  const file = await new Promise<ZipFile>((resolve, reject) => {
    fromRandomAccessReader(
      new PartsReader(source),
      source.size,
      { lazyEntries: false, autoClose: false },
      (error, opened) => (error ? reject(damaged()) : resolve(opened)),
    );
  });
  const entries = await new Promise<Map<string, Entry>>((resolve, reject) => {
    const found = new Map<string, Entry>();
    file.on('entry', (entry: Entry) => found.set(entry.fileName, entry));
    file.on('end', () => resolve(found));
    file.on('error', () => reject(damaged()));
  });
  let unpacked = 0;
  for (const entry of entries.values()) unpacked += entry.uncompressedSize;
  if (
    unpacked > LARGEST_UNPACKED ||
    (unpacked > RATIO_COUNTS_FROM && unpacked > LARGEST_RATIO * source.size)
  )
    throw problems.unreadableSheet(
      zipTexts.wouldUnpackMbFar(fileName, Math.round(unpacked / 1024 ** 2).toLocaleString('en')),
    );
  const open = (name: string) =>
    new Promise<Readable>((resolve, reject) => {
      const entry = entries.get(name);
      if (!entry) return reject(damaged());
      if ((entry.generalPurposeBitFlag & 1) === 1) return reject(problems.sheetLocked(fileName));
      file.openReadStream(entry, (error, stream) => (error ? reject(damaged()) : resolve(stream)));
    });
  return {
    names: [...entries.keys()],
    open,
    text: async (name) => text(await open(name)),
    close: () => file.close(),
  };
}
