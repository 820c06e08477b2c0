import { orderTogether } from '@yellow-thread/core/report';
import type { CodesTogether } from '@yellow-thread/contract';
import { useMemo } from 'react';
import type { DrawnCodebook } from '../data/codebook.js';
import { asCount, asShare } from '../lib/numbers.js';
import { StitchMark } from '../parts/stitch.js';
import { togetherViewTexts } from './togetherTexts.js';

type Code = CodesTogether['codes'][number];
export const measures = {
  both: togetherViewTexts.howManyBoth,
  jaccard: togetherViewTexts.jaccardBothAmongEither,
  phi: togetherViewTexts.phiCorrelation11,
  lift: togetherViewTexts.liftTimesOftenChance,
} as const;
export type Measure = keyof typeof measures;

/** Every code with every other, what belongs together side by side. */
export function TogetherGrid({
  codes: given,
  weighted,
  measure,
  codebook,
  onPair,
}: {
  codes: Code[];
  weighted: boolean;
  measure: Measure;
  codebook: DrawnCodebook;
  onPair: (one: Code, other: Code) => void;
}) {
  const order = useMemo(
    () => orderTogether(given.map(({ cells }) => given.map((_, o) => cells[o]?.jaccard ?? 0))),
    [given],
  );
  const codes = order.map((c) => given[c]!);
  const cellOf = (code: Code, o: number) => code.cells[order[o]!];
  const strengthOf = (code: Code, other: number) => {
    const value = cellOf(code, other)?.[measure] ?? 0;
    // as often as by chance is nothing to be seen
    return measure === 'lift' ? Math.max(0, value - 1) : Math.max(0, value);
  };
  const strongest = Math.max(
    ...codes.flatMap((code) => codes.map((_, other) => strengthOf(code, other))),
    1e-9,
  );
  return (
    <table className="border-separate border-spacing-0">
      <thead>
        <tr>
          <th className="sticky left-0 top-0 z-20 min-w-[210px] bg-paper" />
          {codes.map((code) => (
            <th
              key={code.id}
              scope="col"
              title={code.name}
              className="sticky top-0 z-10 w-10 min-w-10 border-b border-rule bg-paper align-bottom font-normal"
            >
              <span className="ml-auto block max-h-64 w-fit rotate-180 pl-1 text-left [writing-mode:vertical-rl]">
                {code.name}
              </span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {codes.map((code, c) => (
          <tr key={code.id}>
            <th
              scope="row"
              className="sticky left-0 z-[5] border-b border-rule bg-paper py-1 pr-3 text-left font-normal"
            >
              <span className="flex items-center gap-2">
                {codebook.byId.get(code.id) && (
                  <StitchMark look={codebook.byId.get(code.id)!.look} width={14} />
                )}
                {code.name}
              </span>
            </th>
            {codes.map((other, o) => {
              const cell = cellOf(code, o);
              if (!cell)
                return (
                  <td
                    key={other.id}
                    title={togetherViewTexts.of(
                      togetherViewTexts.mentionCounted(code.unweighted.found),
                      code.unweighted.n,
                      weighted,
                    )}
                    className="figures border-b border-rule px-1.5 py-1 text-right text-soft"
                  >
                    {c === o ? asCount(Math.round(code.found)) : '–'}
                  </td>
                );
              const value = cell[measure];
              const isNone = cell.unweighted === 0 && measure !== 'phi';
              const text =
                value === null
                  ? '–'
                  : measure === 'both'
                    ? asCount(Math.round(value))
                    : asShare(value);
              const depth = strengthOf(code, o) / strongest;
              return (
                <td
                  key={other.id}
                  className="figures border-b border-rule text-right"
                  style={{
                    backgroundColor: `color-mix(in srgb, var(--color-soft) ${Math.round(38 * depth)}%, transparent)`,
                  }}
                >
                  <button
                    type="button"
                    disabled={cell.unweighted === 0}
                    title={weighted ? `${asCount(cell.unweighted)} unweighted` : undefined}
                    aria-label={togetherViewTexts.with(code.name, other.name, text)}
                    className="block w-full px-1.5 py-1 text-right enabled:hover:bg-wash disabled:cursor-default"
                    onClick={() => onPair(code, other)}
                  >
                    {isNone ? <span className="text-soft">·</span> : text}
                  </button>
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
