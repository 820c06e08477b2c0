import type { CorrectionChoice, Question, Report, StudyDetail } from '@yellow-thread/contract';
import { baseWords, countsSentence, FEWEST_SAMPLED } from '@yellow-thread/core/report';
import { useState } from 'react';
import { Link } from 'react-router';
import { useDrawnCodebook } from '../data/codebook.js';
import { useReport } from '../data/report.js';
import { useDrawer } from '../frame/drawer.js';
import { Term } from '../help/term.js';
import { EmptyState, PageProblem, Waiting } from '../parts/notices.js';
import { asCount, asDate, asList, asShare, counted } from '../parts/numbers.js';
import { AnswersBehind } from './answersBehind.js';
import { Cloth } from './cloth.js';
import { useTableChoice, type TableChoice } from './tableChoice.js';
import { TableChoices } from './tableChoices.js';

/** Whether there is nothing that could be counted yet. */
export const isEmptyTable = ({ rows, columns }: Report): boolean =>
  rows.length === 0 || columns.every(({ counted, settled }) => counted + settled === 0);

/** What the table counts, in a sentence, and the way to the end where there is one left. */
function WhatCounts({ report }: { report: Report }) {
  return (
    <p className="sticky left-0 max-w-prose py-2.5 text-[14px]" data-testid="what-counts">
      {countsSentence(report, asCount)}{' '}
      {!report.isFinished && (
        <Link to="../left" className="underline">
          What is left
        </Link>
      )}
    </p>
  );
}

/** The cloth: themes and codes down, groups across, every number with its base. */
export function TableView({ study, question }: { study: StudyDetail; question: Question }) {
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
        <Waiting what="the report" />
      ) : isEmptyTable(report.data) ? (
        <EmptyState title="Nothing to count yet">
          <p>No answer is settled yet. Code some answers, then their figures stand here.</p>
          <Link to="../code" className="underline">
            Code some answers
          </Link>
        </EmptyState>
      ) : (
        <div ref={setScroller} className="list overflow-x-auto px-6 pb-8 max-sm:px-3">
          <WhatCounts report={report.data} />
          <Cloth
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
  holm: 'Holm-corrected within a row',
  benjamini_hochberg: 'false discovery rate within a row',
  none: 'not corrected: with many pairs some differ by chance alone',
  off: '',
};

/** How the table is to be read: where its figures come from, and what the marks mean. */
function Reading({ report, choice }: { report: Report; choice: TableChoice }) {
  const { checked, closed, base, overlapping, estimatedFrom, notEstimated, counts } = report;
  return (
    <p className="mt-4 max-w-prose text-[13px] text-soft">
      {counts === 'estimated' ? (
        <>
          A code without a model, and one that nobody in the sample mentions, has the sample’s own
          share. A theme is held to be no less than any of its codes and no more than their sum. A
          column needs {FEWEST_SAMPLED} answers of the sample.{' '}
        </>
      ) : (
        <OriginSentence origins={report.origins} />
      )}
      Percentages are out of {baseWords[base]}.{' '}
      {checked.map((check) => (
        <CheckedSentence key={check.code + check.side} check={check} />
      ))}
      {closed.length > 0 && <ClosedSentence closed={closed} />}
      <TestSentence report={report} />
      {overlapping.length > 0 && (
        <>
          Not compared, since they have respondents in common:{' '}
          {overlapping.map((pair) => pair.join(' and ')).join('; ')}. Choose “each and everyone
          else” to compare them.{' '}
        </>
      )}
      {counts !== 'estimated' &&
        estimatedFrom.map((from) => (
          <EstimatedSentence key={`${from.sampled} ${from.trainedAt}`} from={from} />
        ))}
      {notEstimated && `${notEstimated} `}
      Figures on fewer than {choice.low} people are set in italics, on fewer than {choice.lowest} in
      grey.
    </p>
  );
}

