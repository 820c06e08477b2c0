import { createHash } from 'node:crypto';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { ThreadChannel } from '../jobs/threads/threadChannel.js';
import { sourceOf } from './files/index.js';
import { refuseStops } from './importSheet.js';
import { proposeSettings } from './sheets.js';
import { checkSheetWork, readSheetWork, writeSheetWork, type SheetRows } from './sheetWork.js';
import { writeRespondents, type WrittenResponses } from './writeRespondents.js';

/**
 * Imports a text file that ships with the product, with what is guessed of it, in the caller's transaction and
 * on the caller's thread.
 */
export async function importFile(
  em: EntityManager,
  file: { studyId: number; accountId: number; fileName: string; content: Uint8Array },
): Promise<WrittenResponses> {
  const { studyId, accountId, fileName, content } = file;
  const size = content.length;
  const channel = (write: ThreadChannel['write']): ThreadChannel => ({
    part: sourceOf(content).part,
    write,
    report: () => {},
  });
  const readOnly = channel(() => Promise.reject(new Error('Only text can be imported like this.')));
  const read = await readSheetWork({ fileName, size, choices: {} }, readOnly);
  const { settings } = await proposeSettings(em, studyId, read);
  const shape: SheetRows = {
    fileName,
    size,
    file: read.file,
    columns: read.columns.map(({ head, code }) => ({ name: head, code })),
  };
  const outcome = await checkSheetWork(
    { sheet: shape, settings, known: [], labels: {}, seed: 1 },
    readOnly,
  );
  refuseStops(outcome);
  const checksum = createHash('sha256').update(content).digest('hex');
  return writeRespondents(em, { studyId, accountId, checksum, size, shape, settings }, outcome, {
    writeSheet: (input, write) => writeSheetWork(input, channel(write)),
  });
}
