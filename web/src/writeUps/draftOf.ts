import {
  reportQuery,
  type CountedTable,
  type Report,
  type StudyDetail,
  type WriteUp,
} from '@yellow-thread/contract';
import { baseInWords, correctionWords, countsSentence } from '@yellow-thread/core/report';
import { makeDraft } from './draft/draft.js';
import type { DraftTable } from './draft/draftInput.js';
import type { DraftNode } from './draft/draftNode.js';
import { figureFormat } from './format.js';
import { draftOfTexts } from './texts.js';

function testOf({ test, against, weighted, level, columns, counts }: Report): string | null {
  const isTested =
    test !== 'off' &&
    ((against === 'rest' && counts !== 'estimated') ||
      columns.some(({ letter }) => letter !== null));
  if (!isTested) return null;
  if (counts === 'estimated')
    return draftOfTexts.zTestEffectiveSizes(correctionWords[test], Math.round(100 * (1 - level)));
  const how = weighted ? draftOfTexts.raoScottCorrectedTest : draftOfTexts.twoProportionZTest;
  return draftOfTexts.twoSided(how, against, correctionWords[test], Math.round(100 * (1 - level)));
}

function draftTable(
  { id, questionId, label, wording, query, facts, report }: CountedTable,
  quotes: WriteUp['quotes'],
): DraftTable {
  const { groups, by } = reportQuery.parse(Object.fromEntries(new URLSearchParams(query)));
  const across = facts.find(([name]) => name === 'Columns')?.[1] ?? null;
  return {
    id,
    label,
    wording,
    table: report,
    across: by === 'none' && groups.length === 0 ? null : across,
    counts: report.counts,
    isFinished: report.isFinished,
    counting: countsSentence(report, figureFormat.count),
    isRandom: report.sample.isAllSettled,
    base: baseInWords[report.base],
    level: report.level,
    weighted: report.weighted,
    test: testOf(report),
    letters: report.columns.map(({ letter }) => letter),
    origins: report.origins,
    assisted: report.assisted,
    checked: report.checked,
    closed: report.closed,
    quotes: quotes.filter((quote) => quote.questionId === questionId),
  };
}

/** A draft of the findings, made from the figures by fixed rules. */
export const draftOf = (
  study: StudyDetail,
  { counted, quotes, coders, agreement }: WriteUp,
): DraftNode =>
  makeDraft({
    study: study.name,
    purpose: study.purpose,
    coders,
    agreement: agreement.filter(({ questionId }) =>
      counted.some((table) => table.questionId === questionId),
    ),
    tables: counted.map((table) => draftTable(table, quotes)),
    format: figureFormat,
  });
