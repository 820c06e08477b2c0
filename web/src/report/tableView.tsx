import type {
  BaseKind,
  CorrectionChoice,
  Question,
  Report,
  StudyDetail,
} from '@yellow-thread/contract';
import { FEWEST_SAMPLED } from '@yellow-thread/core/report';
import { useState } from 'react';
import { Link } from 'react-router';
import { useDrawnCodebook } from '../data/codebook.js';
import { useReport } from '../data/report.js';
import { useDrawer } from '../frame/drawer.js';
import { EmptyState, PageProblem, Waiting } from '../parts/notices.js';
import { asCount, asDate, asShare, counted } from '../parts/numbers.js';
import { AnswersBehind } from './answersBehind.js';
import { Cloth } from './cloth.js';
import { useTableChoice, type TableChoice } from './tableChoice.js';
import { TableChoices } from './tableChoices.js';

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
      ) : report.data.rows.length === 0 ? (
        <EmptyState title="Nothing to count yet">
          <p>
            No settled answer mentions a code. Code some answers, then their figures stand here.
          </p>
          <Link to="../code" className="underline">
            Code some answers
          </Link>
        </EmptyState>
      ) : (
        <div ref={setScroller} className="min-h-0 flex-1 overflow-auto px-6 pb-8">
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

const testWords: Record<CorrectionChoice, string> = {
  holm: 'Holm-corrected within a row',
  benjamini_hochberg: 'false discovery rate within a row',
  none: 'not corrected: with many pairs some differ by chance alone',
  off: '',
};
const baseSentence: Record<BaseKind, string> = {
  settled:
    'Percentages are out of people whose answer is settled; where every suggestion of a code is decided, out of all who answered, taking answers too unlikely to be suggested as not mentioning it.',
  answered:
    'Percentages are out of all who answered; while answers are open, they are what is known so far.',
  asked:
    'Percentages are out of all who were asked; while answers are open, they are what is known so far.',
  mentions:
    'Percentages are out of all mentions: they say how much of what was said is about a thing, not how many people said it.',
};

/** How the table is to be read: what counts, out of what, and what the marks mean. */
function Reading({ report, choice }: { report: Report; choice: TableChoice }) {
  const { origins, checked, base, overlapping, estimatedFrom, notEstimated } = report;
  return (
    <p className="mt-4 max-w-prose text-[13px] text-soft">
      People count once in a code and once in a theme. Counted are{' '}
      {counted(origins.hand, 'mention')} coded by hand, {counted(origins.accepted, 'suggestion')}{' '}
      accepted one by one and {asCount(origins.bulk)} accepted in bulk
      {origins.import > 0 && `, ${asCount(origins.import)} came with a sheet`}
      {origins.words > 0 && `, ${asCount(origins.words)} were coded by words looked for`}.{' '}
      {checked && <CheckedSentence checked={checked} />}
      {origins.waiting > 0 && <Waiters count={origins.waiting} />} {baseSentence[base]}{' '}
      <TestSentence report={report} />
      {overlapping.length > 0 && (
        <>
          Not compared, since they have respondents in common:{' '}
          {overlapping.map((pair) => pair.join(' and ')).join('; ')}. Choose “each and everyone
          else” to compare them.{' '}
        </>
      )}
      {estimatedFrom.map((from) => (
        <EstimatedSentence key={from.trainedAt} from={from} />
      ))}
      {notEstimated && `${notEstimated} `}
      Figures on fewer than {choice.low} people are set in italics, on fewer than {choice.lowest} in
      grey.
    </p>
  );
}

function TestSentence({
  report: { test, against, level, columns, rows, weighted },
}: {
  report: Report;
}) {
  const chance = `${Math.round(100 * (1 - level))}%`;
  const how = weighted
    ? 'Rao–Scott corrected'
    : 'two-proportion z test, Fisher’s exact test on small counts';
  const hasLetters = columns.some(({ letter }) => letter !== null);
  const hasRest = test !== 'off' && against === 'rest' && columns.length > 1;
  const hasWhole = rows.some(({ whole }) => whole);
  return (
    <>
      {hasLetters &&
        `A letter behind a percentage names a column whose percentage is lower beyond chance (${how}, ${chance}, ${testWords[test]}). `}
      {hasRest &&
        `+ or − behind a percentage says that it is higher or lower than among everyone else beyond chance (${how}, ${chance}, ${testWords[test]}). `}
      {hasWhole &&
        `The last column tests for each row whether the columns differ at all (${weighted ? 'Rao–Scott F' : 'chi-square'}); since people mention several things, there is no such test for the table as a whole. “Too few” stands where expected counts are too small for it. `}
    </>
  );
}

/** How often spot checks found the bulk to be right. */
function CheckedSentence({ checked }: { checked: NonNullable<Report['checked']> }) {
  const { read, applies, interval } = checked;
  return (
    <>
      Spot checks of the bulk read {counted(read, 'answer')}: {asShare(applies / read)} were right
      (95% interval {interval.map(asShare).join(' to ')}).{' '}
    </>
  );
}

/** What estimated columns rest on. */
function EstimatedSentence({ from }: { from: Report['estimatedFrom'][number] }) {
  return (
    <>
      Estimated columns are no counts: the models of {asDate(from.trainedAt)} read all{' '}
      {counted(from.answers, 'answer')}, and how far they were off on {asCount(from.sampled)} drawn
      at random puts them right (difference estimator, 95% intervals); a group needs{' '}
      {FEWEST_SAMPLED} of these.{' '}
    </>
  );
}

/** Accepted mentions that would skew a percentage while the rest of their code is open. */
function Waiters({ count }: { count: number }) {
  return (
    <>
      {counted(count, 'mention')} on open answers {count === 1 ? 'is' : 'are'} not counted until{' '}
      <Link to="../review" className="underline">
        every suggestion of the code is decided
      </Link>{' '}
      or the answer is settled.
    </>
  );
}
