import type { CorrectionChoice, Question, Report, StudyDetail } from '@yellow-thread/contract';
import { baseInWords, countsSentence, FEWEST_SAMPLED } from '@yellow-thread/core/report';
import { useState } from 'react';
import { Link } from 'react-router';
import { useDrawnCodebook } from '../data/codebook.js';
import { useReport } from '../data/report.js';
import { useMay } from '../frame/access.js';
import { useDrawer } from '../frame/drawer.js';
import { Term } from '../help/term.js';
import { EmptyState, PageProblem, Waiting } from '../parts/notices.js';
import { asCount, asList, asShare } from '../lib/numbers.js';
import { AnswersBehind } from './answersBehind.js';
import { CrosstabTable } from './crosstabTable.js';
import { useTableChoice, type TableChoice } from './tableChoice.js';
import { TableChoices } from './tableChoices.js';
import { tableViewTexts } from './texts.js';

/** Whether there is nothing that could be counted yet. */
export const isEmptyTable = ({ rows, columns }: Report): boolean =>
  rows.length === 0 || columns.every(({ counted, settled }) => counted + settled === 0);

/** What the table counts, in a sentence, and the way to the end where there is one left. */
function WhatCounts({ report }: { report: Report }) {
  const mayFinish = useMay('research');
  return (
    <p className="sticky left-0 max-w-prose py-2.5 text-[14px]" data-testid="what-counts">
      {countsSentence(report, asCount)}{' '}
      {!report.isFinished && mayFinish && (
        <Link to="../left" className="underline">
          {tableViewTexts.whatLeft}
        </Link>
      )}
    </p>
  );
}

/** The cloth: themes and codes down, groups across, every number with its base. */
export function TableView({ study, question }: { study: StudyDetail; question: Question }) {
  const mayCode = useMay('coding');
  const [choice, change] = useTableChoice(study.variables);
  const report = useReport(study.id, question.id, choice.query);
  const codebook = useDrawnCodebook(study.id);
  const openDrawer = useDrawer();
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-6 py-2.5">
        <TableChoices study={study} choice={choice} change={change} report={report.data} />
      </div>
      {report.isError ? (
        <PageProblem error={report.error} />
      ) : !report.data || !codebook ? (
        <Waiting what={tableViewTexts.report} />
      ) : isEmptyTable(report.data) ? (
        <EmptyState title={tableViewTexts.nothingCountYet}>
          <p>{tableViewTexts.noAnswerSettledYet}</p>
          {mayCode && (
            <Link to="../code" className="underline">
              {tableViewTexts.codeSomeAnswers}
            </Link>
          )}
        </EmptyState>
      ) : (
        <div ref={setScroller} className="list overflow-x-auto px-6 pb-8 max-sm:px-3">
          <WhatCounts report={report.data} />
          <CrosstabTable
            report={report.data}
            codebook={codebook}
            choice={choice}
            change={change}
            scroller={scroller}
            onCell={(row, column) =>
              openDrawer({
                title: `${row.name}: ${column.label}`,
                body: (
                  <AnswersBehind
                    key={row.id + column.key + choice.query}
                    study={study}
                    question={question.id}
                    query={choice.query}
                    cell={{ row: row.id, column: column.key }}
                    codebook={codebook}
                    counts={report.data.counts}
                    column={column}
                  />
                ),
              })
            }
          />
          <Reading report={report.data} choice={choice} />
        </div>
      )}
    </>
  );
}

/** Where the guide explains how comparisons are corrected. */
const testTerms: Partial<Record<CorrectionChoice, string>> = {
  holm: 'holm',
  benjamini_hochberg: 'benjaminihochberg',
};
const testWords: Record<CorrectionChoice, string> = {
  holm: tableViewTexts.holmCorrectedWithinRow,
  benjamini_hochberg: tableViewTexts.falseDiscoveryRateWithin,
  none: tableViewTexts.correctedManyPairsSome,
  off: '',
};

