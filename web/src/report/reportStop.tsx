import {
  baseKindSchema,
  correctionSchema,
  type BaseKind,
  type CorrectionChoice,
  type Report,
} from '@yellow-thread/contract';
import { Download } from 'lucide-react';
import { Link, useSearchParams } from 'react-router';
import { useDrawnCodebook } from '../data/codebook.js';
import { reportCsvAddress, useReport, type ReportChoice } from '../data/report.js';
import { useDrawer } from '../frame/drawer.js';
import { usePlace } from '../frame/place.js';
import { Choice } from '../parts/field.js';
import { EmptyState, PageProblem, Waiting } from '../parts/notices.js';
import { asCount, asShare, counted } from '../parts/numbers.js';
import { AnswersBehind } from './answersBehind.js';
import { Cloth } from './cloth.js';

const MOST_COLUMNS = 15;
const baseNames: Record<BaseKind, string> = {
  settled: 'those settled',
  answered: 'all who answered',
  asked: 'all who were asked',
};

const testNames: Record<CorrectionChoice, string> = {
  holm: 'tested, Holm-corrected',
  benjamini_hochberg: 'tested, false discovery rate',
  none: 'tested, not corrected',
  off: 'not tested',
};
const lettered =
  'A letter behind a percentage names a column whose percentage is lower beyond chance (two-proportion z test, Fisher’s exact test on small counts, 5%';
const testSentence: Record<CorrectionChoice, string> = {
  holm: `${lettered}, Holm-corrected for the pairs of a row).`,
  benjamini_hochberg: `${lettered}, false discovery rate within a row).`,
  none: `${lettered}, not corrected: with many pairs some differ by chance alone).`,
  off: '',
};

/** The cloth: themes and codes down, questions or groups across, every number with its base. */
export function ReportStop() {
  const { study, question } = usePlace();
  const [search, setSearch] = useSearchParams();
  const variables = study.variables.filter((one) => one.values <= MOST_COLUMNS);
  const choice: ReportChoice = {
    by: search.get('by') ?? String(variables[0]?.id ?? 'none'),
    base: baseKindSchema.catch('settled').parse(search.get('base')),
    weighted: search.get('weighted') === 'true',
    test: correctionSchema.catch('holm').parse(search.get('test')),
  };
  const report = useReport(study.id, question.id, choice);
  const codebook = useDrawnCodebook(study.id);
  const openDrawer = useDrawer();
  const choose = (changes: Partial<Record<keyof ReportChoice, string>>) =>
    setSearch({ ...Object.fromEntries(search), ...changes }, { replace: true });
  if (report.isError) return <PageProblem error={report.error} />;
  if (!report.data || !codebook) return <Waiting what="the report" />;
  const { origins, rows, checked } = report.data;
  return (
    <main className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-6 py-2.5">
        <Choice
          label="Across"
          value={choice.by}
          onChange={(event) => choose({ by: event.target.value })}
        >
          <option value="none">nothing: the total</option>
          <option value="question">the questions</option>
          {variables.map((variable) => (
            <option key={variable.id} value={variable.id}>
              {variable.name}
            </option>
          ))}
        </Choice>
        <Choice
          label="Percent of"
          value={choice.base}
          onChange={(event) => choose({ base: event.target.value })}
        >
          {Object.entries(baseNames).map(([base, name]) => (
            <option key={base} value={base}>
              {name}
            </option>
          ))}
        </Choice>
        {report.data.columns.length > 2 && choice.by !== 'question' && (
          <Choice
            label="Differences"
            value={choice.test}
            onChange={(event) => choose({ test: event.target.value })}
          >
            {Object.entries(testNames).map(([test, name]) => (
              <option key={test} value={test}>
                {name}
              </option>
            ))}
          </Choice>
        )}
        {study.weighted && (
          <label className="inline-flex items-center gap-2">
            <input
              type="checkbox"
              className="accent-ink"
              // ticks at once: the address, which says what is shown, follows a moment later
              defaultChecked={choice.weighted}
              onChange={(event) => choose({ weighted: String(event.target.checked) })}
            />
            weighted
          </label>
        )}
        <a
          href={reportCsvAddress(study.id, question.id, choice)}
          download
          className="ml-auto inline-flex items-center gap-1.5 rounded border border-rule bg-card px-3 py-1.5 font-medium hover:border-soft"
        >
          <Download size={15} aria-hidden /> Download CSV
        </a>
      </div>
      {rows.length === 0 ? (
        <EmptyState title="Nothing to count yet">
          <p>
            No settled answer mentions a code. Code some answers, then their figures stand here.
          </p>
          <Link to="../code" className="underline">
            Code some answers
          </Link>
        </EmptyState>
      ) : (
        <div className="min-h-0 flex-1 overflow-auto px-6 pb-8">
          <Cloth
            report={report.data}
            codebook={codebook}
            onCell={(row, column) =>
              openDrawer({
                title: `${row.name}: ${column.label}`,
                body: (
                  <AnswersBehind
                    key={row.id + column.key}
                    study={study.id}
                    question={question.id}
                    cell={{ kind: row.kind, id: row.id, by: choice.by, column: column.key }}
                    codebook={codebook}
                  />
                ),
              })
            }
          />
          <p className="mt-4 max-w-prose text-[13px] text-soft">
            People count once in a code and once in a theme. Counted are{' '}
            {counted(origins.hand, 'mention')} coded by hand,{' '}
            {counted(origins.accepted, 'suggestion')} accepted one by one and {origins.bulk}{' '}
            accepted in bulk
            {origins.import > 0 && `, ${asCount(origins.import)} came with a sheet`}
            {origins.words > 0 &&
              `, ${asCount(origins.words)} were coded by words looked for`}.{' '}
            {checked && <CheckedSentence checked={checked} />}
            {origins.waiting > 0 && <Waiters count={origins.waiting} />} {baseSentence[choice.base]}{' '}
            {report.data.columns.some((column) => column.letter !== null) &&
              testSentence[report.data.test]}{' '}
            Figures on fewer than 30 people are set in italics, on fewer than 10 in grey.
          </p>
        </div>
      )}
    </main>
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

/** Accepted mentions that would skew a percentage while the rest of their code is open. */
function Waiters({ count }: { count: number }) {
  return (
    <>
      {counted(count, 'mention')} on open answers {count === 1 ? 'is' : 'are'} not counted until{' '}
      <Link to="../review" className="underline">
        every suggestion of the code is decided
      </Link>
      .
    </>
  );
}

const baseSentence: Record<BaseKind, string> = {
  settled:
    'Percentages are out of people whose answer is settled; where every suggestion of a code is decided, out of all who answered, taking answers too unlikely to be suggested as not mentioning it.',
  answered:
    'Percentages are out of all who answered; while answers are open, they are what is known so far.',
  asked:
    'Percentages are out of all who were asked; while answers are open, they are what is known so far.',
};
