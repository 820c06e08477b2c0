import { Problem, problems } from '../wording/problems.js';
import { openFile, sourceOf, type OpenedFile } from './files/index.js';
import { readTableTexts } from '../wording/sheet.js';

const MOST_ROWS = 20_000;

/** All rows of a small file of any kind that sheets come in, in memory. @throws Problem unreadable_sheet */
export async function readTable(fileName: string, content: Uint8Array): Promise<string[][]> {
  let opened: OpenedFile | null = null;
  try {
    opened = await openFile(fileName, sourceOf(content), {});
    const table: string[][] = [];
    for await (const { rows } of opened.rows()) {
      table.push(...rows);
      if (table.length > MOST_ROWS)
        throw problems.unreadableSheet(readTableTexts.moreRows(fileName, MOST_ROWS));
    }
    return table;
  } catch (error) {
    throw error instanceof Problem ? error : problems.damagedSheet(fileName);
  } finally {
    opened?.close();
  }
}
