import { holdsControls, isDangerous, isMojibake, isOdd } from './cells.js';
import { RowList, type FindingList } from './findings.js';
import { looksPersonal } from './personalData.js';
import type { PlannedRow, RowReader } from './rowReader.js';
import { isBackground, type HeadColumn, type SheetSettings } from './settings.js';
import { hasShortYear, hasTimeOfDay, parseDate } from './values.js';
import { cellFindingsTexts } from '../wording/sheet.js';

const LONGEST_TEXT = 100_000;
const LONGEST_ID = 200;
/** Cells of a column that are looked at for personal data. */
const MOST_SAMPLES = 200;

/** A column of numbers, dates or yes and no: which rows cannot be read so, or only by a rule. */
interface TypedColumn {
  c: number;
  place: number;
  role: keyof typeof kindNames;
  name: string;
  writing: SheetSettings['columns'][number]['writing'];
  rows: RowList;
  timed: RowList;
  shortYear: RowList;
  twoWays: RowList;
  oneWay: number;
  example: string;
}

/** Looks at the cells of each row as they are read, and reports in the end what was found. */
export class CellFindings {
  private readonly columns: readonly HeadColumn[];
  private readonly settings: SheetSettings;
  /** Places of the columns that are imported, and of the weight; −1 for none. */
  private readonly kept: number[];
  private readonly weight: number;
  private readonly typed: TypedColumn[];
  private readonly samples: string[][];
  private readonly lists = {
    uneven: new RowList(),
    blank: new RowList(),
    unreadable: new RowList(),
    controls: new RowList(),
    dangerous: new RowList(),
    longText: new RowList(),
    longId: new RowList(),
    badWeight: new RowList(),
    errors: new RowList(),
    mojibake: new RowList(),
  };
  private pendingBlank: number[] = [];
  private mojibake = '';

  constructor(columns: readonly HeadColumn[], settings: SheetSettings, reader: RowReader) {
    this.columns = columns;
    this.settings = settings;
    const roles = settings.columns.map((column) => column.role);
    this.kept = roles.flatMap((role, c) => (role === 'leave_out' ? [] : [c]));
    this.weight = roles.indexOf('weight');
    this.typed = reader.background.flatMap(({ c, place }): TypedColumn[] => {
      const { role, name, writing } = settings.columns[c]!;
      if (!isBackground(role) || role === 'category') return [];
      const lists = {
        rows: new RowList(),
        timed: new RowList(),
        shortYear: new RowList(),
        twoWays: new RowList(),
      };
      return [{ c, place, role, name, writing, ...lists, oneWay: 0, example: '' }];
    });
    this.samples = columns.map((): string[] => []);
  }

  addErrors(row: number): void {
    this.lists.errors.add(row);
  }

  addBlank(row: number): void {
    this.pendingBlank.push(row);
  }

  add(row: number, cells: readonly string[], planned: PlannedRow): void {
    const { lists, columns, weight } = this;
    // blank rows at the very end are no rows
    for (const blank of this.pendingBlank) lists.blank.add(blank);
    this.pendingBlank = [];
    const surplus = cells.slice(columns.length);
    if (cells.length < columns.length || surplus.some((cell) => cell.trim() !== ''))
      lists.uneven.add(row);
    for (const c of this.kept) this.lookAt(row, c, cells[c] ?? '');
    for (const one of this.typed) {
      const cell = cells[one.c] ?? '';
      if (planned.background[one.place] === null && cell.trim() !== '') one.rows.add(row);
      else if (one.role === 'date') lookAtDate(row, cell, one);
    }
    if (planned.externalId.length > LONGEST_ID) lists.longId.add(row);
    if (weight >= 0 && !(planned.weight !== null && planned.weight >= 0)) lists.badWeight.add(row);
  }

