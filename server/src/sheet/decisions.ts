import type { FileSettings, SheetSettings, Writing } from '@yellow-thread/contract';

const separators: Record<string, string> = {
  ',': 'comma',
  ';': 'semicolon',
  '\t': 'tab',
  '|': 'bar',
};

const writings: Partial<Record<Writing, string>> = {
  comma_groups: 'with a comma between thousands',
  point_groups: 'with a point between thousands',
  month_first: 'with the month first',
};

/** What was decided when a sheet was brought in, in words; imports of older versions kept less. */
export function decisionsIn(settings: Partial<SheetSettings> & { file?: FileSettings }): string[] {
  const { file } = settings;
  const said: (string | false | undefined)[] = [
    file?.format === 'text' &&
      `read as ${file.encoding}, separated by ${separators[file.separator] ?? file.separator}`,
    file?.worksheet !== undefined && file.worksheet !== '' && `worksheet “${file.worksheet}”`,
    file?.headRows === 2 && 'a head of two rows',
    ...(settings.columns ?? []).map(
      // of columns that are no numbers or dates nothing is read so
      ({ role, name, writing }) =>
        (role === 'number' || role === 'date' || role === 'weight') &&
        writings[writing] !== undefined &&
        `“${name}” was read ${writings[writing]}`,
    ),
    settings.duplicates === 'first' && 'of repeated ids the first row was kept',
    settings.duplicates === 'last' && 'of repeated ids the last row was kept',
    settings.duplicates === 'suffix' && 'repeated ids were kept apart by a number',
    ...(settings.keepSpellings ?? []).map((name) => `spellings of “${name}” were kept apart`),
    ...(settings.answersDespite ?? []).map(({ text }) => `“${text}” counts as an answer`),
    (settings.matches?.length ?? 0) > 0 &&
      `${settings.matches!.length} ids were matched that are written differently`,
    (settings.asides?.brackets.length ?? 0) + (settings.asides?.leading.length ?? 0) > 0 &&
      `interviewer’s words marked by ${[...settings.asides!.brackets, ...settings.asides!.leading].join(' ')}`,
  ];
  return said.filter((one) => typeof one === 'string');
}
