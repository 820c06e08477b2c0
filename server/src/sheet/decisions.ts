import type { FileSettings, SheetSettings, Writing } from '@yellow-thread/contract';
import { decisionsTexts } from '../wording/sheet.js';

const separators: Record<string, string> = {
  ',': 'comma',
  ';': 'semicolon',
  '\t': 'tab',
  '|': 'bar',
};

const writings: Partial<Record<Writing, string>> = {
  comma_groups: decisionsTexts.commaBetweenThousands,
  point_groups: decisionsTexts.pointBetweenThousands,
  month_first: decisionsTexts.monthFirst,
};

/** What was decided when a sheet was imported, in words; older versions recorded less. */
export function decisionsIn(settings: Partial<SheetSettings> & { file?: FileSettings }): string[] {
  const { file } = settings;
  const said: (string | false | undefined)[] = [
    file?.format === 'text' &&
      decisionsTexts.readSeparated(file.encoding, separators[file.separator], file.separator),
    file?.worksheet !== undefined &&
      file.worksheet !== '' &&
      decisionsTexts.worksheet(file.worksheet),
    file?.headRows === 2 && decisionsTexts.headTwoRows,
    ...(settings.columns ?? []).map(
      // of columns that are no numbers or dates nothing is read so
      ({ role, name, writing }) =>
        (role === 'number' || role === 'date' || role === 'weight') &&
        writings[writing] !== undefined &&
        decisionsTexts.read(name, writings[writing]),
    ),
    settings.duplicates === 'first' && decisionsTexts.repeatedIdsFirstRow,
    settings.duplicates === 'last' && decisionsTexts.repeatedIdsLastRow,
    settings.duplicates === 'suffix' && decisionsTexts.repeatedIdsKeptApart,
    ...(settings.keepSpellings ?? []).map((name) => decisionsTexts.spellingsKeptApart(name)),
    ...(settings.answersDespite ?? []).map(({ text }) => decisionsTexts.countsAnswer(text)),
    (settings.matches?.length ?? 0) > 0 &&
      decisionsTexts.idsMatchedWrittenDifferently(settings.matches!.length),
    (settings.asides?.brackets.length ?? 0) + (settings.asides?.leading.length ?? 0) > 0 &&
      decisionsTexts.interviewersWordsMarked(
        [...settings.asides!.brackets, ...settings.asides!.leading].join(' '),
      ),
  ];
  return said.filter((one) => typeof one === 'string');
}
