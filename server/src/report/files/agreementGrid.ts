import type { Agreement, CodeAgreement } from '@yellow-thread/contract';
import { coderNames, listNames } from '@yellow-thread/core/agreement';
import type { Fact } from './facts.js';
import type { Grid, GridValue } from './grid.js';
import { agreementGridTexts } from '../../wording/report.js';

/** How far two coders agree, theme by theme and code by code with their four cells, before it is written as any kind of file. */
export function agreementGrid(
  { reading, codes, themes, overall, sameSets, alphaOfSets, everybody }: Agreement,
  names: ReadonlyMap<string, string>,
  facts: readonly Fact[],
): Grid {
  const { first, second } = coderNames(reading);
  const row = (name: string, { cells, ...one }: CodeAgreement): GridValue[] => [
    name,
    cells.both,
    cells.first,
    cells.second,
    cells.neither,
    one.n,
    one.agreed,
    one.kappa,
    one.interval?.[0] ?? null,
    one.interval?.[1] ?? null,
    one.alpha,
    one.ac1,
  ];
  const all = everybody && agreementGridTexts.alphaAllCodings(everybody.coders);
  return {
    name: agreementGridTexts.agreement,
    facts: [
      ...facts,
      [agreementGridTexts.codedFirst, listNames(reading.firstCoders)],
      [agreementGridTexts.codedOnceMore, agreementGridTexts.withoutFirstCodesView(reading.reader)],
      [
        agreementGridTexts.answers,
        agreementGridTexts.answersOf(sameSets.n, reading.drawn, reading.drawnFrom),
      ],
      [agreementGridTexts.exactlySameCodes, `${sameSets.count} of ${sameSets.n}`],
      [agreementGridTexts.krippendorffsAlphaSetsCodes, written(alphaOfSets)],
      ...(all
        ? [[agreementGridTexts.setsCodes(all), written(everybody.alphaOfSets)] satisfies Fact]
        : []),
      [agreementGridTexts.intervals, agreementGridTexts.n95LargeSamplesOver],
      ['Date', new Date().toISOString().slice(0, 10)],
    ],
    columns: [
      { head: agreementGridTexts.code, format: 'text' },
      { head: 'both', format: 'count' },
      { head: `only ${first}`, format: 'count' },
      { head: `only ${second}`, format: 'count' },
      { head: 'neither', format: 'count' },
      { head: 'decisions', format: 'count' },
      { head: 'agreed', format: 'percent' },
      { head: 'Cohen’s kappa', format: 'decimal' },
      { head: agreementGridTexts.kappa, format: 'decimal' },
      { head: agreementGridTexts.kappa2, format: 'decimal' },
      { head: 'Krippendorff’s alpha', format: 'decimal' },
      { head: 'Gwet’s AC1', format: 'decimal' },
      ...(all ? [{ head: all, format: 'decimal' as const }] : []),
    ],
    rows: [
      [...row(agreementGridTexts.allCodes, overall), ...(all ? [null] : [])],
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

const written = (value: number | null): string | number => value ?? agreementGridTexts.defined;