/** How the table is to be read: where its figures come from, and what the marks mean. */
function Reading({ report, choice }: { report: Report; choice: TableChoice }) {
  const { checked, closed, base, overlapping, estimatedFrom, notEstimated, counts } = report;
  return (
    <p className="mt-4 max-w-prose text-[13px] text-soft">
      {counts === 'estimated' ? (
        <>{tableViewTexts.codeWithoutModelOne(FEWEST_SAMPLED)}</>
      ) : (
        <OriginSentence origins={report.origins} />
      )}
      {tableViewTexts.percentagesOut(baseInWords[base])}
      {checked.map((check) => (
        <CheckedSentence key={check.code + check.side} check={check} />
      ))}
      {closed.length > 0 && <ClosedSentence closed={closed} />}
      <TestSentence report={report} />
      {overlapping.length > 0 && (
        <>
          {tableViewTexts.comparedSinceRespondentsCommon(
            overlapping.map((pair) => pair.join(' and ')).join('; '),
          )}
        </>
      )}
      {counts !== 'estimated' &&
        estimatedFrom.map((from) => (
          <EstimatedSentence key={`${from.sampled} ${from.trainedAt}`} from={from} />
        ))}
      {notEstimated && `${notEstimated} `}
      {tableViewTexts.figuresFewerPeopleSet(choice.low, choice.lowest)}
    </p>
  );
}

/** Where the counted mentions come from: only what there is. */
function OriginSentence({ origins }: Pick<Report, 'origins'>) {
  const parts = (
    [
      [origins.hand, tableViewTexts.codedHand],
      [origins.accepted, tableViewTexts.suggestedReadAccepted],
      [origins.bulk, tableViewTexts.acceptedBulk],
      [origins.import, tableViewTexts.importedSheet],
      [origins.words, tableViewTexts.codedSearchWords],
    ] as const
  ).filter(([count]) => count > 0);
  const all = parts.reduce((sum, [count]) => sum + count, 0);
  const [only] = parts;
  const said = parts.map(([count, how]) => tableViewTexts.told(count, how));
  return (
    <>
      {tableViewTexts.peopleCountOnceCode}
      {only &&
        (parts.length === 1 ? tableViewTexts.the(all, only[1]) : tableViewTexts.ofThe(all, said))}
      {origins.notCounted > 0 && tableViewTexts.otherAnswersCounted(origins.notCounted)}
    </>
  );
}

function TestSentence({
  report: { test, against, level, columns, rows, weighted, counts },
}: {
  report: Report;
}) {
  const chance = `${Math.round(100 * (1 - level))}%`;
  if (counts === 'estimated')
    return columns.some(({ letter }) => letter !== null)
      ? tableViewTexts.letterBehindShareNames(chance, testWords[test])
      : null;
  const correction = testTerms[test];
  const how = (
    <>
      {weighted ? (
        <>
          <Term of="raoscott-correction">{tableViewTexts.raoScott}</Term> {tableViewTexts.corrected}
        </>
      ) : (
        tableViewTexts.twoProportionZTest
      )}
      , {chance}, {correction ? <Term of={correction}>{testWords[test]}</Term> : testWords[test]}
    </>
  );
  const significantly = <Term of="significance">{tableViewTexts.significantly}</Term>;
  const hasLetters = columns.some(({ letter }) => letter !== null);
  const hasRest = test !== 'off' && against === 'rest' && columns.length > 1;
  const hasWhole = rows.some(({ whole }) => whole);
  return (
    <>
      {hasLetters && (
        <>
          {tableViewTexts.letterBehindPercentageNames} {significantly} {tableViewTexts.lower}
          {how}
          ).{' '}
        </>
      )}
      {hasRest && (
        <>
          {tableViewTexts.behindPercentageSays} {significantly}{' '}
          {tableViewTexts.higherLowerAmongEveryone}
          {how}).{' '}
        </>
      )}
      {hasWhole && tableViewTexts.lastColumnTestsEach(weighted)}
    </>
  );
}

/** What a spot check found of a code, before anything was corrected. */
function CheckedSentence({ check }: { check: Report['checked'][number] }) {
  const { code, side, read, applies, interval } = check;
  return (
    <>
      {tableViewTexts.spotCheckReadBulk({
        code,
        read,
        side,
        applies,
        interval: interval.map(asShare).join(' to '),
      })}
    </>
  );
}

/** Codes of which somebody said that whatever is left does not mention them. */
function ClosedSentence({ closed }: Pick<Report, 'closed'>) {
  const names = asList(closed.map(({ code }) => code));
  return <>{tableViewTexts.closedAnswersNobodyCoded(names, closed.length)}</>;
}

/** What estimated columns rest on. */
function EstimatedSentence({ from }: { from: Report['estimatedFrom'][number] }) {
  return (
    <>
      {tableViewTexts.estimatedColumnsCountsColumn(
        from.trainedAt,
        from.answers,
        from.sampled,
        FEWEST_SAMPLED,
      )}
    </>
  );
}
