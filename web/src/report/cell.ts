import type { Report, Rule } from '@yellow-thread/contract';
import type { CountingRule } from '@yellow-thread/core/report';
import type { Cell } from '../data/report.js';
import { cellTexts } from './texts.js';

interface Named {
  id: string;
  name: string;
}
/** What must be known of the codebook. */
interface Book {
  themes: readonly Named[];
  codes: readonly (Named & { themeId: string | null })[];
  bundles: readonly (Named & { codeIds: string[] })[];
}

/** The codes that a row stands for. */
export function codesOf(row: string, { codes, bundles }: Book): string[] {
  if (codes.some(({ id }) => id === row)) return [row];
  const bundle = bundles.find(({ id }) => id === row);
  return bundle
    ? bundle.codeIds
    : codes.filter(({ themeId }) => themeId === row).map(({ id }) => id);
}

/** Which answers of the ledger a table counts; without an entry all that mention the code. */
const shownBy: Partial<Record<CountingRule, string>> = {
  sample: 'sample',
  estimated: 'sample',
  settled: 'settled',
};

/** The ledger's filter for what a number counts, as its address has it. */
export function ledgerOf(cell: Cell, codebook: Book, counts: CountingRule): string {
  const show = cell.inOne === 'line' ? 'settled' : shownBy[counts];
  const any = codesOf(cell.row, codebook).slice(0, 50).join(',');
  return new URLSearchParams({
    any,
    ...(cell.with && { all: cell.with }),
    ...(cell.inOne === 'line' && { together: 'line' }),
    ...(show && { show }),
    same: 'apart',
  }).toString();
}

/**
 * The group of the people whom a number counts.
 *
 * @param question the one that the table is of
 * @param query the table's address: whether it counts all questions
 * @param column the one that the number stands in; none for everybody
 * @param counts what the table counts
 * @param taken names of groups that there are
 * @returns null where no rule says it: a rule knows answers, not their lines, nor what was drawn
 */
export function groupOf(
  cell: Cell,
  codebook: Book,
  {
    question,
    query,
    counts,
    column,
  }: {
    question: number;
    query: string;
    counts: CountingRule;
    column?: Pick<Report['columns'][number], 'label' | 'rule'>;
  },
  taken: readonly string[],
): { name: string; description: string; rule: Rule } | null {
  if (cell.inOne === 'line' || shownBy[counts] === 'sample') return null;
  const questionId =
    new URLSearchParams(query).get('questions') === 'all'
      ? null
      : Number(/^question-(\d+)$/u.exec(cell.column)?.[1] ?? question);
  const { themes, codes, bundles } = codebook;
  const theme = themes.find(({ id }) => id === cell.row);
  const mentioning = (codeIds: string[], themeIds: string[] = []): Rule => ({
    is: 'mentions',
    which: 'any',
    codeIds,
    themeIds,
    questionId,
  });
  const named = [...themes, ...codes, ...bundles];
  const nameOf = (wanted?: string) => named.find(({ id }) => id === wanted)?.name;
  const what = [nameOf(cell.row), nameOf(cell.with), column?.rule && column.label];
  return {
    name: freeName(cellTexts.mentions(what.filter(Boolean).join(', ')), taken),
    description: '',
    rule: {
      is: 'all_of',
      rules: [
        theme ? mentioning([], [theme.id]) : mentioning(codesOf(cell.row, codebook)),
        ...(cell.with ? [mentioning([cell.with])] : []),
        ...(column?.rule ? [column.rule] : []),
      ],
    },
  };
}

const LONGEST_NAME = 120;

/** A name as it is, or with the first number that makes it one of its own; names differ by more than case. */
function freeName(wanted: string, taken: readonly string[]): string {
  const known = new Set(taken.map((name) => name.toLowerCase()));
  for (let n = 1; ; n++) {
    const end = n === 1 ? '' : ` (${n})`;
    const name = wanted.slice(0, LONGEST_NAME - end.length) + end;
    if (!known.has(name.toLowerCase())) return name;
  }
}
