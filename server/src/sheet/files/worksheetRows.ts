import { CellText, withoutEscapes } from './cellText.js';
import { problems } from '../../wording/problems.js';
import { numberText, withoutMidnight, type CellKind } from './numberFormats.js';
import { attributesOf, eachAttribute, localName, resolvedText, type XmlHandler } from './xml.js';
import { worksheetRowsTexts } from '../../wording/sheet.js';

/** What all worksheets of a workbook share. */
export interface SharedOfWorkbook {
  strings: string[];
  /** By style: what its numbers are. */
  kinds: CellKind[];
  /** Whether days are counted from 1904, and not from 1900. */
  from1904: boolean;
}

/** As many rows and columns as the format has. */
const MOST_ROWS = 2 ** 20;
const MOST_COLUMNS = 2 ** 14;
/** What lies further to the right is no sheet of answers: each row would be filled up to there. */
const MOST_FILLED = 2_000;

/** What stands in place of a formula without a stored result, written by a program that computes none. */
const NEVER_WORKED_OUT = '#VALUE!';

/** Makes rows of a worksheet's markup: what each cell shows, blank where the file leaves a cell or a row out. */
export class WorksheetRows implements XmlHandler {
  readonly rows: string[][] = [];
  readonly #shared: SharedOfWorkbook;
  readonly #fileName: string;
  /** How many rows there were. */
  #done = 0;
  #cells: string[] | null = null;
  /** Of the cell that is open, counted from 0. */
  #column = -1;
  #type = '';
  #style = 0;
  #value: string | null = null;
  #isInValue = false;
  #hasFormula = false;
  readonly #inline = new CellText();

  constructor(shared: SharedOfWorkbook, fileName: string) {
    this.#shared = shared;
    this.#fileName = fileName;
  }

  /** Most cells by far are a value and nothing else: those are read where they stand. */
  take(xml: string, start: number): number {
    if (!this.#cells || !xml.startsWith('<c ', start)) return -1;
    const end = xml.indexOf('>', start);
    if (end < 0 || !xml.startsWith('><v>', end)) return -1;
    const value = end + '><v>'.length;
    const after = xml.indexOf('<', value);
    if (after < 0 || !xml.startsWith('</v></c>', after)) return -1;
    this.#openCell(xml.slice(start + '<c'.length, end));
    this.#value = resolvedText(xml.slice(value, after));
    this.#closeCell(this.#cells);
    return after + '</v></c>'.length;
  }

  open(written: string, attributes: string): void {
    const name = localName(written);
    if (name === 'row') this.#openRow(attributes);
    else if (!this.#cells) return;
    else if (name === 'c') this.#openCell(attributes);
    else if (name === 'v') {
      this.#isInValue = true;
      this.#value = '';
    } else if (name === 'f') this.#hasFormula = true;
    else this.#inline.open(name);
  }

  text(text: string): void {
    if (this.#isInValue) this.#value += text;
    else if (this.#cells) this.#inline.add(text);
  }

  close(written: string): void {
    if (!this.#cells) return;
    const name = localName(written);
    if (name === 'v') this.#isInValue = false;
    else if (name === 'c') this.#closeCell(this.#cells);
    else if (name === 'row') {
      this.rows.push(this.#cells);
      this.#done += 1;
      this.#cells = null;
    } else this.#inline.close(name);
  }

  #openRow(attributes: string): void {
    const row = Number(attributesOf(attributes).get('r') ?? 0);
    if (row > MOST_ROWS) throw new Error(`a row has the number ${row}`);
    // rows that the file leaves out are blank
    for (; this.#done < row - 1; this.#done++) this.rows.push([]);
    this.#cells = [];
    this.#column = -1;
  }

  #openCell(written: string): void {
    // a cell that does not say where it stands follows the one before
    this.#column += 1;
    this.#type = 'n';
    this.#style = 0;
    this.#value = null;
    this.#hasFormula = false;
    eachAttribute(written, this.#takeAttribute);
  }

  readonly #takeAttribute = (name: string, value: string): void => {
    if (name === 'r') this.#column = columnOf(value);
    else if (name === 't') this.#type = value;
    else if (name === 's') this.#style = Number(value);
  };

  #closeCell(cells: string[]): void {
    const inline = this.#inline.take();
    const text =
      this.#value !== null
        ? this.#shown(this.#value)
        : this.#hasFormula && inline === ''
          ? NEVER_WORKED_OUT
          : inline;
    if (text === '') return;
    if (this.#column >= MOST_FILLED && text.trim() !== '')
      throw problems.unreadableSheet(
        worksheetRowsTexts.rowFilledCellColumn(
          this.#done,
          this.#fileName,
          this.#column,
          MOST_FILLED.toLocaleString('en'),
        ),
      );
    while (cells.length < this.#column) cells.push('');
    cells[this.#column] = text;
  }

  #shown(value: string): string {
    const { strings, kinds, from1904 } = this.#shared;
    switch (this.#type) {
      case 's':
        return strings[Number(value)] ?? '';
      case 'b':
        return value.trim() === '1' ? 'true' : 'false';
      // reported as such; it counts as blank
      case 'e':
        return value;
      case 'd':
        return withoutMidnight(value);
      case 'n':
        return numberText(value, kinds[this.#style] ?? 'number', from1904);
      default:
        return withoutEscapes(value);
    }
  }
}

/** "C7" → 2. */
function columnOf(reference: string): number {
  let column = 0;
  for (let i = 0; i < reference.length; i++) {
    const letter = reference.charCodeAt(i) - 0x40;
    if (letter < 1 || letter > 26) break;
    column = column * 26 + letter;
  }
  if (column < 1 || column > MOST_COLUMNS) throw new Error('a cell has no column');
  return column - 1;
}
