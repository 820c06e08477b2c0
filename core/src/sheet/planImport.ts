import { isNoAnswer } from './noAnswer.js';
import { rowNumber, type ColumnRole, type Table } from './table.js';
import { parseDate, parseNumber, parseYesNo } from './values.js';

/** Something about a sheet that the researcher should know before it is brought in. */
export interface Finding {
  code: string;
  /** `stop`: the sheet cannot be brought in like this. `notice`: it can, and this is what happens. */
  kind: 'stop' | 'notice';
  /** What was found and what will be done, in a sentence. */
  sentence: string;
  /** Rows concerned, numbered as in the file. */
  rows: number[];
}

export type BackgroundValue = string | number | boolean;
export type BackgroundKind = 'category' | 'number' | 'date' | 'yes_no';

/** What an import will write. Background values stand in the order of `variables`. */
export interface ImportPlan {
  variables: { name: string; kind: BackgroundKind }[];
  questions: { wording: string; label: string }[];
  respondents: {
    externalId: string;
    weight: number | null;
    background: (BackgroundValue | null)[];
    /** One a question, in order. */
    responses: { text: string; noAnswer: boolean }[];
  }[];
  findings: Finding[];
}

/**
 * Works out what bringing in a sheet will write, and what is to be said about it, without writing.
 *
 * @param roles one a column of the table
 * @throws RangeError when there is not exactly one role a column
 */
export function planImport(table: Table, roles: readonly ColumnRole[]): ImportPlan {
  if (roles.length !== table.columns.length)
    throw new RangeError(
      `${table.columns.length} columns need as many roles, not ${roles.length}.`,
    );
  const columnsOf = (wanted: (role: ColumnRole) => boolean) =>
    roles.flatMap((role, c) => (wanted(role) ? [c] : []));
  const findings: Finding[] = [];
  const add = (kind: Finding['kind'], code: string, rows: number[], sentence: string) => {
    if (kind === 'stop' || rows.length > 0) findings.push({ kind, code, rows, sentence });
  };

  const questionColumns = columnsOf((role) => role === 'question');
  const variableColumns = columnsOf((role) => isBackground(role));
  const [idColumn, ...otherIds] = columnsOf((role) => role === 'id');
  const [weightColumn, ...otherWeights] = columnsOf((role) => role === 'weight');
  if (questionColumns.length === 0)
    add('stop', 'no_question', [], 'No column is an open question: say which holds the answers.');
  if (otherIds.length > 0)
    add('stop', 'several_ids', [], 'Several columns are the respondent id: keep one.');
  if (otherWeights.length > 0)
    add('stop', 'several_weights', [], 'Several columns are the weight: keep one.');
  if (table.rows.length === 0)
    add('stop', 'no_rows', [], 'The sheet has a head but no rows: there is nothing to bring in.');

  const ids = table.rows.map((row, i) => {
    const written = idColumn === undefined ? '' : row[idColumn]!.trim();
    return written === '' ? String(rowNumber(i)) : written;
  });
  if (idColumn === undefined)
    add(
      'notice',
      'no_id',
      [1],
      'No column is the respondent id: respondents are named by their row number.',
    );
  else {
    const blank = rowsWhere(table, (row) => row[idColumn]!.trim() === '');
    add(
      'notice',
      'blank_id',
      blank,
      'The id is blank: these respondents get their row number as id.',
    );
  }
  const repeated = repeatedRows(ids);
  if (repeated.length > 0)
    add(
      'stop',
      'duplicate_id',
      repeated,
      'Several rows have the same respondent id: correct the sheet, or choose another column as the id.',
    );
  if (weightColumn !== undefined) {
    const bad = rowsWhere(table, (row) => !((parseNumber(row[weightColumn]!) ?? -1) >= 0));
    if (bad.length > 0)
      add(
        'stop',
        'bad_weight',
        bad,
        `The weight “${table.columns[weightColumn]}” is missing, negative or not a number: correct it, or leave the column out.`,
      );
  }
  add(
    'notice',
    'uneven_rows',
    table.unevenRows,
    'The row has more or fewer cells than the head: missing ones are taken as empty, surplus ones are left out.',
  );
  for (const c of variableColumns) {
    const role = roles[c]!;
    if (role === 'category') continue;
    const what = { number: 'a number', date: 'a date', yes_no: 'yes or no' }[role as 'number'];
    const bad = rowsWhere(
      table,
      (row) => row[c]!.trim() !== '' && readValue(row[c]!, role) === null,
    );
    add(
      'notice',
      'unreadable_value',
      bad,
      `“${table.columns[c]}” is not ${what} here: these values are left empty.`,
    );
  }
  const unreadable = rowsWhere(table, (row) => row.some((cell) => cell.includes('\uFFFD')));
  add(
    'notice',
    'unreadable_characters',
    unreadable,
    'Some characters could not be read and show as �: save the file as UTF-8 to keep them.',
  );
  const control = rowsWhere(table, (row) => row.some((cell) => controlCharacters.test(cell)));
  add('notice', 'control_characters', control, 'Invisible control characters are taken out.');

  return {
    variables: variableColumns.map((c) => ({
      name: table.columns[c]!,
      kind: roles[c] as BackgroundKind,
    })),
    questions: questionColumns.map((c) => ({
      wording: table.columns[c]!,
      label: shortLabel(table.columns[c]!),
    })),
    respondents: table.rows.map((row, i) => ({
      externalId: cleanText(ids[i]!),
      weight: weightColumn === undefined ? null : parseNumber(row[weightColumn]!),
      background: variableColumns.map((c) => readValue(cleanText(row[c]!), roles[c]!)),
      responses: questionColumns.map((c) => {
        const text = cleanText(row[c]!);
        return { text, noAnswer: isNoAnswer(text) };
      }),
    })),
    findings,
  };
}

// eslint-disable-next-line no-control-regex -- control characters are what is looked for
const controlCharacters = /[\u0000-\u0008\u000B\u000C\u000E-\u001F]/u;

/** A cell's text without the control characters that PostgreSQL or a page cannot hold. */
const cleanText = (cell: string): string =>
  cell.replaceAll(new RegExp(controlCharacters, 'gu'), '').replaceAll('\r\n', '\n').toWellFormed();

const isBackground = (role: ColumnRole): role is BackgroundKind =>
  role === 'category' || role === 'number' || role === 'date' || role === 'yes_no';

function readValue(cell: string, role: ColumnRole): BackgroundValue | null {
  const trimmed = cell.trim();
  if (trimmed === '') return null;
  if (role === 'number') return parseNumber(trimmed);
  if (role === 'date') return parseDate(trimmed);
  if (role === 'yes_no') return parseYesNo(trimmed);
  return trimmed;
}

const rowsWhere = (table: Table, holds: (row: string[]) => boolean): number[] =>
  table.rows.flatMap((row, i) => (holds(row) ? [rowNumber(i)] : []));

function repeatedRows(ids: string[]): number[] {
  const seen = new Map<string, number>();
  for (const id of ids) seen.set(id, (seen.get(id) ?? 0) + 1);
  return ids.flatMap((id, i) => (seen.get(id)! > 1 ? [rowNumber(i)] : []));
}

/** The first few words of a question, to tell it from the others in a narrow place. */
function shortLabel(wording: string): string {
  const words = wording.trim().split(/\s+/u);
  const label = words.slice(0, 5).join(' ');
  return words.length > 5 ? `${label} …` : label;
}
