import type { Agreement, CodeAgreement } from '@yellow-thread/contract';
import { coderNames, inWords } from '@yellow-thread/core/agreement';
import type { Fact } from './facts.js';
import type { Grid, GridValue } from './grid.js';

/** How far two coders agree, theme by theme and code by code with their four cells, before it is written as any kind of file. */
export function agreementGrid(
  { reading, codes, themes, overall, sameSets, alphaOfSets, everybody }: Agreement,
  names: ReadonlyMap<string, string>,
  facts: readonly Fact[],
): Grid {
  const { first, second } = coderNames(reading);
  const row = (name: string, { cells, ...one }: CodeAgreement): GridValue[] => [
    ...[name, cells.both, cells.first, cells.second, cells.neither, one.n, one.agreed],
    ...[one.kappa, one.interval?.[0] ?? null, one.interval?.[1] ?? null, one.alpha, one.ac1],
  ];
  const all = everybody && `alpha of all ${everybody.coders} codings`;
  return {
    name: 'Agreement',
    facts: [
      ...facts,
      ['Coded first by', inWords(reading.firstCoders)],
      ['Coded once more by', `${reading.reader}, without the first codes in view`],
      ['Answers', `${sameSets.n}, drawn at random from ${reading.drawnFrom} settled ones`],
      ['Exactly the same codes', `${sameSets.count} of ${sameSets.n}`],
      ['Krippendorff’s alpha of sets of codes (MASI)', written(alphaOfSets)],
      ...(all ? [[`Sets of codes, ${all}`, written(everybody.alphaOfSets)] satisfies Fact] : []),
      ['Intervals', '95%, large samples; over all codes by the jackknife, an answer at a time'],
      ['Date', new Date().toISOString().slice(0, 10)],
    ],
    columns: [
      { head: 'Code', format: 'text' },
      { head: 'both', format: 'count' },
      { head: `only ${first}`, format: 'count' },
      { head: `only ${second}`, format: 'count' },
      { head: 'neither', format: 'count' },
      { head: 'decisions', format: 'count' },
      { head: 'agreed', format: 'percent' },
      { head: 'Cohen’s kappa', format: 'decimal' },
      { head: 'kappa from', format: 'decimal' },
      { head: 'kappa to', format: 'decimal' },
      { head: 'Krippendorff’s alpha', format: 'decimal' },
      { head: 'Gwet’s AC1', format: 'decimal' },
      ...(all ? [{ head: all, format: 'decimal' as const }] : []),
    ],
    rows: [
      [...row('All codes', overall), ...(all ? [null] : [])],
      ...themes.map((one) => [
        ...row(names.get(one.themeId) ?? '', one),
        ...(everybody ? [null] : []),
      ]),
      ...codes.map((one) => [
        ...row(names.get(one.codeId) ?? '', one),
        ...(everybody ? [everybody.codes[one.codeId] ?? null] : []),
      ]),
    ],
    heads: [true, ...themes.map(() => true), ...codes.map(() => false)],
  };
}

const written = (value: number | null): string =>
  value === null ? 'not defined' : value.toFixed(3);
