import type { Question, Report, StudyDetail } from '@yellow-thread/contract';
import { fileNameOf } from '@yellow-thread/core/exchange';
import { baseInWords, mostMentioned, ruleNames } from '@yellow-thread/core/report';
import { Chart } from 'chart.js';
import { Copy, Download } from 'lucide-react';
import { useEffect, useMemo, useRef } from 'react';
import { toast } from 'sonner';
import { useDrawnCodebook, type DrawnCodebook } from '../data/codebook.js';
import { useReport } from '../data/report.js';
import { useAddressChoice } from '../frame/address.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { EmptyState, PageProblem, Waiting } from '../parts/notices.js';
import { chartFigures } from './chartFigures.js';
import { download } from '../lib/download.js';
import { chartAsPng, chartAsSvg } from './chartFiles.js';
import { CHART_KINDS, chartKinds, chartOf, type ChartKind } from './chartConfig.js';
import type { ChartPicture } from './chartFrame.js';
import { FEWEST_COLUMNS, mappedColumns } from './correspondenceMap.js';
import { PutInWriteUp } from './putInWriteUp.js';
import { useTableChoice } from './tableChoice.js';
import { TableChoices } from './tableChoices.js';
import { isEmptyTable } from './tableView.js';
import { chartViewTexts } from './chartTexts.js';

const sizes = ['10', '20', 'all'] as const;

/** Pictures of a table, each with its title and what it is out of, to be taken into a document. */
export function ChartView({ study, question }: { study: StudyDetail; question: Question }) {
  const [choice, change] = useTableChoice(study.variables);
  const [kind, setKind] = useAddressChoice('chart', CHART_KINDS);
  const [size, setSize] = useAddressChoice('rows-shown', sizes);
  // what a kind of chart cannot do without
  const query = new URLSearchParams(choice.query);
  if (kind === 'stacked') {
    query.set('base', 'mentions');
    // shares of mentions are counted, and of what is decided throughout
    if (!question.isFinished)
      query.set('counts', choice.counts === 'sample' ? 'sample' : 'settled');
    if (choice.rows === 'book') query.set('rows', 'themes');
  }
  const report = useReport(study.id, question.id, query.toString());
  const pair = pairOf(report.data, choice.difference);
  const withDifference = new URLSearchParams(query);
  if (pair) withDifference.set('difference', pair.join('-'));
  const compared = useReport(
    study.id,
    question.id,
    (kind === 'differences' && pair ? withDifference : query).toString(),
  );
  const codebook = useDrawnCodebook(study.id);
  const shown = kind === 'differences' ? compared : report;
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-6 py-2.5">
        <Choice
          label={chartViewTexts.chart}
          value={kind}
          onChange={(event) => setKind(event.target.value as ChartKind)}
        >
          {Object.entries(chartKinds).map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </Choice>
        <Choice
          label={chartViewTexts.ofThe}
          value={size}
          onChange={(event) => setSize(event.target.value as (typeof sizes)[number])}
        >
          <option value="10">{chartViewTexts.n10MostMentioned}</option>
          <option value="20">{chartViewTexts.n20MostMentioned}</option>
          <option value="all">{chartViewTexts.wholeTable}</option>
        </Choice>
        <TableChoices study={study} choice={choice} change={change} report={report.data} />
      </div>
      {shown.isError ? (
        <PageProblem error={shown.error} />
      ) : !shown.data || !codebook ? (
        <Waiting what={chartViewTexts.figures} />
      ) : isEmptyTable(shown.data) ? (
        <EmptyState title={chartViewTexts.nothingDrawYet}>
          <p>{chartViewTexts.codeSettleSomeAnswers}</p>
        </EmptyState>
      ) : kind === 'map' && mappedColumns(shown.data).length < FEWEST_COLUMNS ? (
        <EmptyState title={chartViewTexts.takesThreeColumns}>
          <p>{chartViewTexts.mapNeedsColumns}</p>
        </EmptyState>
      ) : (kind === 'slope' || kind === 'differences') && !pair ? (
        <EmptyState title={chartViewTexts.takesTwoColumns}>
          <p>{chartViewTexts.putGroupsWavesBackground}</p>
        </EmptyState>
      ) : (
        <Picture
          report={shown.data}
          kind={kind}
          size={size}
          pair={pair ?? [0, 0]}
          codebook={codebook}
          study={study}
          question={question}
        />
      )}
    </>
  );
}

