import type { Readable } from 'node:stream';
import { open as openZip, type Entry, type ZipFile } from 'yauzl';
import { studyFileTexts as texts } from '../wording/studyFile.js';
import { problems } from '../wording/problems.js';

/** What a file may unpack to: more is taken for a file made to fill the memory. */
const LARGEST_UNPACKED = 8 * 1024 ** 3;
const LARGEST_RATIO = 250;
const RATIO_COUNTS_FROM = 100 * 1024 ** 2;

/** A zip of which any entry can be read. */
export interface ZipReader {
  names: string[];
  open(name: string): Promise<Readable>;
  close(): void;
}

/** @throws Problem bad_study_file for what is no zip, damaged, or made to fill the memory */
export async function readZip(path: string): Promise<ZipReader> {
  const damaged = () => problems.badStudyFile(texts.noZip);
  const file = await new Promise<ZipFile>((resolve, reject) => {
    openZip(path, { lazyEntries: false, autoClose: false }, (error, opened) =>
      error ? reject(damaged()) : resolve(opened),
    );
  });
  const entries = await new Promise<Map<string, Entry>>((resolve, reject) => {
    const found = new Map<string, Entry>();
    file.on('entry', (entry: Entry) => found.set(entry.fileName, entry));
    file.on('end', () => resolve(found));
    file.on('error', () => reject(damaged()));
  });
  const sum = (of: (entry: Entry) => number) =>
    [...entries.values()].reduce((total, entry) => total + of(entry), 0);
  const unpacked = sum((entry) => entry.uncompressedSize);
  const packed = sum((entry) => entry.compressedSize);
  if (
    unpacked > LARGEST_UNPACKED ||
    (unpacked > RATIO_COUNTS_FROM && unpacked > LARGEST_RATIO * packed)
  ) {
    file.close();
    throw damaged();
  }
  return {
    names: [...entries.keys()],
    open: (name) =>
      new Promise<Readable>((resolve, reject) => {
        const entry = entries.get(name);
        if (!entry) return reject(problems.badStudyFile(texts.otherTables));
        file.openReadStream(entry, (error, stream) =>
          error ? reject(damaged()) : resolve(stream),
        );
      }),
    close: () => file.close(),
  };
}
