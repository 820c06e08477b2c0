import { readFileSync } from 'node:fs';
import type { GroupShare } from '../src/statistics/index.js';

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

/** The schools of a group as a table takes them, weighted, with those that have a 1 in a column as mentioning it. */
export function schoolsAsGroup(by: string, value: string, column: string): GroupShare {
  const inGroup = apiSample().filter((school) => school[by] === value);
  const mentioning = inGroup.filter((school) => school[column] === '1');
  const sum = (some: typeof inGroup, power: number) =>
    some.reduce((total, school) => total + Number(school['pw']) ** power, 0);
  return {
    people: inGroup.length,
    mentioning: mentioning.length,
    weighted: sum(inGroup, 1),
    squares: sum(inGroup, 2),
    mentioningWeighted: sum(mentioning, 1),
    mentioningSquares: sum(mentioning, 2),
  };
}

/** A group of people who each count once. */
export const countedGroup = (mentioning: number, people: number): GroupShare => ({
  people,
  mentioning,
  weighted: people,
  squares: people,
  mentioningWeighted: mentioning,
  mentioningSquares: mentioning,
});
