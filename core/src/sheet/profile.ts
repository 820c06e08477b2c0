import { splitWords } from '../text/index.js';
import { isErrorValue } from './cells.js';
import { parseDate, parseNumber, parseYesNo } from './values.js';

/** What is known of a column after all rows were seen. */
export interface ColumnProfile {
  name: string;
  rows: number;
  filled: number;
  /** How many different values; beyond `MOST_DISTINCT` a lower bound, except when none repeats. */
  distinct: number;
  /** Different values out of all filled ones, or out of the first ones where there are very many. */
  distinctShare: number;
  /** No filled value occurs twice. */
  allDiffer: boolean;
  medianWords: number;
  longest: number;
  numbers: number;
  nonNegative: boolean;
  dates: number;
  /** Cells that are numbers with a comma, or a point, between thousands; cells in which a comma stands so. */
  commaGroups: number;
  pointGroups: number;
  grouped: number;
  /** Cells that are dates with the month first; cells that then are another date than with the day first. */
  monthFirst: number;
  /** Cells that are dates either way. */
  anyDates: number;
  twoWays: number;
  /** Cells with a letter; of those that are not longer than a number or date is. */
  lettered: number;
  yesNo: number;
  /** Cells that hold a digit and no decimal fraction, as ids do. */
  idLike: number;
  /** Cells of several short choices separated by this. */
  choiceSeparator: string | null;
  /** Different values and how often each occurs, the first `MOST_DISTINCT` of them. */
  values: Map<string, number>;
}

const MOST_DISTINCT = 2_000;
const LONGEST_KEY = 1_000;
const LONGEST_CHOICE = 60;
const SEPARATORS = [';', '|', ','] as const;

/** Looks at the rows of a sheet one by one and keeps, for each column, what its role is guessed from. */
export function profileColumns(names: readonly string[]) {
  const columns = names.map((name) => new ColumnCount(name));
  return {
    add(cells: readonly string[]): void {
      for (const [c, column] of columns.entries()) column.add(cells[c] ?? '');
    },
    profiles: (): ColumnProfile[] => columns.map((column) => column.profile()),
  };
}

class ColumnCount {
  readonly #name: string;
  #rows = 0;
  #filled = 0;
  #longest = 0;
  /** How many cells have 0, 1, 2 … words; the last place holds all longer ones. */
  readonly #words = new Uint32Array(256);
  readonly #values = new Map<string, number>();
  /** How many cells were filled when no more different values could be kept; 0 while they can. */
  #filledWhenFull = 0;
  /** Every value, for as long as none came twice: that is how an id is known. */
  #unrepeated: Set<string> | null = new Set();
  /** What was found of the cells whose values could not be kept. */
  readonly #beyond = nothingRead();

  constructor(name: string) {
    this.#name = name;
  }

