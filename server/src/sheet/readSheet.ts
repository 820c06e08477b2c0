import { findHead, guessRoles, profileColumns, type RoleGuess } from '@yellow-thread/core/sheet';
import type { FileSettings } from '@yellow-thread/contract';
import { Problem, problems } from '../wording/problems.js';
import { openFile, type OpenedFile } from './files/index.js';
import type { FileSource } from './files/index.js';
import { readSheetTexts } from '../wording/sheet.js';

/** What the researcher may say about how a file is to be read; what is left out is guessed. */
export type FileChoices = Partial<
  Pick<FileSettings, 'worksheet' | 'separator' | 'encoding' | 'headRow' | 'headRows'>
>;

/** A sheet after one reading of all of it. */
export interface ReadSheet {
  file: FileSettings;
  /** How many filled rows there are below the head. */
  rows: number;
  columns: (RoleGuess & { head: string; code: string })[];
  /** The first rows below the head, cut to a bearable length. */
  preview: string[][];
  /** The first values of the respondent id, by which it is seen whether the study has these people already. */
  ids: string[];
}

const ROWS_FOR_HEAD = 30;
const PREVIEW_ROWS = 6;
const IDS_LOOKED_UP = 1_000;
const LONGEST_PREVIEW = 300;
const MOST_ROWS = 1_000_000;
const MOST_COLUMNS = 1_000;
/** An interview of an hour written down has 60,000 characters. */
const LONGEST_CELL = 100_000;

/**
 * Reads a file through once: finds its kind, its head, and what each column seems to be for. What is not
 * separated text is written out as such on the way, so that it need not be unpacked again.
 *
 * @throws Problem unreadable_sheet, in one plain sentence
 */
export async function readSheet(
  fileName: string,
  source: FileSource,
  choices: FileChoices,
  write: (rows: string[][]) => Promise<void>,
): Promise<ReadSheet> {
  let opened: OpenedFile | null = null;
  try {
    opened = await openFile(fileName, source, choices);
    return await readThrough(fileName, opened, choices, write);
  } catch (error) {
    throw error instanceof Problem ? error : problems.damagedSheet(fileName);
  } finally {
    opened?.close();
  }
}

async function readThrough(
  fileName: string,
  opened: OpenedFile,
  choices: FileChoices,
  write: (rows: string[][]) => Promise<void>,
): Promise<ReadSheet> {
  const first: string[][] = [];
  let profiler: ReturnType<typeof profileColumns> | null = null;
  let head: ReturnType<typeof findHead> = null;
  let rows = 0;
  const preview: string[][] = [];
  const take = (cells: string[]) => {
    if (!cells.some((cell) => cell.trim() !== '')) return;
    rows += 1;
    if (rows > MOST_ROWS)
      throw problems.unreadableSheet(
        readSheetTexts.moreRowsSplit(fileName, MOST_ROWS.toLocaleString('en')),
      );
    profiler!.add(cells);
    if (preview.length < PREVIEW_ROWS)
      preview.push(head!.columns.map((_, c) => (cells[c] ?? '').slice(0, LONGEST_PREVIEW)));
  };
  const begin = () => {
    head = findHead(first, { row: choices.headRow, rows: choices.headRows });
    if (!head) throw problems.unreadableSheet(readSheetTexts.holdsNoTableOne(fileName));
    if (head.columns.length > MOST_COLUMNS)
      throw problems.unreadableSheet(
        readSheetTexts.moreColumnsExcludeWhat(fileName, MOST_COLUMNS.toLocaleString('en')),
      );
    profiler = profileColumns(head.columns.map((column) => column.name));
    for (const cells of first.slice(head.row + head.rows - 1)) take(cells);
  };
  for await (const batch of opened.rows()) {
    if (!opened.isText) await write(batch.rows);
    for (const [r, cells] of batch.rows.entries()) {
      refuseLongCells(fileName, batch.row + r, cells);
      if (profiler) take(cells);
      else if (first.push(cells) >= ROWS_FOR_HEAD + (choices.headRow ?? 0)) begin();
    }
  }
  if (!profiler) begin();
  const { row: headRow, rows: headRows, columns } = head!;
  const profiles = profiler!.profiles();
  const guesses = guessRoles(profiles);
  const id = guesses.findIndex(({ role }) => role === 'id');
  return {
    file: { ...opened.file, headRow, headRows },
    rows,
    columns: guesses.map((guess, c) => ({
      ...guess,
      head: columns[c]!.name,
      code: columns[c]!.code,
    })),
    preview,
    ids: id < 0 ? [] : [...profiles[id]!.values.keys()].slice(0, IDS_LOOKED_UP),
  };
}

function refuseLongCells(fileName: string, row: number, cells: readonly string[]): void {
  for (const { length } of cells)
    if (length > LONGEST_CELL)
      throw problems.unreadableSheet(
        readSheetTexts.rowCellCharactersAnswer(
          row,
          fileName,
          length.toLocaleString('en'),
          LONGEST_CELL.toLocaleString('en'),
        ),
      );
}
