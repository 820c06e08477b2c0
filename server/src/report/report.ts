import type {
  BehindQuery,
  Code,
  LedgerAnswer,
  Report,
  ReportCell,
  ReportQuery,
} from '@yellow-thread/contract';
import { countOfBoth, forEachInBoth, intersect } from '@yellow-thread/core/groups';
import {
  countCloth,
  exceededColumns,
  measureBase,
  rollUp,
  type ClothCell,
  type ClothRow,
} from '@yellow-thread/core/report';
import { shareApplying } from '@yellow-thread/core/review';
import type { EntityManager } from '@mikro-orm/postgresql';
import { asCode } from '../codebook/index.js';
import { readAnswers } from '../coding/index.js';
import {
  CodeEntity,
  QuestionEntity,
  ThemeEntity,
  row,
  VariableEntity,
  type QuestionRow,
} from '../database/index.js';
import { problems } from '../problems.js';
import {
  readColumns,
  readMaterial,
  readPeople,
  totalColumn,
  type Column,
  type People,
  type QuestionMaterial,
} from './material.js';

type By = ReportQuery['by'];

/** A column with the question that its figures are about. */
interface PlacedColumn extends Column {
  material: QuestionMaterial;
}

/** A theme or code whose figures are a row. */
interface Line {
  kind: 'theme' | 'code';
  id: string;
  themeId: string | null;
  name: string;
  codeIds: string[];
}

/** The table of codes and themes by question or by one background variable. */
export async function makeReport(
  em: EntityManager,
  studyId: number,
  question: QuestionRow,
  query: ReportQuery,
): Promise<Report> {
  const people = await readPeople(em, studyId);
  const columns = await placeColumns(em, studyId, people, question, query.by);
  const weights = query.weighted ? people.weights : null;
  const lines = await readLines(em, studyId);
  const cells = countLines(lines, columns, weights, query.base);
  const letters = lettersOf(columns, query);
  const table = lines.map((line, l) => ({
    line,
    cells: withExceeded(cells[l]!, letters, query.test, weights !== null),
  }));
  const materials = [...new Set(columns.map((column) => column.material))];
  const originSum = (origin: keyof Report['origins']) =>
    materials.reduce((sum, one) => sum + one.origins[origin], 0);
  return {
    weighted: weights !== null,
    base: query.base,
    test: query.test,
    columns: columns.map((column, c) => ({
      ...describeColumn(column, weights),
      letter: letters[c] ?? null,
    })),
    rows: inOrder(table.filter((row) => isMentioned(row.cells))).map(({ line, cells }) => ({
      kind: line.kind,
      id: line.id,
      themeId: line.themeId,
      name: line.name,
      decidedForAll: line.codeIds.every((id) => materials.every((m) => m.decidedForAll.has(id))),
      cells,
    })),
    origins: {
      hand: originSum('hand'),
      accepted: originSum('accepted'),
      bulk: originSum('bulk'),
      import: originSum('import'),
      words: originSum('words'),
      waiting: originSum('waiting'),
    },
    checked: await readChecked(
      em,
      materials.map((material) => material.question.id),
    ),
  };
}

/** A cell on fewer people is not compared. */
const FEWEST_COMPARED = 10;

/**
 * Letters of the columns that are compared: the values of one background variable, which have nobody in common.
 * Questions are answered by the same people, so their columns are not.
 */
function lettersOf(columns: PlacedColumn[], { by, test }: ReportQuery): (string | null)[] {
  const compared = columns.filter(({ key }) => key !== 'total' && key !== 'missing');
  if (typeof by === 'string' || test === 'off' || compared.length < 2 || compared.length > 26)
    return columns.map(() => null);
  return columns.map((column) => {
    const place = compared.indexOf(column);
    return place === -1 ? null : String.fromCharCode(65 + place);
  });
}

function withExceeded(
  cells: ClothCell[],
  letters: (string | null)[],
  test: ReportQuery['test'],
  isWeighted: boolean,
): ReportCell[] {
  if (test === 'off' || letters.every((letter) => letter === null))
    return cells.map((cell) => ({ ...cell, exceeds: [] }));
  const shares = cells.map(({ share, base }, c) =>
    letters[c] === null || share === null || base.people < FEWEST_COMPARED
      ? null
      : { share, n: isWeighted ? base.effective : base.people },
  );
  const exceeded = exceededColumns(shares, { correction: test, isWeighted });
  return cells.map((cell, c) => ({
    ...cell,
    exceeds: exceeded[c]!.map((place) => letters[place]!),
  }));
}

/** What spot checks found of the mentions that were accepted in bulk. */
async function readChecked(
  em: EntityManager,
  questionIds: readonly number[],
): Promise<Report['checked']> {
  const { read, applies } = await row<{ read: number; applies: number }>(
    em,
    `select count(*)::int as read, (count(*) filter (where a.verdict = 'applies'))::int as applies
     from spot_check_answer a join spot_check k on k.id = a.check_id join code c on c.id = k.code_id
     where k.question_id = any(?::int[]) and k.side = 'accepted' and a.verdict in ('applies', 'not')`,
    [questionIds],
  );
  const found = shareApplying(applies, read - applies);
  return found && { read, applies, interval: found.interval };
}

