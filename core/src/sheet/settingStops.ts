import type { FindingList } from './findings.js';
import type { RowReader } from './rowReader.js';
import { isBackground, type ColumnRole, type HeadColumn, type SheetSettings } from './settings.js';

const MOST_CHOICES = 200;
const MOST_CODES = 500;
const LONGEST_HEAD = 500;
const LONGEST_CODE = 120;

/** What cannot be brought in because of what the columns were said to be. */
export function tellSettings(
  columns: readonly HeadColumn[],
  settings: SheetSettings,
  reader: RowReader,
  { stop, remark }: FindingList,
): void {
  const count = (role: ColumnRole) =>
    settings.columns.filter((column) => column.role === role).length;
  if (settings.as === 'details') {
    if (reader.variables.length === 0 && count('weight') === 0)
      stop('no_details', 'No column is background or weight: there is nothing to add.');
  } else if (reader.questions.length === 0)
    stop('no_question', 'No column is an open question: say which holds the answers.');
  if (count('id') === 0 && settings.as !== 'respondents')
    stop('no_id', 'No column is the respondent id: without it nobody can be found in the study.');
  else if (count('id') === 0)
    remark('no_id', 'No column is the respondent id: respondents are named by their row number.');
  if (count('id') > 1) stop('several_ids', 'Several columns are the respondent id: keep one.');
  if (count('weight') > 1) stop('several_weights', 'Several columns are the weight: keep one.');
  if (settings.as !== 'respondents' && count('codes') > 0)
    remark(
      'codes_not_taken',
      'Existing codes are taken with new respondents only: here these columns change nothing.',
    );
  if (settings.as === 'details' && count('question') > 0)
    remark(
      'answers_not_taken',
      'Answers are imported with new respondents, with a new question or with a corrected version: here these columns change nothing.',
    );
  for (const name of namesGivenTwice(settings))
    stop('name_twice', `Two variables are called “${name}”: rename one of them.`, undefined, name);
  for (const { name } of columns)
    if (name.length > LONGEST_HEAD)
      stop(
        'long_head',
        `The head “${name.slice(0, 60)}…” is longer than ${LONGEST_HEAD} characters: shorten it in the sheet.`,
      );
  if (reader.codesWithoutQuestion > 0)
    stop('codes_without_question', 'Say which question the existing codes were given to.');
  if (reader.found().choices.length > MOST_CHOICES)
    stop(
      'many_choices',
      `More than ${MOST_CHOICES} different choices: a column of several choices should rather be a category, or excluded.`,
    );
  if (reader.codes.length > MOST_CODES)
    stop(
      'many_codes',
      `The columns of existing codes name more than ${MOST_CODES} codes: check what parts the names.`,
    );
  const longCode = reader.codes.find((code) => code.length > LONGEST_CODE);
  if (longCode)
    stop(
      'long_code',
      `The code “${longCode.slice(0, 60)}…” is longer than ${LONGEST_CODE} characters: shorten it, or check what parts the names.`,
    );
}

/** Names given to more than one background column. */
function namesGivenTwice({ columns }: SheetSettings): string[] {
  const names = columns
    .filter(({ role }) => isBackground(role) || role === 'ticked' || role === 'choices')
    .map(({ name }) => name);
  return [...new Set(names.filter((name, n) => names.indexOf(name) !== n))];
}