  report(findings: FindingList): void {
    this.reportStops(findings);
    const { notice } = findings;
    const { lists } = this;
    notice('error_values', cellFindingsTexts.errorValues, lists.errors);
    notice('blank_rows', cellFindingsTexts.rowBlankPassedOver, lists.blank);
    notice('uneven_rows', cellFindingsTexts.rowMoreFewerCells, lists.uneven);
    this.reportValues(findings);
    notice('mojibake', cellFindingsTexts.mojibake(this.mojibake), lists.mojibake);
    notice('unreadable_characters', cellFindingsTexts.someCharactersCouldRead, lists.unreadable);
    notice('control_characters', cellFindingsTexts.invisibleControlCharactersTaken, lists.controls);
    notice('dangerous_values', cellFindingsTexts.cellBeginsWhichSpreadsheet, lists.dangerous);
    this.reportPersonal(findings);
  }

  private lookAt(row: number, c: number, cell: string): void {
    const { lists } = this;
    if (cell === '') return;
    if (isOdd(cell)) {
      if (cell.includes('\uFFFD') || !cell.isWellFormed()) lists.unreadable.add(row);
      if (holdsControls(cell)) lists.controls.add(row);
    }
    if (isDangerous(cell)) lists.dangerous.add(row);
    if (isMojibake(cell)) {
      lists.mojibake.add(row);
      this.mojibake ||= cell.slice(0, 40);
    }
    if (cell.length > LONGEST_TEXT) lists.longText.add(row);
    const sample = this.samples[c]!;
    if (sample.length < MOST_SAMPLES && cell.length < 100) sample.push(cell);
  }

  private reportStops({ stop }: FindingList): void {
    const { longId, longText, badWeight } = this.lists;
    if (longId.count > 0)
      stop('long_id', cellFindingsTexts.respondentIdLongerCharacters(LONGEST_ID), longId);
    if (longText.count > 0) {
      const most = LONGEST_TEXT.toLocaleString('en');
      stop('long_text', cellFindingsTexts.cellLongerCharactersShorten(most), longText);
    }
    if (badWeight.count > 0) {
      const { name } = this.columns[this.weight]!;
      stop('bad_weight', cellFindingsTexts.weightMissingNegativeNumber(name), badWeight, name);
    }
  }

  private reportValues({ notice }: FindingList): void {
    for (const { name, role, rows } of this.typed) {
      const sentence = cellFindingsTexts.hereValuesLeftEmpty(name, kindNames[role]);
      notice('unreadable_value', sentence, rows, name);
    }
    for (const { name, timed, shortYear } of this.typed) {
      notice('time_of_day', cellFindingsTexts.timesDayDatesKept(name), timed, name);
      notice('two_digit_years', cellFindingsTexts.twoDigitYears(name), shortYear, name);
    }
    for (const { name, writing, twoWays, oneWay, example } of this.typed)
      if (oneWay === 0 && example !== '')
        notice(
          'dates_in_two_ways',
          cellFindingsTexts.datesInTwoWays({
            name,
            example,
            isMonthFirst: writing === 'month_first',
            byDay: parseDate(example)!,
            byMonth: parseDate(example, 'month_first')!,
          }),
          twoWays,
          name,
        );
  }

  private reportPersonal({ remark }: FindingList): void {
    for (const c of this.kept) {
      const { name } = this.columns[c]!;
      const { role, name: chosenName } = this.settings.columns[c]!;
      const isExpected = role === 'question' || role === 'id';
      const personal = isExpected ? null : looksPersonal(name, this.samples[c]!);
      if (personal)
        remark(
          'personal_data',
          cellFindingsTexts.looksLikeExcludeUnless(name, personal),
          chosenName,
        );
    }
  }
}

function lookAtDate(row: number, cell: string, column: TypedColumn): void {
  if (hasTimeOfDay(cell)) column.timed.add(row);
  if (hasShortYear(cell)) column.shortYear.add(row);
  if (!cell.includes('/')) return;
  const [byDay, byMonth] = [parseDate(cell), parseDate(cell, 'month_first')];
  if (byDay === null || byMonth === null) column.oneWay += 1;
  else if (byDay !== byMonth) {
    column.twoWays.add(row);
    column.example ||= cell;
  }
}

const kindNames = { number: 'a number', date: 'a date', yes_no: cellFindingsTexts.yesNo };