/** Counts every line in every column; columns about the same question are counted together. */
function countLines(
  lines: Line[],
  columns: PlacedColumn[],
  weights: Float64Array | null,
  base: ReportQuery['base'],
): ClothCell[][] {
  const cells = lines.map(() => new Array<ClothCell>(columns.length));
  for (const material of new Set(columns.map((column) => column.material))) {
    const places = columns.flatMap((column, c) => (column.material === material ? [c] : []));
    countCloth({
      rows: lines.map((line) => rowOf(material, line)),
      columns: places.map((c) => columns[c]!),
      asked: material.asked,
      answered: material.answered,
      weights,
      base,
    }).forEach((counted, l) =>
      counted.forEach((cell, place) => {
        cells[l]![places[place]!] = cell;
      }),
    );
  }
  return cells;
}

/** The answers that a number counts, each once. */
export async function readBehind(
  em: EntityManager,
  studyId: number,
  question: QuestionRow,
  query: BehindQuery,
): Promise<{ answers: LedgerAnswer[]; total: number; next: string | null }> {
  const people = await readPeople(em, studyId);
  const columns = await placeColumns(em, studyId, people, question, query.by);
  const column = columns.find((one) => one.key === query.column);
  const line = (await readLines(em, studyId)).find(
    ({ kind, id }) => id === (kind === 'code' ? query.code : query.theme),
  );
  if (!column || !line) throw problems.notFound('cell');
  const { material } = column;
  const row = rowOf(material, line);
  const counted = intersect(intersect(row.mentioned, row.decided), material.answered);
  const ids: number[] = [];
  forEachInBoth(counted, column.members, (i) => {
    ids.push(material.responseOf.get(i)!);
  });
  const sorted = ids.sort((x, y) => x - y);
  const page = sorted.filter((id) => id > (query.after ?? 0)).slice(0, query.limit);
  return {
    total: ids.length,
    answers: await readAnswers(em, page),
    next: page.length > 0 && page.at(-1) !== sorted.at(-1) ? String(page.at(-1)) : null,
  };
}

async function placeColumns(
  em: EntityManager,
  studyId: number,
  people: People,
  question: QuestionRow,
  by: By,
): Promise<PlacedColumn[]> {
  if (by === 'question') {
    const questions = await em.find(QuestionEntity, { studyId }, { orderBy: { position: 'asc' } });
    const placed: PlacedColumn[] = [];
    for (const one of questions)
      placed.push({
        ...totalColumn(people),
        key: `question-${one.id}`,
        label: one.label,
        material: await readMaterial(em, people, one),
      });
    return placed;
  }
  const material = await readMaterial(em, people, question);
  const total = { ...totalColumn(people), material };
  if (by === 'none') return [total];
  if ((await em.count(VariableEntity, { id: by, studyId })) === 0)
    throw problems.notFound('background variable');
  const groups = await readColumns(em, people, studyId, by);
  return [total, ...groups.map((group) => ({ ...group, material }))];
}

/** Themes with their codes, then codes without a theme. */
async function readLines(em: EntityManager, studyId: number): Promise<Line[]> {
  const themes = await em.find(ThemeEntity, { studyId }, { orderBy: { position: 'asc' } });
  const stored = await em.find(CodeEntity, { studyId }, { orderBy: { position: 'asc' } });
  const codes = stored.map(asCode);
  const ofCode = ({ id, themeId, name }: Code): Line => ({
    kind: 'code',
    id,
    themeId,
    name,
    codeIds: [id],
  });
  return [
    ...themes.flatMap(({ id, name }) => {
      const own = codes.filter((code) => code.themeId === id);
      const theme: Line = {
        kind: 'theme',
        id,
        themeId: id,
        name,
        codeIds: own.map((code) => code.id),
      };
      return own.length === 0 ? [] : [theme, ...own.map(ofCode)];
    }),
    ...codes.filter((code) => code.themeId === null).map(ofCode),
  ];
}

function rowOf(material: QuestionMaterial, line: Line): ClothRow {
  const parts = line.codeIds.map((id) => material.codes.get(id) ?? material.emptyRow(id));
  return line.kind === 'code' ? parts[0]! : rollUp(line.id, parts);
}

const isMentioned = (cells: { people: number }[]) => cells.some((cell) => cell.people > 0);

/** Themes by the share of the first column, each followed by its codes in the same order. */
function inOrder<Row extends { line: Line; cells: { share: number | null }[] }>(
  table: Row[],
): Row[] {
  const share = (row: Row) => row.cells[0]?.share ?? 0;
  const bySize = (rows: Row[]) => rows.toSorted((x, y) => share(y) - share(x));
  const tops = bySize(table.filter(({ line }) => line.kind === 'theme' || line.themeId === null));
  return tops.flatMap((top) =>
    top.line.kind === 'code'
      ? [top]
      : [
          top,
          ...bySize(
            table.filter(({ line }) => line.kind === 'code' && line.themeId === top.line.id),
          ),
        ],
  );
}

function describeColumn(
  { key, label, members, material }: PlacedColumn,
  weights: Float64Array | null,
) {
  const settled = measureBase(material.settled, members, weights);
  return {
    key,
    label,
    asked: countOfBoth(material.asked, members),
    answered: countOfBoth(material.answered, members),
    settled: settled.people,
    settledEffective: settled.effective,
  };
}