/** Where the counted mentions come from: only what there is. */
function OriginSentence({ origins }: Pick<Report, 'origins'>) {
  const parts = (
    [
      [origins.hand, 'coded by hand'],
      [origins.accepted, 'suggested, read and accepted'],
      [origins.bulk, 'accepted in bulk'],
      [origins.import, 'imported with the sheet'],
      [origins.words, 'coded by a search for words'],
    ] as const
  ).filter(([count]) => count > 0);
  const all = parts.reduce((sum, [count]) => sum + count, 0);
  const [only] = parts;
  const said = parts.map(
    ([count, how]) => `${asCount(count)} ${count === 1 ? 'was' : 'were'} ${how}`,
  );
  return (
    <>
      People count once in a code and once in a theme.{' '}
      {only &&
        (parts.length === 1
          ? `The ${counted(all, 'mention')} ${all === 1 ? 'was' : 'were'} ${only[1]}. `
          : `Of the ${counted(all, 'mention')}, ${asList(said)}. `)}
      {origins.notCounted > 0 &&
        `${counted(origins.notCounted, 'mention')} on other answers ${origins.notCounted === 1 ? 'is' : 'are'} not counted. `}
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
      ? `A letter behind a share names a column whose estimated share is significantly lower (z test at the effective sizes of the estimates, ${chance}, ${testWords[test]}). Estimates are not compared with everyone else, nor tested across all columns: they share one sample. `
      : null;
  const correction = testTerms[test];
  const how = (
    <>
      {weighted ? (
        <>
          <Term of="raoscott-correction">Rao–Scott</Term> corrected
        </>
      ) : (
        'two-proportion z test, Fisher’s exact test on small counts'
      )}
      , {chance}, {correction ? <Term of={correction}>{testWords[test]}</Term> : testWords[test]}
    </>
  );
  const significantly = <Term of="significance">significantly</Term>;
  const hasLetters = columns.some(({ letter }) => letter !== null);
  const hasRest = test !== 'off' && against === 'rest' && columns.length > 1;
  const hasWhole = rows.some(({ whole }) => whole);
  return (
    <>
      {hasLetters && (
        <>
          A letter behind a percentage names a column whose percentage is {significantly} lower (
          {how}
          ).{' '}
        </>
      )}
      {hasRest && (
        <>
          + or − behind a percentage says that it is {significantly} higher or lower than among
          everyone else ({how}).{' '}
        </>
      )}
      {hasWhole &&
        `The last column tests for each row whether the columns differ at all (${weighted ? 'Rao–Scott F' : 'chi-square'}); since people mention several things, there is no such test for the table as a whole. “Too few” stands where expected counts are too small for it. `}
    </>
  );
}

/** What a spot check found of a code, before anything was corrected. */
function CheckedSentence({ check }: { check: Report['checked'][number] }) {
  const { code, side, read, applies, interval } = check;
  return (
    <>
      A spot check of {code} read {counted(read, 'answer')} {side} in bulk: it applied to{' '}
      {asShare(applies / read)} of them (95% interval {interval.map(asShare).join(' to ')}), before
      anything was corrected.{' '}
    </>
  );
}

/** Codes of which somebody said that whatever is left does not mention them. */
function ClosedSentence({ closed }: Pick<Report, 'closed'>) {
  const names = asList(closed.map(({ code }) => code));
  return (
    <>
      {names} {closed.length === 1 ? 'is' : 'are'} closed: answers that nobody coded so count as not
      mentioning {closed.length === 1 ? 'it' : 'them'}.{' '}
    </>
  );
}

/** What estimated columns rest on. */
function EstimatedSentence({ from }: { from: Report['estimatedFrom'][number] }) {
  return (
    <>
      Estimated columns are not counts:{' '}
      {from.trainedAt
        ? `the models of ${asDate(from.trainedAt)} read all ${counted(from.answers, 'answer')}, and what they say is corrected by ${asCount(from.sampled)} that were drawn at random and read (difference estimator)`
        : `they rest on ${asCount(from.sampled)} answers that were drawn at random and read`}
      ; a column needs {FEWEST_SAMPLED} of these.{' '}
    </>
  );
}
