import type { Code, CountingRule, ReportQuery, RowOrder } from '@yellow-thread/contract';
import { rollUp, type CrosstabRow } from '@yellow-thread/core/report';
import type { EntityManager } from '@mikro-orm/postgresql';
import { readBundles } from '../codebook/index.js';
import { asCode } from '../codebook/index.js';
import { CodeEntity, ThemeEntity } from '../database/index.js';
import type { TableMaterial } from './tableMaterial.js';

/** A code, or several counted as one, whose figures are a row. */
export interface TableRow {
  kind: 'theme' | 'code' | 'bundle';
  id: string;
  /** The theme or bundle that it stands under. */
  parentId: string | null;
  name: string;
  codeIds: string[];
  /** Whether it can be given to one of some questions: a row of nobody is shown only then. */
  isInUse: (questionIds: readonly number[]) => boolean;
}

/** The codes of a study, and the lines that are asked for, as the codebook has them. */
export async function readTableRows(
  em: EntityManager,
  studyId: number,
  { rows, chosen }: Pick<ReportQuery, 'rows' | 'chosen'>,
): Promise<{ codeIds: string[]; lines: TableRow[] }> {
  const stored = await em.find(CodeEntity, { studyId }, { orderBy: { position: 'asc' } });
  const codes = stored.map(asCode);
  const lines =
    rows === 'bundles'
      ? await bundleLines(em, studyId, codes)
      : (await bookLines(em, studyId, codes)).filter(
          ({ kind, parentId }) =>
            rows === 'book' ||
            kind === (rows === 'themes' ? 'theme' : 'code') ||
            // a code without a theme is among the themes what it is in the book
            (rows === 'themes' && parentId === null),
        );
  const isChosen = ({ id, parentId }: TableRow) =>
    chosen.length === 0 ||
    chosen.includes(id) ||
    (rows !== 'codes' && parentId !== null && chosen.includes(parentId));
  return { codeIds: codes.map(({ id }) => id), lines: lines.filter(isChosen) };
}

const lineOf = (code: Code): TableRow => ({
  kind: 'code',
  id: code.id,
  parentId: code.themeId,
  name: code.name,
  codeIds: [code.id],
  isInUse: (questionIds) => isInUse(code, questionIds),
});

const isInUse = ({ archived, questions }: Code, questionIds: readonly number[]): boolean =>
  !archived && (questions === null || questionIds.some((id) => questions.includes(id)));

/** Themes with their codes, then codes without a theme. */
async function bookLines(em: EntityManager, studyId: number, codes: Code[]): Promise<TableRow[]> {
  const themes = await em.find(ThemeEntity, { studyId }, { orderBy: { position: 'asc' } });
  return [
    ...themes.flatMap(({ id, name }) => {
      const own = codes.filter((code) => code.themeId === id);
      return own.length === 0
        ? []
        : [
            {
              kind: 'theme' as const,
              id,
              parentId: null,
              name,
              codeIds: own.map((code) => code.id),
              isInUse: (ids: readonly number[]) => own.some((code) => isInUse(code, ids)),
            },
            ...own.map(lineOf),
          ];
    }),
    ...codes.filter((code) => code.themeId === null).map(lineOf),
  ];
}

/** Bundles with their codes; a code that is in several stands under each. */
async function bundleLines(em: EntityManager, studyId: number, codes: Code[]): Promise<TableRow[]> {
  const bundles = await readBundles(em, studyId);
  return bundles.flatMap(({ id, name, codeIds }) => {
    const own = codes.filter((code) => codeIds.includes(code.id));
    return own.length === 0
      ? []
      : [
          {
            kind: 'bundle' as const,
            id,
            parentId: null,
            name,
            codeIds,
            isInUse: (ids: readonly number[]) => own.some((code) => isInUse(code, ids)),
          },
          ...own.map((code) => ({ ...lineOf(code), parentId: id })),
        ];
  });
}

export function rowOf(
  material: TableMaterial,
  { kind, id, codeIds }: TableRow,
  rule: CountingRule,
): CrosstabRow {
  const parts = codeIds.map((codeId) => material.rowOf(codeId, rule));
  return kind === 'code' ? parts[0]! : rollUp(id, parts);
}

/** How large a row is, by which rows are ordered; none for the order of the codebook. */
export interface Sized {
  line: TableRow;
  size: number;
}

const byName = new Intl.Collator();

/** Rows in order: what stands under another follows it, in the same order. */
export function inOrder<Row extends Sized>(table: Row[], order: RowOrder): Row[] {
  const sorted = (some: Row[]) => {
    if (order === 'book') return some;
    return order === 'name'
      ? some.toSorted((x, y) => byName.compare(x.line.name, y.line.name))
      : some.toSorted((x, y) => y.size - x.size);
  };
  const heads = new Set(
    table
      .map(({ line }) => line)
      .filter(({ kind }) => kind !== 'code')
      .map(({ id }) => id),
  );
  const isUnder = ({ line }: Row) =>
    line.kind === 'code' && line.parentId !== null && heads.has(line.parentId);
  return sorted(table.filter((row) => !isUnder(row))).flatMap((top) => [
    top,
    ...(top.line.kind === 'code'
      ? []
      : sorted(table.filter((row) => isUnder(row) && row.line.parentId === top.line.id))),
  ]);
}