  add(written: string): void {
    this.#rows += 1;
    const cell = isErrorValue(written) ? '' : written.trim();
    if (cell === '') return;
    this.#filled += 1;
    if (cell.length > this.#longest) this.#longest = cell.length;
    this.#words[Math.min(255, countWords(cell))]! += 1;
    if (this.#unrepeated) {
      const key = cell.length > LONGEST_KEY ? cell.slice(0, LONGEST_KEY) : cell;
      const { size } = this.#unrepeated;
      if (this.#unrepeated.add(key).size === size) this.#unrepeated = null;
    }
    const known = this.#values.get(cell);
    if (known !== undefined) this.#values.set(cell, known + 1);
    else if (this.#filledWhenFull === 0) {
      this.#values.set(cell, 1);
      if (this.#values.size === MOST_DISTINCT) this.#filledWhenFull = this.#filled;
    } else readValue(cell, 1, this.#beyond);
  }

  profile(): ColumnProfile {
    const read = { ...this.#beyond };
    for (const [value, count] of this.#values) readValue(value, count, read);
    const { negative, ...found } = read;
    const distinct = this.#unrepeated?.size ?? this.#values.size;
    const seen = this.#unrepeated ? this.#filled : this.#filledWhenFull || this.#filled;
    return {
      name: this.#name,
      rows: this.#rows,
      filled: this.#filled,
      distinct,
      distinctShare: seen === 0 ? 0 : distinct / seen,
      allDiffer: this.#unrepeated !== null,
      medianWords: medianOf(this.#words, this.#filled),
      longest: this.#longest,
      nonNegative: negative === 0,
      ...found,
      choiceSeparator: this.#filledWhenFull > 0 ? null : choiceSeparator(this.#values),
      values: this.#values,
    };
  }
}

const nothingRead = () => ({
  numbers: 0,
  negative: 0,
  commaGroups: 0,
  pointGroups: 0,
  grouped: 0,
  dates: 0,
  monthFirst: 0,
  anyDates: 0,
  twoWays: 0,
  idLike: 0,
  yesNo: 0,
  lettered: 0,
});

/** What is longer is neither a number nor a date nor an id. */
export const LONGEST_VALUE = 40;

/** Adds a value's possible kinds to the counts. */
function readValue(value: string, count: number, found: ReturnType<typeof nothingRead>): void {
  if (value.length > LONGEST_VALUE) return;
  const number = parseNumber(value);
  const date = number === null ? parseDate(value) : null;
  const mayBeGrouped = /[.,]/u.test(value);
  const byComma = mayBeGrouped ? parseNumber(value, 'comma_groups') : number;
  const byPoint = mayBeGrouped ? parseNumber(value, 'point_groups') : number;
  const byMonth = value.includes('/') ? parseDate(value, 'month_first') : date;
  if (number !== null) found.numbers += count;
  if (number !== null && number < 0) found.negative += count;
  if (byComma !== null) found.commaGroups += count;
  if (byComma !== null && value.includes(',')) found.grouped += count;
  if (byPoint !== null) found.pointGroups += count;
  if (date !== null) found.dates += count;
  if (byMonth !== null) found.monthFirst += count;
  if (date !== null && byMonth !== null && date !== byMonth) found.twoWays += count;
  if (date !== null || byMonth !== null) found.anyDates += count;
  if (parseYesNo(value) !== null) found.yesNo += count;
  if (date === null && byMonth === null && isIdLike(value)) found.idLike += count;
  if (/\p{L}/u.test(value)) found.lettered += count;
}

/** Ids hold a digit and no decimal fraction. */
const isIdLike = (cell: string) => /\d/u.test(cell) && !/[.,]\d/u.test(cell);

/** Choices are few, and cells that join them are many; a comma alone also stands in sentences. */
function choiceSeparator(values: ReadonlyMap<string, number>): string | null {
  for (const separator of SEPARATORS) {
    const choices = new Set<string>();
    let [filled, joined] = [0, 0];
    for (const [value, count] of values) {
      const parts = value.split(separator);
      filled += count;
      if (parts.length > 1) joined += count;
      for (const part of parts) choices.add(part.trim());
    }
    const many = joined >= 2 && joined >= 0.1 * filled;
    const short = [...choices].every((choice) => choice.length <= LONGEST_CHOICE);
    const few = choices.size <= 30 && choices.size < values.size && 2 * choices.size <= filled;
    if (many && short && few) return separator;
  }
  return null;
}

/** From the first script that writes no spaces between words (Thai) on; letters before it do. */
const MAY_BE_UNSPACED = 0xe00;

function countWords(cell: string): number {
  let words = 0;
  let inside = false;
  for (let i = 0; i < cell.length; i++) {
    const code = cell.charCodeAt(i);
    if (code >= MAY_BE_UNSPACED && code !== 0x3000) return splitWords(cell).length;
    const blank = code === 32 || (code >= 9 && code <= 13) || code === 0xa0 || code === 0x3000;
    if (!blank && !inside) words += 1;
    inside = !blank;
  }
  return words;
}

function medianOf(counts: Uint32Array, total: number): number {
  let below = 0;
  const middle = Math.floor(total / 2);
  for (const [words, count] of counts.entries()) {
    below += count;
    if (below > middle) return words;
  }
  return 0;
}
