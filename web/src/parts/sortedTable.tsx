import {
  flexRender,
  getCoreRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type RowData,
  type SortingState,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useState } from 'react';
import { Wide } from './wide.js';

declare module '@tanstack/react-table' {
  // how our columns look; names of its parameters are the package's
  // eslint-disable-next-line @typescript-eslint/no-unused-vars
  interface ColumnMeta<TData extends RowData, TValue> {
    /** What the head says when it is pointed at. */
    title?: string;
    className?: string;
    headClassName?: string;
    /** Whether its cell names the row. */
    isRowHead?: true;
  }
}

/**
 * A table that is sorted by its heads; rows that are alike stay in the order given.
 *
 * @param initial the column that it is sorted by at first, the greatest on top
 */
export function SortedTable<Row>({
  label,
  columns,
  rows,
  idOf,
  initial,
}: {
  label: string;
  // a column of each type of value
  columns: ColumnDef<Row, never>[];
  rows: Row[];
  idOf: (row: Row) => string;
  initial: string;
}) {
  const [sorting, setSorting] = useState<SortingState>([{ id: initial, desc: true }]);
  // eslint-disable-next-line react-hooks/incompatible-library -- nothing here is memoised by hand
  const table = useReactTable({
    data: rows,
    columns: columns as ColumnDef<Row>[],
    state: { sorting },
    onSortingChange: setSorting,
    getRowId: idOf,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    sortDescFirst: true,
    enableSortingRemoval: false,
    enableMultiSort: false,
  });
  return (
    <Wide label={label}>
      <table className="w-full">
        <thead className="border-b border-rule text-left text-soft">
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id}>
              {group.headers.map(({ id, column, getContext }) => {
                const sorted = column.getIsSorted();
                const { title, headClassName = '' } = column.columnDef.meta ?? {};
                const name = flexRender(column.columnDef.header, getContext());
                return (
                  <th
                    key={id}
                    scope="col"
                    aria-sort={
                      sorted ? (sorted === 'desc' ? 'descending' : 'ascending') : undefined
                    }
                    className={`py-1.5 pr-4 font-normal ${headClassName}`}
                  >
                    {column.getCanSort() ? (
                      <button
                        type="button"
                        title={title}
                        className="inline-flex items-center gap-1 rounded [text-align:inherit] hover:text-ink"
                        onClick={column.getToggleSortingHandler()}
                      >
                        {name}
                        {sorted === 'desc' && <ArrowDown size={12} aria-hidden />}
                        {sorted === 'asc' && <ArrowUp size={12} aria-hidden />}
                      </button>
                    ) : (
                      name
                    )}
                  </th>
                );
              })}
            </tr>
          ))}
        </thead>
        <tbody>
          {table.getRowModel().rows.map((row) => (
            <tr key={row.id} className="border-b border-rule">
              {row.getVisibleCells().map(({ id, column, getContext }) => {
                const { className = '', isRowHead } = column.columnDef.meta ?? {};
                const content = flexRender(column.columnDef.cell, getContext());
                return isRowHead ? (
                  <th
                    key={id}
                    scope="row"
                    className={`py-1.5 pr-4 text-left font-normal ${className}`}
                  >
                    {content}
                  </th>
                ) : (
                  <td key={id} className={`py-1.5 pr-4 ${className}`}>
                    {content}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}
