import { problems } from '../problems.js';
import { openFile, sourceOf } from './files/index.js';

const MOST_ROWS = 20_000;

/** All rows of a small file of any kind that sheets come in, in memory. @throws Problem unreadable_sheet */
export async function readTable(fileName: string, content: Uint8Array): Promise<string[][]> {
  const opened = await openFile(fileName, sourceOf(content), {});
  try {
    const table: string[][] = [];
    for await (const { rows } of opened.rows()) {
      table.push(...rows);
      if (table.length > MOST_ROWS)
        throw problems.unreadableSheet(`“${fileName}” has more than ${MOST_ROWS} rows.`);
    }
    return table;
  } finally {
    opened.close();
  }
}
