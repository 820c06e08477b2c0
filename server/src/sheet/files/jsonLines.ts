import { problems, type Problem } from '../../wording/problems.js';
import { LONGEST_ROW, type RowBatch } from './text.js';
import { jsonLinesTexts } from '../../wording/sheet.js';

const BATCH = 500;
const MOST_KEYS = 2_000;
/** Objects within each other. */
const DEEPEST = 20;

/**
 * Reads JSON lines: one object a line, a key a column. The head is the keys in the order in which they first
 * turn up, so all lines are read once before the rows are.
 *
 * @param pieces the file's text, as often as it is asked for
 */
export async function* readJsonLines(
  pieces: () => AsyncIterable<string>,
  fileName: string,
): AsyncGenerator<RowBatch> {
  const keys = new Set<string>();
  for await (const record of records(pieces(), fileName))
    for (const key of record?.keys() ?? [])
      if (keys.add(key).size > MOST_KEYS)
        throw problems.unreadableSheet(
          jsonLinesTexts.objectsMoreDifferentKeys(fileName, MOST_KEYS.toLocaleString('en')),
        );
  const columns = [...keys];
  let batch: RowBatch = { row: 1, rows: [columns] };
  let row = 1;
  for await (const record of records(pieces(), fileName)) {
    row += 1;
    batch.rows.push(record ? columns.map((key) => record.get(key) ?? '') : []);
    if (batch.rows.length >= BATCH) {
      yield batch;
      batch = { row: row + 1, rows: [] };
    }
  }
  if (batch.rows.length > 0) yield batch;
}

/** Each line's values as text, null for a blank line. */
async function* records(
  pieces: AsyncIterable<string>,
  fileName: string,
): AsyncGenerator<Map<string, string> | null> {
  let line = 0;
  const tooLong = () =>
    problems.unreadableSheet(
      jsonLinesTexts.lineMoreCharactersNo(line, fileName, LONGEST_ROW.toLocaleString('en')),
    );
  for await (const written of linesOf(pieces, tooLong)) {
    line += 1;
    if (written.trim() === '') {
      yield null;
      continue;
    }
    let value: unknown;
    try {
      value = JSON.parse(written);
    } catch {
      value = undefined;
    }
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      throw problems.unreadableSheet(
        `Line ${line} of “${fileName}” is no JSON object: every line must be one, like {"id": "R1", "answer": "…"}.`,
      );
    const record = new Map<string, string>();
    if (!flatten(value, '', record, 1))
      throw problems.unreadableSheet(jsonLinesTexts.lineObjectsWithinEach(line, fileName, DEEPEST));
    yield record;
  }
}

/**
 * Objects inside an object become columns "outer.inner"; lists are separated by semicolons.
 *
 * @returns false where they are too deep
 */
function flatten(value: object, prefix: string, into: Map<string, string>, depth: number): boolean {
  if (depth > DEEPEST) return false;
  for (const [key, inner] of Object.entries(value) as [string, unknown][]) {
    const name = prefix + key;
    if (inner === null || inner === undefined) into.set(name, '');
    else if (Array.isArray(inner)) into.set(name, inner.map(asText).join('; '));
    else if (typeof inner === 'object') {
      if (!flatten(inner, `${name}.`, into, depth + 1)) return false;
    } else into.set(name, asText(inner));
  }
  return true;
}

const asText = (value: unknown): string =>
  typeof value === 'string' ? value : value === null ? '' : JSON.stringify(value);

async function* linesOf(
  pieces: AsyncIterable<string>,
  tooLong: () => Problem,
): AsyncGenerator<string> {
  let rest = '';
  for await (const piece of pieces) {
    const lines = (rest + piece).split(/\r?\n/u);
    rest = lines.pop()!;
    if (rest.length > LONGEST_ROW) throw tooLong();
    yield* lines;
  }
  if (rest !== '') yield rest;
}
