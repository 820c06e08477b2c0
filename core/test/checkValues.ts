import { readFileSync } from 'node:fs';

const folder = new URL('../check-values/', import.meta.url);
const { items } = JSON.parse(readFileSync(new URL('check-values.json', folder), 'utf8')) as {
  items: { id: string; input: unknown; expected: unknown }[];
};

/** A reference computation by its number: what went in and what must come out (12 significant digits). */
export function checkValue<Input, Expected>(id: string): { input: Input; expected: Expected } {
  const item = items.find((one) => one.id === id);
  if (!item) throw new Error(`There is no check value ${id}.`);
  // the shape is the test's to name: the file is fixed and kept beside it
  return item as { input: Input; expected: Expected };
}

/** The rows of the survey sample that several check values are computed from. */
export const apiSample = () => checkTable('apistrat.csv');

/** The rows of a table kept beside the check values. */
export function checkTable(file: string): Record<string, string>[] {
  const [head, ...lines] = readFileSync(new URL(file, folder), 'utf8').trim().split(/\r?\n/u);
  const names = head!.split(',');
  return lines.map((line) =>
    Object.fromEntries(line.split(',').map((cell, c) => [names[c]!, cell])),
  );
}
