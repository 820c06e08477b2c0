import type { Readable } from 'node:stream';
import { fromRandomAccessReader, RandomAccessReader } from 'yauzl';
import { problems } from '../../wording/problems.js';
import { zipTexts } from '../../wording/sheet.js';
import { openZip, type Zip } from '../../zip.js';
import { streamOf, type FileSource } from './source.js';

/** What a workbook may unpack to: more is taken for a file made to fill the memory. */
const LARGEST_UNPACKED = 2 * 1024 ** 3;

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
 * Opens a workbook's zip.
 *
 * @throws Problem unreadable_sheet for what is damaged, cut off or made to fill the memory, sheet_locked
 */
export const openWorkbookZip = (source: FileSource, fileName: string): Promise<Zip> =>
  openZip(
    (done) =>
      fromRandomAccessReader(
        new PartsReader(source),
        source.size,
        { lazyEntries: false, autoClose: false },
        done,
      ),
    {
      largestUnpacked: LARGEST_UNPACKED,
      damaged: () => problems.unreadableSheet(zipTexts.damagedCutOffWay(fileName)),
      tooLarge: (unpacked) =>
        problems.unreadableSheet(
          zipTexts.wouldUnpackMbFar(
            fileName,
            Math.round(unpacked / 1024 ** 2).toLocaleString('en'),
          ),
        ),
      locked: () => problems.sheetLocked(fileName),
    },
  );
