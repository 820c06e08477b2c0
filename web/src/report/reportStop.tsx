import { lazy, Suspense, useEffect } from 'react';
import { useStudyLocation } from '../frame/studyLocation.js';
import { TabLink, useView, ViewTabs } from '../frame/viewTabs.js';
import { Waiting } from '../parts/notices.js';
import { FilesMenu } from './filesMenu.js';
import { PutTableIn } from './putInWriteUp.js';
import { TableView } from './tableView.js';
import { TogetherView } from './togetherView.js';
import { reportStopTexts } from './texts.js';
import { ToneView } from './toneView.js';

/** Charts bring a library of their own: fetched once a table is there, so that nobody waits for them. */
const fetchCharts = () => import('./chartView.js');
const ChartView = lazy(async () => ({ default: (await fetchCharts()).ChartView }));

const views = [
  { key: 'table', name: reportStopTexts.table },
  { key: 'chart', name: reportStopTexts.charts },
  { key: 'together', name: reportStopTexts.codesTogether },
  { key: 'tone', name: reportStopTexts.tone },
] as const;

/** The table's own figures come first. */
const SOON_MS = 1500;

/** What was found: the cloth, charts of it, and which codes occur together. */
export function ReportStop() {
  const { study, question } = useStudyLocation();
  const view = useView(views);
  useEffect(() => {
    const soon = window.setTimeout(() => void fetchCharts(), SOON_MS);
    return () => window.clearTimeout(soon);
  }, []);
  return (
    <main className="work-list flex flex-col">
      <ViewTabs label={reportStopTexts.report} views={views} view={view}>
        <TabLink to={`/studies/${study.id}/write-ups`}>{reportStopTexts.writeUps}</TabLink>
        {view === 'table' && (
          <span className="ml-auto flex gap-2">
            <PutTableIn study={study} question={question} />
            <FilesMenu study={study} question={question.id} />
          </span>
        )}
      </ViewTabs>
      {view === 'table' && <TableView study={study} question={question} />}
      {view === 'chart' && (
        <Suspense fallback={<Waiting what={reportStopTexts.charts2} />}>
          <ChartView study={study} question={question} />
        </Suspense>
      )}
      {view === 'tone' && <ToneView key={question.id} study={study} question={question} />}
      {view === 'together' && <TogetherView key={question.id} study={study} question={question} />}
    </main>
  );
}
