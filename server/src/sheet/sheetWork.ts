import { randomUUID } from 'node:crypto';
import {
  checkSheet,
  rowReader,
  type BackgroundValue,
  type HeadColumn,
  type PlannedRow,
  type SheetOutcome,
  type SheetSettings,
} from '@yellow-thread/core/sheet';
import { duplicateHash } from '@yellow-thread/core/text';
import type { FileSettings } from '@yellow-thread/contract';
import type { ThreadChannel } from '../jobs/threads/threadChannel.js';
import { CopyText, copyWriter } from './copyText.js';
import {
  PART_SIZE,
  partWriter,
  readRows,
  textOf,
  writeRows,
  type FileSource,
  type RowBatch,
} from './files/index.js';
import { readSheet, type FileChoices, type ReadSheet } from './readSheet.js';

// What is done with a sheet on a thread: the file comes in and rows go out piece by piece.

export interface ReadInput {
  fileName: string;
  size: number;
  choices: FileChoices;
}

/** A sheet that was read through: its rows lie in the file itself or in the text made from it. */
export interface SheetRows {
  fileName: string;
  /** Size of what the parts come from. */
  size: number;
  file: FileSettings;
  columns: HeadColumn[];
}

export interface CheckInput {
  sheet: SheetRows;
  settings: SheetSettings;
  known: string[];
  /** What categories of the study's variables are called, by the variable's name. */
  labels: Record<string, string[]>;
  seed: number;
}

/** Where rows go: ids are given out beforehand, so that nothing need be asked on the way. */
export interface WriteInput {
  sheet: SheetRows;
  settings: SheetSettings;
  outcome: Pick<SheetOutcome, 'found' | 'skipped' | 'renamed' | 'respondents'>;
  ids: {
    study: number;
    import: number;
    firstRespondent: number;
    /** Response q of respondent i is number `firstResponse + q · respondents + i`. */
    firstResponse: number;
    variables: number[];
    questions: number[];
    codes: string[];
    coder: number;
  };
  /** Background that all these respondents share: the wave. */
  shared: { variable: number; value: string } | null;
  now: string;
}

export interface StageInput {
  sheet: SheetRows;
  settings: SheetSettings;
  outcome: Pick<SheetOutcome, 'found' | 'skipped' | 'renamed'>;
  /** Under which key each variable's value stands in the staged background. */
  variables: string[];
}

/** How many bytes are gathered before they are written: while PostgreSQL takes one lot, the next is made. */
const MOST_WAITING = 1024 * 1024;

const sourceFrom = (channel: ThreadChannel, size: number): FileSource => ({
  size,
  part: channel.part,
});

export async function readSheetWork(
  input: ReadInput,
  channel: ThreadChannel,
): Promise<ReadSheet & { rowsSize: number }> {
  const parts = partWriter((part) => channel.write('rows', part));
  const read = await readSheet(
    input.fileName,
    withProgress(sourceFrom(channel, input.size), channel),
    input.choices,
    (rows) => parts.add(writeRows(rows)),
  );
  return { ...read, rowsSize: await parts.end() };
}

export async function checkSheetWork(
  input: CheckInput,
  channel: ThreadChannel,
): Promise<SheetOutcome> {
  const known = new Set(input.known);
  const pass = async (skip: Set<number>) => {
    const check = checkSheet({ ...input, columns: input.sheet.columns, known, skip });
    for await (const batch of rowsBelowHead(input.sheet, channel))
      for (const [row, cells] of batch) check.add(row, cells);
    return check.settle();
  };
  const outcome = await pass(new Set());
  // rows that turn out to be left out were counted: only a second reading counts without them
  return outcome.skipped.length > 0 ? pass(new Set(outcome.skipped)) : outcome;
}

/** Writes the rows of a new import as lines for PostgreSQL's COPY. */
export async function writeSheetWork(
  input: WriteInput,
  channel: ThreadChannel,
): Promise<{ mentions: number }> {
  const { ids, outcome, shared, now } = input;
  const people = new CopyText('respondent');
  const responses = ids.questions.map(() => new CopyText('response'));
  const mentions = new CopyText('mention');
  const settlements = new CopyText('settlement');
  const all = [people, ...responses, mentions, settlements];
  const writer = copyWriter(channel);
  const keys = ids.variables.map((id) => `"${id}":`);
  const last = shared ? `"${shared.variable}":${JSON.stringify(shared.value)}` : '';
  let given = 0;
  let i = 0;
  for await (const batch of plannedRows(input, channel)) {
    for (const [, id, planned] of batch) {
      const respondent = ids.firstRespondent + i;
      people.add([
        respondent,
        ids.study,
        ids.import,
        id,
        planned.weight,
        backgroundJson(planned.background, keys, last),
      ]);
      for (const [q, response] of planned.responses.entries()) {
        if (!response) continue;
        const responseId = ids.firstResponse + q * outcome.respondents + i;
        responses[q]!.add([
          responseId,
          ids.questions[q]!,
          respondent,
          response.text,
          response.noAnswer,
          duplicateHash(response.text),
        ]);
        // codes of a response that is no answer are not imported: the check reported how many there are
        if (response.noAnswer) continue;
        for (const code of response.codes) {
          given += 1;
          mentions.add([
            randomUUID(),
            responseId,
            ids.codes[code]!,
            ids.coder,
            null,
            null,
            'import',
            now,
          ]);
        }
        if (response.settled) settlements.add([responseId, ids.coder, now]);
      }
      i += 1;
    }
    if (all.reduce((sum, text) => sum + text.length, 0) > MOST_WAITING) await writer.write(all);
  }
  await writer.write(all);
  await writer.end();
  return { mentions: given };
}

