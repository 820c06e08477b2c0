import { lazy, Suspense, useEffect } from 'react';
import { Link } from 'react-router';
import { useAddressPart, useAddressWith } from '../frame/address.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Waiting } from '../parts/notices.js';
import { FilesMenu } from './filesMenu.js';
import { PutTableIn } from './putInWriteUp.js';
import { TableView } from './tableView.js';
import { TogetherView } from './togetherView.js';
import { reportStopTexts } from './texts.js';

/** Charts bring a library of their own: fetched once a table is there, so that nobody waits for them. */
const fetchCharts = () => import('./chartView.js');
const ChartView = lazy(async () => ({ default: (await fetchCharts()).ChartView }));

const views = [
  { key: 'table', name: reportStopTexts.table },
  { key: 'chart', name: reportStopTexts.charts },
  { key: 'together', name: reportStopTexts.codesTogether },
] as const;

/** The table's own figures come first. */
const SOON_MS = 1500;

/** What was found: the cloth, charts of it, and which codes occur together. */
export function ReportStop() {
  const { study, question } = useStudyLocation();
  const [asked] = useAddressPart('view');
  const view = views.find(({ key }) => key === asked)?.key ?? 'table';
  const addressWith = useAddressWith();
  useEffect(() => {
    const soon = window.setTimeout(() => void fetchCharts(), SOON_MS);
    return () => window.clearTimeout(soon);
  }, []);
  return (
    <main className="work-list flex flex-col">
      <nav
        aria-label={reportStopTexts.report}
        className="flex flex-wrap items-center gap-x-6 gap-y-1 border-b border-rule px-6 pt-1.5 max-sm:gap-x-4 max-sm:px-3"
      >
        {views.map(({ key, name }) => (
          <Link
            key={key}
            to={addressWith('view', key)}
            replace
            aria-current={view === key ? 'page' : undefined}
            className={`-mb-px border-b-2 py-1.5 ${view === key ? 'border-thread' : 'border-transparent text-soft hover:text-ink'}`}
          >
            {name}
          </Link>
        ))}
        <Link
          to={`/studies/${study.id}/write-ups`}
          className="-mb-px border-b-2 border-transparent py-1.5 text-soft hover:text-ink"
        >
          {reportStopTexts.writeUps}
        </Link>
        {view === 'table' && (
          <span className="ml-auto flex gap-2">
            <PutTableIn study={study} question={question} />
            <FilesMenu study={study} question={question.id} />
          </span>
        )}
      </nav>
      {view === 'table' && <TableView study={study} question={question} />}
      {view === 'chart' && (
        <Suspense fallback={<Waiting what={reportStopTexts.charts2} />}>
          <ChartView study={study} question={question} />
        </Suspense>
      )}
      {view === 'together' && <TogetherView key={question.id} study={study} question={question} />}
    </main>
  );
}
