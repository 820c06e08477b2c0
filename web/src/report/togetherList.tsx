import type { CodesTogether } from '@yellow-thread/contract';
import { createColumnHelper, type ColumnDef } from '@tanstack/react-table';
import { useMemo, useState } from 'react';
import type { DrawnCodebook } from '../data/codebook.js';
import { asCount, asP, asShare } from '../lib/numbers.js';
import { Button } from '../parts/button.js';
import { SortedTable } from '../parts/sortedTable.js';
import { StitchMark } from '../parts/stitch.js';
import { togetherListTexts } from './togetherTexts.js';

type Code = CodesTogether['codes'][number];
interface Pair {
  one: Code;
  other: Code;
  cell: NonNullable<Code['cells'][number]>;
  open: () => void;
  codebook: DrawnCodebook;
}

const SHOWN = 40;
const helper = createColumnHelper<Pair>();
const number = { headClassName: 'text-right', className: 'figures text-right' };

const columns = [
  helper.accessor(({ one, other }) => `${one.name} ${other.name}`, {
    id: 'pair',
    header: togetherListTexts.pair,
    meta: { isRowHead: true },
    sortDescFirst: false,
    cell: ({ row: { original } }) => <PairName {...original} />,
  }),
  helper.accessor(({ cell }) => cell.both, {
    id: 'both',
    header: togetherListTexts.both,
    meta: { ...number, title: togetherListTexts.bothTitle },
    cell: ({ getValue }) => asCount(Math.round(getValue())),
  }),
  helper.accessor(({ one }) => one.found, {
    id: 'first',
    header: togetherListTexts.first,
    meta: number,
    cell: ({ getValue }) => asCount(Math.round(getValue())),
  }),
  helper.accessor(({ other }) => other.found, {
    id: 'second',
    header: togetherListTexts.second,
    meta: number,
    cell: ({ getValue }) => asCount(Math.round(getValue())),
  }),
  helper.accessor(({ cell }) => cell.jaccard ?? 0, {
    id: 'jaccard',
    header: togetherListTexts.jaccard,
    meta: number,
    cell: ({ getValue }) => asShare(getValue()),
  }),
  helper.accessor(({ cell }) => cell.phi ?? 0, {
    id: 'phi',
    header: togetherListTexts.phi,
    meta: number,
    cell: ({ getValue }) => asShare(getValue()),
  }),
  helper.accessor(({ cell }) => cell.lift ?? 0, {
    id: 'lift',
    header: togetherListTexts.lift,
    meta: number,
    cell: ({ getValue }) => asShare(getValue()),
  }),
  helper.accessor(({ cell }) => cell.p, {
    id: 'p',
    header: togetherListTexts.p,
    meta: number,
    sortDescFirst: false,
    cell: ({ getValue }) => asP(getValue()),
  }),
] as ColumnDef<Pair, never>[];

/** Codes that occur together, the strongest pairs first. */
export function TogetherList({
  codes,
  codebook,
  onPair,
}: {
  codes: Code[];
  codebook: DrawnCodebook;
  onPair: (one: Code, other: Code) => void;
}) {
  const [all, setAll] = useState(false);
  const pairs = useMemo(
    () =>
      codes
        .flatMap((one, i) =>
          codes.slice(i + 1).flatMap((other, k): Pair[] => {
            const cell = one.cells[i + 1 + k];
            if (!cell || cell.unweighted === 0) return [];
            return [{ one, other, cell, open: () => onPair(one, other), codebook }];
          }),
        )
        .sort((x, y) => (y.cell.phi ?? -1) - (x.cell.phi ?? -1)),
    [codes, codebook, onPair],
  );
  if (pairs.length === 0) return <p className="mt-4 text-soft">{togetherListTexts.none}</p>;
  return (
    <div className="max-w-[1000px]">
      <SortedTable
        label={togetherListTexts.pairs}
        columns={columns}
        rows={all ? pairs : pairs.slice(0, SHOWN)}
        idOf={({ one, other }) => `${one.id} ${other.id}`}
        initial="phi"
      />
      {!all && pairs.length > SHOWN && (
        <Button look="plain" className="mt-2" onClick={() => setAll(true)}>
          {togetherListTexts.all(pairs.length)}
        </Button>
      )}
    </div>
  );
}

const PairName = ({ one, other, open, codebook }: Pair) => (
  <button
    type="button"
    className="flex flex-wrap items-center gap-x-2 text-left hover:underline"
    onClick={open}
  >
    {[one, other].map((code, i) => (
      <span key={code.id} className="inline-flex items-center gap-2">
        {i === 1 && <span className="text-soft">+</span>}
        {codebook.byId.get(code.id) && (
          <StitchMark look={codebook.byId.get(code.id)!.look} width={14} />
        )}
        {code.name}
      </span>
    ))}
  </button>
);
