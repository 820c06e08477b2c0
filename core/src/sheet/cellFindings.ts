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

/** Looks at the cells of each row as they are read, and reports in the end what was found. */
export function findInCells(
  columns: readonly HeadColumn[],
  settings: SheetSettings,
  reader: RowReader,
) {
  const roleOf = settings.columns.map((column) => column.role);
  const kept = roleOf.flatMap((role, c) => (role === 'leave_out' ? [] : [c]));
  const weight = roleOf.indexOf('weight');
  const typed = reader.background.flatMap(({ c, place }) => {
    const { role, name } = settings.columns[c]!;
    return isBackground(role) && role !== 'category'
      ? [
          {
            c,
            place,
            role,
            name,
            writing: settings.columns[c]!.writing,
            rows: new RowList(),
            timed: new RowList(),
            shortYear: new RowList(),
            twoWays: new RowList(),
            oneWay: 0,
            example: '',
          },
        ]
      : [];
  });
  const samples = columns.map((): string[] => []);
  const lists = {
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
  let pendingBlank: number[] = [];
  let mojibake = '';

  function lookAt(row: number, c: number, cell: string): void {
    if (cell === '') return;
    if (isOdd(cell)) {
      if (cell.includes('\uFFFD') || !cell.isWellFormed()) lists.unreadable.add(row);
      if (holdsControls(cell)) lists.controls.add(row);
    }
    if (isDangerous(cell)) lists.dangerous.add(row);
    if (isMojibake(cell)) {
      lists.mojibake.add(row);
      mojibake ||= cell.slice(0, 40);
    }
    if (cell.length > LONGEST_TEXT) lists.longText.add(row);
    const sample = samples[c]!;
    if (sample.length < MOST_SAMPLES && cell.length < 100) sample.push(cell);
  }

  function lookAtDate(row: number, cell: string, column: (typeof typed)[number]): void {
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

  return {
    addErrors(row: number): void {
      lists.errors.add(row);
    },
    addBlank(row: number): void {
      pendingBlank.push(row);
    },
    add(row: number, cells: readonly string[], planned: PlannedRow): void {
      // blank rows at the very end are no rows
      for (const blank of pendingBlank) lists.blank.add(blank);
      pendingBlank = [];
      const surplus = cells.slice(columns.length);
      if (cells.length < columns.length || surplus.some((cell) => cell.trim() !== ''))
        lists.uneven.add(row);
      for (const c of kept) lookAt(row, c, cells[c] ?? '');
      for (const one of typed) {
        const cell = cells[one.c] ?? '';
        if (planned.background[one.place] === null && cell.trim() !== '') one.rows.add(row);
        else if (one.role === 'date') lookAtDate(row, cell, one);
      }
      if (planned.externalId.length > LONGEST_ID) lists.longId.add(row);
      if (weight >= 0 && !(planned.weight !== null && planned.weight >= 0))
        lists.badWeight.add(row);
    },
    tell({ stop, notice, remark }: FindingList): void {
      if (lists.longId.count > 0)
        stop('long_id', cellFindingsTexts.respondentIdLongerCharacters(LONGEST_ID), lists.longId);
      if (lists.longText.count > 0)
        stop(
          'long_text',
          cellFindingsTexts.cellLongerCharactersShorten(LONGEST_TEXT.toLocaleString('en')),
          lists.longText,
        );
      if (lists.badWeight.count > 0)
        stop(
          'bad_weight',
          cellFindingsTexts.weightMissingNegativeNumber(columns[weight]!.name),
          lists.badWeight,
          columns[weight]!.name,
        );
      notice('error_values', cellFindingsTexts.errorValues, lists.errors);
      notice('blank_rows', cellFindingsTexts.rowBlankPassedOver, lists.blank);
      notice('uneven_rows', cellFindingsTexts.rowMoreFewerCells, lists.uneven);
      for (const { name, role, rows } of typed)
        notice(
          'unreadable_value',
          cellFindingsTexts.hereValuesLeftEmpty(name, kindNames[role]),
          rows,
          name,
        );
      for (const { name, timed, shortYear } of typed) {
        notice('time_of_day', cellFindingsTexts.timesDayDatesKept(name), timed, name);
        notice('two_digit_years', cellFindingsTexts.twoDigitYears(name), shortYear, name);
      }
      for (const { name, writing, twoWays, oneWay, example } of typed)
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
      notice('mojibake', cellFindingsTexts.mojibake(mojibake), lists.mojibake);
      notice('unreadable_characters', cellFindingsTexts.someCharactersCouldRead, lists.unreadable);
      notice(
        'control_characters',
        cellFindingsTexts.invisibleControlCharactersTaken,
        lists.controls,
      );
      notice('dangerous_values', cellFindingsTexts.cellBeginsWhichSpreadsheet, lists.dangerous);
      for (const c of kept) {
        const { name } = columns[c]!;
        const meant = roleOf[c] === 'question' || roleOf[c] === 'id';
        const personal = meant ? null : looksPersonal(name, samples[c]!);
        if (personal)
          remark(
            'personal_data',
            cellFindingsTexts.looksLikeExcludeUnless(name, personal),
            settings.columns[c]!.name,
          );
      }
    },
  };
}

const kindNames = { number: 'a number', date: 'a date', yes_no: cellFindingsTexts.yesNo };