/** Writes the rows of a sheet that is compared with the study, as they are, into the table of staged rows. */
export async function stageSheetWork(input: StageInput, channel: ThreadChannel): Promise<void> {
  const staged = new CopyText('staged');
  const writer = copyWriter(channel);
  const keys = input.variables.map((key) => `${JSON.stringify(key)}:`);
  for await (const batch of plannedRows(input, channel)) {
    for (const [row, id, planned] of batch)
      staged.add([
        row,
        id,
        planned.weight,
        backgroundJson(planned.background, keys, ''),
        JSON.stringify(
          planned.responses.map(
            (response) =>
              response && {
                text: response.text,
                noAnswer: response.noAnswer,
                same: duplicateHash(response.text),
              },
          ),
        ),
      ]);
    if (staged.length > MOST_WAITING) await writer.write([staged]);
  }
  await writer.write([staged]);
  await writer.end();
}

/** What JSON writes as it stands, which most categories are. */
const UNQUOTED = /^[ !#-[\]-~]*$/;

function backgroundJson(
  values: readonly (BackgroundValue | null)[],
  keys: readonly string[],
  last: string,
): string {
  let json = '{';
  for (const [v, key] of keys.entries()) {
    const value = values[v] ?? null;
    if (json.length > 1) json += ',';
    json += key;
    if (typeof value !== 'string') json += String(value);
    else json += UNQUOTED.test(value) ? `"${value}"` : JSON.stringify(value);
  }
  return `${json}${last && json.length > 1 ? ',' : ''}${last}}`;
}

type Planned = [row: number, id: string, planned: PlannedRow];

/** Rows that are imported, with their ids, as many at a time as the parser gives. */
async function* plannedRows(
  { sheet, settings, outcome }: Pick<StageInput, 'sheet' | 'settings' | 'outcome'>,
  channel: ThreadChannel,
): AsyncGenerator<Iterable<Planned>> {
  const reader = rowReader(sheet.columns, settings, outcome.found);
  const skipped = new Set(outcome.skipped);
  const renamed = new Map(outcome.renamed);
  const planned = function* (batch: Iterable<Row>): Generator<Planned> {
    for (const [row, cells] of batch) {
      if (skipped.has(row) || cells.every((cell) => cell.trim() === '')) continue;
      const read = reader.read(cells);
      yield [row, renamed.get(row) ?? read.externalId, read];
    }
  };
  for await (const batch of rowsBelowHead(sheet, channel)) yield planned(batch);
}

type Row = [row: number, cells: string[]];

async function* rowsBelowHead(
  { fileName, size, file, columns }: SheetRows,
  channel: ThreadChannel,
): AsyncGenerator<Iterable<Row>> {
  const source = withProgress(sourceFrom(channel, size), channel);
  const head = file.headRow + file.headRows - 1;
  // in JSON lines no line is taken up by the head, so rows are numbered one less
  const shift = file.format === 'json_lines' ? -1 : 0;
  const below = function* ({ row, rows }: RowBatch): Generator<Row> {
    for (let r = Math.max(0, head + 1 - row); r < rows.length; r++) {
      const cells = rows[r]!;
      // only in separated text does a short row mean that something is amiss
      if (file.format !== 'text')
        for (let c = cells.length; c < columns.length; c++) cells.push('');
      yield [row + r + shift, cells];
    }
  };
  const text = textOf(source, file.encoding);
  for await (const batch of readRows(text, file.separator, fileName)) yield below(batch);
}

/** Reports the progress of reading a file, by its bytes. */
function withProgress(source: FileSource, channel: ThreadChannel): FileSource {
  return {
    size: source.size,
    part: (index) => {
      channel.report({ done: Math.min(source.size, index * PART_SIZE), of: source.size });
      return source.part(index);
    },
  };
}
