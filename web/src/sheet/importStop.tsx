import { useRef, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { StudyDetail } from '@yellow-thread/contract';
import { useLeaveSheet, useSheets, useUploadSheet } from '../data/sheets.js';
import { stopPath, useStudyDetail } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { ProgressLine } from '../parts/progressLine.js';
import { Wide } from '../parts/wide.js';
import { MeaningProgress } from '../studyParts/meaningProgress.js';
import { ImportHistory } from './importHistory.js';
import { SheetPage } from './sheetPage.js';
import { asCount, asDate, asSize } from '../lib/numbers.js';
import { importStopTexts } from './texts.js';

/** Brings a sheet in, and shows what was imported so far. */
export function ImportStop() {
  const study = useStudyDetail();
  const sheet = Number(useParams()['sheet']) || null;
  return (
    <main className="work px-8 py-6 max-sm:px-4">
      {sheet ? (
        <SheetPage key={sheet} study={study} id={sheet} />
      ) : (
        <>
          <header className="mb-6 max-w-prose">
            <h1>{study.name}</h1>
            {study.purpose && <p className="mt-1 text-soft">{study.purpose}</p>}
          </header>
          <div className="flex max-w-4xl flex-col gap-8">
            {study.allRespondents > 0 && <BroughtIn study={study} />}
            {study.allRespondents > 0 && <MeaningProgress study={study.id} />}
            <PendingSheets study={study} />
            <DropFile study={study} />
            <ImportHistory study={study.id} />
          </div>
        </>
      )}
    </main>
  );
}

/** Where a file is dropped or chosen, and how far it is. */
function DropFile({ study }: { study: StudyDetail }) {
  const upload = useUploadSheet(study.id);
  const navigate = useNavigate();
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const choose = (file: File | undefined) => {
    if (!file || upload.isPending) return;
    upload.mutate(file, {
      onSuccess: (sheet) => {
        if (sheet) void navigate(`/studies/${study.id}/import/${sheet.id}`);
      },
    });
  };
  return (
    <section aria-label={importStopTexts.importSheet} className="flex flex-col gap-3">
      <div
        className={`flex flex-col items-center gap-2 rounded border-2 border-dashed bg-card px-8 py-10 text-center ${over ? 'border-thread' : 'border-soft'}`}
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          choose(event.dataTransfer.files[0]);
        }}
      >
        <span className="text-[17px] font-semibold">
          {study.allRespondents === 0
            ? importStopTexts.importSheet
            : importStopTexts.importAnotherSheet}
        </span>
        <span className="max-w-prose text-soft">
          {study.allRespondents === 0
            ? importStopTexts.dropFileYourSurvey
            : importStopTexts.moreRespondentsMoreAbout}
        </span>
        <input
          ref={input}
          type="file"
          aria-label={importStopTexts.sheetsFile}
          tabIndex={-1}
          accept=".csv,.tsv,.tab,.txt,.xlsx,.xlsm,.ods,.jsonl,.ndjson,.json"
          className="sr-only"
          onChange={(event) => {
            choose(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        {upload.isPending ? (
          <span className="mt-2 flex w-80 items-center gap-3">
            <ProgressLine label={importStopTexts.sendingFile} share={upload.share} />
            <Button onClick={upload.cancel}>{importStopTexts.cancel}</Button>
          </span>
        ) : (
          <Button look="main" className="mt-2" onClick={() => input.current?.click()}>
            {importStopTexts.chooseFile}
          </Button>
        )}
      </div>
      {upload.error && <ProblemNote error={upload.error} />}
    </section>
  );
}

/** Sheets that were uploaded and neither imported nor left. */
function PendingSheets({ study }: { study: StudyDetail }) {
  const { data } = useSheets(study.id);
  const leave = useLeaveSheet(study.id);
  if (!data || data.sheets.length === 0) return null;
  return (
    <section aria-labelledby="pending">
      <h2 id="pending">{importStopTexts.importedYet}</h2>
      <ul className="mt-2">
        {data.sheets.map((sheet) => (
          <li
            key={sheet.id}
            className="flex items-center justify-between gap-4 border-b border-rule py-2"
          >
            <span>
              <Link
                to={`/studies/${study.id}/import/${sheet.id}`}
                className="font-medium underline"
              >
                {sheet.fileName}
              </Link>
              <span className="text-soft">
                {' '}
                {asSize(sheet.size)}, {asDate(sheet.uploadedAt)}
              </span>
            </span>
            <Button
              look="bare"
              aria-label={importStopTexts.leave(sheet.fileName)}
              onClick={() => leave.mutate(sheet.id)}
            >
              {importStopTexts.cancel}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function BroughtIn({ study }: { study: StudyDetail }) {
  return (
    <section aria-labelledby="brought-in">
      <h2 id="brought-in">{importStopTexts.imported}</h2>
      <p className="mt-1">
        <Link
          to={stopPath(study.id, 'look', study.questions[0]?.id)}
          className="float-right underline"
        >
          {importStopTexts.firstLook}
        </Link>
        <Link to={`/studies/${study.id}/respondents`} className="underline">
          {importStopTexts.respondentCounted(study.allRespondents)}
        </Link>
        , {importStopTexts.openQuestionCounted(study.questions.length)},{' '}
        {importStopTexts.backgroundVariableCounted(study.variables.length)}
        {study.weighted ? importStopTexts.weighted : ''}.
      </p>
      <Wide label={importStopTexts.whatImported}>
        <table className="mt-3 w-full">
          <thead className="border-b border-rule text-left text-soft">
            <tr>
              <th className="py-1.5 pr-4 font-normal">{importStopTexts.question}</th>
              <th className="py-1.5 pl-4 text-right font-normal">{importStopTexts.asked}</th>
              <th className="py-1.5 pl-4 text-right font-normal">{importStopTexts.answered}</th>
              <th className="py-1.5 pl-4 text-right font-normal">{importStopTexts.noAnswer}</th>
            </tr>
          </thead>
          <tbody>
            {study.questions.map((question) => (
              <tr key={question.id} className="border-b border-rule">
                <td className="py-2 pr-4">
                  <Link
                    to={stopPath(study.id, 'code', question.id)}
                    className="font-serif text-[16px] hover:underline"
                  >
                    {question.wording}
                  </Link>
                </td>
                <td className="figures py-2 pl-4 text-right">{asCount(question.asked)}</td>
                <td className="figures py-2 pl-4 text-right">{asCount(question.answered)}</td>
                <td className="figures py-2 pl-4 text-right">
                  {asCount(question.asked - question.answered)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </section>
  );
}
