import type { ReadySheet, Sheet, SheetSettings, StudyDetail } from '@yellow-thread/contract';
import { useDeferredValue, useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import {
  isUnderWay,
  useCancelJob,
  useForgetSheet,
  useImportSheet,
  useJob,
  useLeaveSheet,
  useSheet,
  useSheetCheck,
  useSheetDifference,
} from '../data/sheets.js';
import { Button } from '../parts/button.js';
import { PageProblem, ProblemNote, Waiting } from '../parts/notices.js';
import { asSize } from '../lib/numbers.js';
import { ProgressLine } from '../parts/progressLine.js';
import { ColumnTable } from './columnTable.js';
import { Difference } from './difference.js';
import { FileReading } from './fileReading.js';
import { Findings } from './findings.js';
import { NoAnswers } from './noAnswers.js';
import { RowsPreview } from './rowsPreview.js';
import { RowsAre } from './rowsAre.js';
import { WhatComesIn } from './whatComesIn.js';
import { sheetPageTexts } from './texts.js';

/** A sheet between its upload and its import: first it is read, then it is decided upon. */
export function SheetPage({ study, id }: { study: StudyDetail; id: number }) {
  const sheet = useSheet(study.id, id);
  if (sheet.isError) return <PageProblem error={sheet.error} />;
  if (!sheet.data) return <Waiting what={sheetPageTexts.sheet} />;
  const { ready } = sheet.data;
  return ready ? (
    // read again, the columns are others and what was decided about them is void
    <Decide key={JSON.stringify(ready.file)} study={study} sheet={sheet.data} ready={ready} />
  ) : (
    <Reading study={study.id} sheet={sheet.data} />
  );
}

function Reading({ study, sheet }: { study: number; sheet: Sheet }) {
  const cancel = useCancelJob(study);
  const leave = useLeaveSheet(study);
  const navigate = useNavigate();
  const { reading } = sheet;
  const goBack = () =>
    leave.mutate(sheet.id, { onSettled: () => void navigate(`/studies/${study}/import`) });
  return (
    <section aria-label={sheetPageTexts.readingSheet} className="flex max-w-prose flex-col gap-4">
      <h1>{sheet.fileName}</h1>
      <p className="text-soft">{asSize(sheet.size)}</p>
      {isUnderWay(reading) && reading ? (
        <span className="flex items-center gap-4">
          <ProgressLine
            label={sheetPageTexts.readingSheet}
            share={reading.progress && reading.progress.done / reading.progress.of}
          />
          <Button onClick={() => cancel.mutate(reading.id)}>{sheetPageTexts.cancel}</Button>
        </span>
      ) : (
        <>
          <p role="alert" className="text-brick">
            {reading?.problem?.sentence ?? sheetPageTexts.readingCalledOff}
          </p>
          <Button look="main" className="self-start" onClick={goBack}>
            {sheetPageTexts.chooseAnotherFile}
          </Button>
        </>
      )}
    </section>
  );
}

function Decide({ study, sheet, ready }: { study: StudyDetail; sheet: Sheet; ready: ReadySheet }) {
  const [settings, setSettings] = useState(ready.settings);
  const change = (part: Partial<SheetSettings>) => setSettings((now) => ({ ...now, ...part }));
  // a table of two hundred columns is drawn first, then the check is asked for
  const settled = useDeferredValue(settings);
  const check = useSheetCheck(study.id, sheet.id, settled);
  const stops = check.data?.findings.some((finding) => finding.kind === 'stop') ?? true;
  const difference = useSheetDifference(study.id, sheet.id, settled, !stops && !check.isFetching);
  const bringIn = useImportSheet(study.id, sheet.id);
  const leave = useLeaveSheet(study.id);
  const navigate = useNavigate();
  const { job, underWay, cancel } = useJob(study.id, bringIn.data?.id ?? null);
  const goBack = () => void navigate(`/studies/${study.id}/import`);
  const forget = useForgetSheet(study.id);
  const isIn = job?.state === 'done';
  useEffect(() => {
    if (isIn) forget(sheet.id);
  });
  if (isIn) return <BroughtInNow sheet={sheet} onLeave={goBack} />;
  const busy = check.isFetching || settled !== settings || difference.isFetching;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_288px] items-start gap-6 max-[760px]:grid-cols-1 xl:grid-cols-[minmax(0,1fr)_332px] xl:gap-8">
      <div className="flex min-w-0 flex-col gap-8">
        <section aria-labelledby="columns" className="min-w-0">
          <h1 id="columns">{sheet.fileName}</h1>
          <p className="text-soft">
            {sheetPageTexts.columnCounted(ready.columns.length)},{' '}
            {sheetPageTexts.rowCounted(ready.rows)}, {asSize(sheet.size)}
          </p>
          <FileReading study={study.id} sheet={sheet.id} file={ready.file} />
          {study.allRespondents > 0 && <RowsAre settings={settings} change={change} />}
          <ColumnTable study={study} ready={ready} settings={settings} change={change} />
        </section>
        {check.data && settings.as !== 'details' && (
          <NoAnswers check={check.data} settings={settings} change={change} />
        )}
        {check.data && <RowsPreview check={check.data} />}
      </div>
      <aside
        aria-label={sheetPageTexts.whatWillImported}
        className="sticky top-0 -m-1 flex max-h-[calc(100vh-3rem)] min-w-0 flex-col gap-4 overflow-y-auto p-1 max-[760px]:static max-[760px]:order-first max-[760px]:m-0 max-[760px]:max-h-none"
      >
        {check.error && <ProblemNote error={check.error} />}
        <div className="flex flex-wrap items-center gap-3">
          <Button
            look="main"
            disabled={stops || busy || underWay || bringIn.isPending}
            onClick={() => bringIn.mutate(settings)}
          >
            {underWay ? sheetPageTexts.importing : sheetPageTexts.import}
          </Button>
          {underWay ? (
            <Button onClick={cancel}>{sheetPageTexts.cancel}</Button>
          ) : (
            <Button onClick={() => leave.mutate(sheet.id, { onSettled: goBack })}>
              {sheetPageTexts.cancel}
            </Button>
          )}
          <span role="status" className="text-soft">
            {busy && !underWay ? sheetPageTexts.counting : ''}
          </span>
        </div>
        {underWay && (
          <ProgressLine
            label={sheetPageTexts.importing2}
            share={job?.progress ? job.progress.done / job.progress.of : null}
          />
        )}
        {bringIn.error && <ProblemNote error={bringIn.error} />}
        {job?.problem && (
          <p role="alert" className="text-brick">
            {job.problem.sentence}
          </p>
        )}
        {settings.as !== 'respondents' && difference.error && (
          <ProblemNote error={difference.error} />
        )}
        {check.data && <Findings check={check.data} settings={settings} change={change} />}
        {settings.as !== 'respondents' && !stops && difference.data && (
          <Difference
            study={study.id}
            sheet={sheet.id}
            difference={difference.data}
            settings={settings}
            change={change}
          />
        )}
        {check.data && <WhatComesIn check={check.data} as={settings.as} />}
      </aside>
    </div>
  );
}

function BroughtInNow({ sheet, onLeave }: { sheet: Sheet; onLeave: () => void }) {
  return (
    <div className="flex max-w-prose flex-col items-start gap-4">
      <h1 role="status">{sheetPageTexts.isIn(sheet.fileName)}</h1>
      <p>{sheetPageTexts.lookWhatCameFirst}</p>
      <Button look="main" onClick={onLeave} autoFocus>
        {sheetPageTexts.seeWhatImported}
      </Button>
    </div>
  );
}