/** The two columns that are set against each other: those chosen, or the first two that may be. */
function pairOf(report: Report | undefined, chosen: string | undefined): [number, number] | null {
  const places = (report?.columns ?? []).flatMap((column, place) =>
    column.rule && column.key !== 'missing' ? [place] : [],
  );
  const [one, other] = chosen?.split('-').map(Number) ?? places;
  return one !== undefined && other !== undefined && places.includes(one) && places.includes(other)
    ? [one, other]
    : null;
}

function Picture({
  report,
  kind,
  size,
  pair,
  codebook,
  study,
  question,
}: {
  report: Report;
  kind: ChartKind;
  size: (typeof sizes)[number];
  pair: [number, number];
  codebook: DrawnCodebook;
  study: StudyDetail;
  question: Question;
}) {
  const rows = useMemo(
    () =>
      (size === 'all' ? report.rows : mostMentioned(report.rows, Number(size))).map((row) =>
        row.isAtLeast ? { ...row, name: `${row.name} *` } : row,
      ),
    [report, size],
  );
  const picture = useMemo(() => {
    const names = pair.map((place) => report.columns[place]?.label).join(' minus ');
    return chartOf({
      kind,
      report,
      rows,
      codebook,
      pair,
      title: kind === 'differences' ? `${question.wording} – ${names}` : question.wording,
      caption: [
        study.name,
        `${ruleNames[report.counts]}: ${baseNote(report)}`,
        report.rows.some((row) => row.isAtLeast) ? chartViewTexts.rowsLeastMany : '',
        report.weighted ? 'weighted' : '',
        kind === 'bars' || kind === 'differences'
          ? chartViewTexts.intervals(Math.round(100 * report.level))
          : '',
        today(),
      ]
        .filter(Boolean)
        .join(' · '),
    });
  }, [report, rows, kind, pair, codebook, study, question]);
  const fileName = (extension: string) =>
    fileNameOf([study.name, 'chart', question.label, kind], today(), extension);
  const summary = chartViewTexts.rows(
    chartKinds[kind],
    rows.length,
    report.columns.map(({ label }) => label).join(', '),
  );
  return (
    <div className="list overflow-x-auto px-6 py-4 max-sm:px-3">
      <div className="mb-3 flex gap-2">
        <Button
          onClick={() => void chartAsPng(picture).then((blob) => download(blob, fileName('png')))}
        >
          <Download size={15} aria-hidden /> {chartViewTexts.png}
        </Button>
        <Button
          onClick={() => void chartAsSvg(picture).then((blob) => download(blob, fileName('svg')))}
        >
          <Download size={15} aria-hidden /> {chartViewTexts.svg}
        </Button>
        <Button onClick={() => void copyPicture(picture)}>
          <Copy size={15} aria-hidden /> {chartViewTexts.copy}
        </Button>
        <PutInWriteUp
          study={study}
          question={question}
          name={chartViewTexts.chart2}
          what={async () => ({
            picture: {
              alt: summary,
              width: picture.width,
              height: picture.height,
              figures: chartFigures(kind, report, rows, pair),
            },
            png: await chartAsPng(picture),
          })}
        />
      </div>
      <Drawing picture={picture} label={summary} />
    </div>
  );
}

const today = () => new Date().toISOString().slice(0, 10);

/** What a chart's percentages are out of. */
function baseNote({ counts, base, columns: [first] }: Report): string {
  const { counted = 0, answered = 0 } = first ?? {};
  if (counts === 'estimated') return chartViewTexts.shareAllWhoAnswered(answered, counted);
  const of = chartViewTexts.percent(baseInWords[base]);
  return base === 'mentions' ? of : chartViewTexts.of(of, counted, answered);
}

async function copyPicture(picture: ChartPicture) {
  try {
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': chartAsPng(picture) })]);
    toast(chartViewTexts.copiedPicture);
  } catch {
    toast(chartViewTexts.browserLetPageCopy);
  }
}

function Drawing({ picture, label }: { picture: ChartPicture; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { config, width, height } = picture;
  useEffect(() => {
    let chart: Chart | null = null;
    let gone = false;
    // measured and drawn in the app's own face, or labels would be cut
    void document.fonts.load("13px 'Figtree Variable'").then(() => {
      if (!gone && canvas.current) chart = new Chart(canvas.current, config);
    });
    return () => {
      gone = true;
      chart?.destroy();
    };
  }, [config]);
  return (
    <div
      className="inline-block border border-rule"
      style={{ width: width + 2, height: height + 2 }}
    >
      <canvas
        key={`${width}x${height}`}
        ref={canvas}
        role="img"
        aria-label={label}
        width={width}
        height={height}
      />
    </div>
  );
}
