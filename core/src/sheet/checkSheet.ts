import { randomSource } from '../statistics/index.js';
import { CellFindings } from './cellFindings.js';
import { withoutErrors } from './cells.js';
import { findingList, type Finding, type FindingList } from './findings.js';
import { planIds, type IdPlan } from './respondentIds.js';
import { rowReader, type FoundNames, type PlannedRow } from './rowReader.js';
import { validateSettings } from './validateSettings.js';
import type { DuplicateChoice, HeadColumn, SheetSettings } from './settings.js';
import { countRows, type QuestionCount, type VariableCount } from './sheetCounts.js';
import { checkSheetTexts } from '../wording/sheet.js';

/** What bringing a sheet in will write, and what the writing needs to know beforehand. */
export interface SheetOutcome {
  respondents: number;
  questions: QuestionCount[];
  variables: VariableCount[];
  codes: { name: string; mentions: number }[];
  findings: Finding[];
  /** The first rows and some random ones, as they will be stored. */
  preview: { row: number; externalId: string; planned: PlannedRow }[];
  weighted: boolean;
  /** Rows that are not imported, and ids that differ from what the row says. */
  skipped: number[];
  renamed: [row: number, id: string][];
  found: FoundNames;
}

export interface CheckContext {
  columns: readonly HeadColumn[];
  settings: SheetSettings;
  /** Ids of respondents who are in the study already. */
  known?: ReadonlySet<string>;
  /** What categories of the study's variables are called, by the variable's name. */
  labels?: Readonly<Record<string, readonly string[]>>;
  /** Rows that an earlier check found not to be imported: looked at, but not counted. */
  skip?: ReadonlySet<number>;
  /** Draws the random rows of the preview. */
  seed: number;
}

const FIRST_ROWS = 5;
const RANDOM_ROWS = 5;

/**
 * Goes through a sheet row by row and computes what bringing it in will write and what is to be said
 * about it, without writing. Memory grows with the number of ids, not with the texts.
 *
 * @throws RangeError when there is not exactly one setting a column
 */
export function checkSheet({
  columns,
  settings,
  known = new Set(),
  labels = {},
  skip = new Set(),
  seed,
}: CheckContext) {
  const reader = rowReader(columns, settings);
  const hasIds = settings.columns.some((column) => column.role === 'id');
  const ids = planIds(hasIds, known);
  const cellFindings = new CellFindings(columns, settings, reader);
  const counts = countRows(settings, reader, labels);
  const preview = previewOf(seed);
  let rows = 0;
  return {
    add(row: number, written: readonly string[]): void {
      const cells = withoutErrors(written);
      if (cells !== written) cellFindings.addErrors(row);
      if (cells.every((cell) => cell.trim() === '')) {
        cellFindings.addBlank(row);
        return;
      }
      rows += 1;
      const planned = reader.read(cells);
      cellFindings.add(row, cells, planned);
      ids.add(row, planned.externalId);
      if (skip.has(row)) return;
      counts.add(row, planned);
      preview.add(row, planned);
    },
    settle(): SheetOutcome {
      const list = findingList();
      const plan = ids.settle(settings.duplicates);
      if (rows === 0) list.stop('no_rows', checkSheetTexts.sheetHeadButNo);
      validateSettings(columns, settings, reader, list);
      reportIds(plan, settings.duplicates, list);
      cellFindings.report(list);
      counts.report(list);
      const renamed = new Map(plan.renamed);
      const skipped = new Set(plan.skipped);
      return {
        respondents: rows - plan.skipped.length,
        questions: counts.questions(),
        variables: counts.variables(),
        codes: counts.codes(),
        findings: list.findings,
        preview: preview.rows
          .filter(({ row }) => !skipped.has(row))
          .map(({ row, planned }) => ({
            row,
            externalId: renamed.get(row) ?? planned.externalId,
            planned,
          })),
        weighted: settings.columns.some((column) => column.role === 'weight'),
        skipped: plan.skipped,
        renamed: plan.renamed,
        found: reader.found(),
      };
    },
  };
}

/** The first rows, and of the others a reservoir sample (Vitter 1985, algorithm R). */
function previewOf(seed: number) {
  const draw = randomSource(seed);
  const rows: { row: number; planned: PlannedRow }[] = [];
  let seen = 0;
  return {
    rows,
    add(row: number, planned: PlannedRow): void {
      seen += 1;
      if (rows.length < FIRST_ROWS + RANDOM_ROWS) {
        rows.push({ row, planned });
        return;
      }
      const at = Math.floor((draw() / 2 ** 32) * (seen - FIRST_ROWS));
      if (at < RANDOM_ROWS) rows[FIRST_ROWS + at] = { row, planned };
    },
  };
}

const duplicateSentences = {
  first: checkSheetTexts.severalRowsSameRespondent,
  last: checkSheetTexts.severalRowsSameRespondentId,
  suffix: checkSheetTexts.severalRowsSameRespondentIdAll,
};

function reportIds(plan: IdPlan, duplicates: DuplicateChoice, { stop, notice }: FindingList): void {
  if (duplicates !== 'stop') notice('duplicate_id', duplicateSentences[duplicates], plan.duplicate);
  else if (plan.duplicate.count > 0)
    stop('duplicate_id', checkSheetTexts.severalRowsSameRespondentIdChoose, plan.duplicate);
  notice('known_id', checkSheetTexts.respondentsStudyAlreadyRows, plan.known);
  notice('blank_id', checkSheetTexts.idBlankRespondentsCalled, plan.blank);
}
