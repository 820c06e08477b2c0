import { problems } from '../../wording/problems.js';
import { plainNumber, withoutMidnight } from './numberFormats.js';
import type { RowBatch } from './text.js';
import {
  isFilledRow,
  MOST_WORKSHEETS,
  ROWS_OF_FILLED,
  tooManyWorksheets,
  type Worksheets,
} from './worksheets.js';
import { attributesOf, xmlSteps, type XmlHandler } from './xml.js';
import type { Zip } from '../../zip.js';
import { openDocumentTexts } from '../../wording/sheet.js';

const BATCH = 500;
/** More than any sheet of answers repeats: a cell or row that claims so many repeats fills the memory. */
const MOST_REPEATS = 5_000;
/** Formatting that runs down a whole sheet is kept as repeated blank rows: these are no rows. */
const MOST_BLANK = 100_000;

/** A spreadsheet in the OpenDocument format (ISO/IEC 26300) opened for reading. */
export function openSpreadsheet(zip: Zip, fileName: string) {
  return {
    /** Names of the tables and, found on the same way, the first of several that is filled. */
    async worksheets(): Promise<Worksheets> {
      const names: string[] = [];
      let firstFilled: string | undefined;
      let filled = 0;
      const lookAtRows = () => {
        filled += table.rows.splice(0).filter(isFilledRow).length;
        if (filled >= ROWS_OF_FILLED) firstFilled ??= names.at(-1);
      };
      const table = new TableReader(
        () => firstFilled === undefined,
        (name) => {
          lookAtRows();
          filled = 0;
          if (names.push(name) > MOST_WORKSHEETS) throw tooManyWorksheets(fileName);
        },
      );
      const steps = xmlSteps(await zip.open('content.xml'), table);
      while (!(await steps.next()).done) lookAtRows();
      lookAtRows();
      return { names, firstFilled: () => Promise.resolve(firstFilled) };
    },
    rows: (worksheet: string): AsyncGenerator<RowBatch> => readContent(zip, worksheet),
  };
}

/** Streams through the content; only the rows of the named table are kept. */
async function* readContent(zip: Zip, worksheet: string): AsyncGenerator<RowBatch> {
  const table = new TableReader(
    (title) => title === worksheet,
    () => {},
  );
  let row = 1;
  const steps = xmlSteps(await zip.open('content.xml'), table);
  while (!(await steps.next()).done)
    if (table.rows.length >= BATCH) {
      const rows = table.rows.splice(0);
      yield { row, rows };
      row += rows.length;
    }
  if (table.rows.length > 0) yield { row, rows: table.rows };
}

class TableReader implements XmlHandler {
  readonly rows: string[][] = [];
  readonly #isWanted: (table: string) => boolean;
  readonly #onTable: (name: string) => void;
  #inside = false;
  #cells: string[] = [];
  #blankCells = 0;
  #blankRows = 0;
  #rowRepeats = 1;
  /** The cell being read; its text is what a person sees, except where a typed value says it better. */
  #cell: { text: string; value: string | null; repeats: number } | null = null;
  #paragraphs = 0;
  #notes = 0;

  constructor(isWanted: (table: string) => boolean, onTable: (name: string) => void) {
    this.#isWanted = isWanted;
    this.#onTable = onTable;
  }

  open(name: string, written: string): void {
    const attributes = attributesOf(written);
    if (name === 'table:table') {
      const title = attributes.get('table:name') ?? '';
      this.#onTable(title);
      this.#inside = this.#isWanted(title);
    }
    if (!this.#inside) return;
    if (name === 'table:table-row') {
      this.#cells = [];
      this.#blankCells = 0;
      this.#rowRepeats = timesOf(attributes.get('table:number-rows-repeated'));
    } else if (name === 'table:table-cell' || name === 'table:covered-table-cell') {
      this.#cell = {
        text: '',
        value: typedValue(attributes),
        repeats: timesOf(attributes.get('table:number-columns-repeated')),
      };
      this.#paragraphs = 0;
    } else if (name === 'office:annotation') this.#notes += 1;
    else if (this.#cell && this.#notes === 0) {
      if (name === 'text:p' && this.#paragraphs++ > 0) this.#cell.text += '\n';
      if (name === 'text:s') {
        const blanks = timesOf(attributes.get('text:c'));
        refuseRepeats(blanks);
        this.#cell.text += ' '.repeat(blanks);
      }
      if (name === 'text:tab') this.#cell.text += '\t';
      if (name === 'text:line-break') this.#cell.text += '\n';
    }
  }

  text(text: string): void {
    if (this.#cell && this.#notes === 0 && this.#paragraphs > 0) this.#cell.text += text;
  }

  close(name: string): void {
    if (name === 'table:table') this.#inside = false;
    if (name === 'office:annotation') this.#notes -= 1;
    if (!this.#inside) return;
    if (name === 'table:table-cell' || name === 'table:covered-table-cell') this.#endCell();
    if (name === 'table:table-row') this.#endRow();
  }

  #endCell(): void {
    const { text, value, repeats } = this.#cell!;
    this.#cell = null;
    const written = value ?? text;
    if (written === '') {
      this.#blankCells += repeats;
      return;
    }
    // blank cells at the end of a row run to the edge of the sheet
    for (; this.#blankCells > 0; this.#blankCells--) this.#cells.push('');
    refuseRepeats(repeats);
    for (let n = 0; n < repeats; n++) this.#cells.push(written);
  }

  #endRow(): void {
    if (this.#cells.length === 0) {
      this.#blankRows += this.#rowRepeats;
      return;
    }
    for (; this.#blankRows > 0 && this.#blankRows <= MOST_BLANK; this.#blankRows--)
      this.rows.push([]);
    this.#blankRows = 0;
    refuseRepeats(this.#rowRepeats);
    for (let n = 0; n < this.#rowRepeats; n++) this.rows.push([...this.#cells]);
  }
}

const timesOf = (written: string | undefined): number =>
  Math.min(1_048_576, Math.max(1, Number(written ?? 1) || 1));

function refuseRepeats(repeats: number): void {
  if (repeats > MOST_REPEATS)
    throw problems.unreadableSheet(
      openDocumentTexts.spreadsheetRepeatsOneRow(repeats.toLocaleString('en')),
    );
}

function typedValue(attributes: ReadonlyMap<string, string>): string | null {
  switch (attributes.get('office:value-type')) {
    case 'float':
    case 'percentage':
    case 'currency':
      return plainNumber(attributes.get('office:value') ?? '') || null;
    case 'date':
      return withoutMidnight(attributes.get('office:date-value') ?? '') || null;
    case 'boolean':
      return attributes.get('office:boolean-value') ?? null;
    default:
      return null;
  }
}
