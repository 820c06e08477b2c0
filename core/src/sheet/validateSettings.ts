import type { FindingList } from './findings.js';
import type { RowReader } from './rowReader.js';
import { isBackground, type ColumnRole, type HeadColumn, type SheetSettings } from './settings.js';
import { validateSettingsTexts } from '../wording/sheet.js';

const MOST_CHOICES = 200;
const MOST_CODES = 500;
const LONGEST_HEAD = 500;
const LONGEST_CODE = 120;

/** What cannot be imported because of the columns' roles. */
export function validateSettings(
  columns: readonly HeadColumn[],
  settings: SheetSettings,
  reader: RowReader,
  { stop, remark }: FindingList,
): void {
  const count = (role: ColumnRole) =>
    settings.columns.filter((column) => column.role === role).length;
  if (settings.as === 'details') {
    if (reader.variables.length === 0 && count('weight') === 0)
      stop('no_details', validateSettingsTexts.noColumnBackgroundWeight);
  } else if (reader.questions.length === 0)
    stop('no_question', validateSettingsTexts.noColumnOpenQuestion);
  if (count('id') === 0 && settings.as !== 'respondents')
    stop('no_id', validateSettingsTexts.noColumnRespondentId);
  else if (count('id') === 0)
    remark('no_id', validateSettingsTexts.noColumnRespondentIdRespondents);
  if (count('id') > 1) stop('several_ids', validateSettingsTexts.severalColumnsRespondentId);
  if (count('weight') > 1) stop('several_weights', validateSettingsTexts.severalColumnsWeightKeep);
  if (settings.as !== 'respondents' && count('codes') > 0)
    remark('codes_not_taken', validateSettingsTexts.existingCodesTakenNew);
  if (settings.as === 'details' && count('question') > 0)
    remark('answers_not_taken', validateSettingsTexts.answersImportedNewRespondents);
  for (const name of namesGivenTwice(settings))
    stop('name_twice', validateSettingsTexts.twoVariablesCalledRename(name), undefined, name);
  for (const { name } of columns)
    if (name.length > LONGEST_HEAD)
      stop(
        'long_head',
        validateSettingsTexts.headLongerCharactersShorten(name.slice(0, 60), LONGEST_HEAD),
      );
  if (reader.codesWithoutQuestion > 0)
    stop('codes_without_question', validateSettingsTexts.sayWhichQuestionExisting);
  if (reader.found().choices.length > MOST_CHOICES)
    stop('many_choices', validateSettingsTexts.moreDifferentChoicesColumn(MOST_CHOICES));
  if (reader.codes.length > MOST_CODES)
    stop('many_codes', validateSettingsTexts.columnsExistingCodesName(MOST_CODES));
  const longCode = reader.codes.find((code) => code.length > LONGEST_CODE);
  if (longCode)
    stop(
      'long_code',
      validateSettingsTexts.codeLongerCharactersShorten(longCode.slice(0, 60), LONGEST_CODE),
    );
}

/** Names given to more than one background column. */
function namesGivenTwice({ columns }: SheetSettings): string[] {
  const names = columns
    .filter(({ role }) => isBackground(role) || role === 'ticked' || role === 'choices')
    .map(({ name }) => name);
  return [...new Set(names.filter((name, n) => names.indexOf(name) !== n))];
}
