import { useState } from 'react';
import { Link } from 'react-router';
import type { Sheet, StudyDetail } from '@yellow-thread/contract';
import { useUploadSheet } from '../data/sheets.js';
import { stopPath, useStudyPlace } from '../frame/place.js';
import { ProblemNote } from '../parts/notices.js';
import { asDate, counted } from '../parts/numbers.js';
import { SheetRoles } from './sheetRoles.js';

/** Brings a sheet in, and shows what was brought in so far. */
export function ImportStop() {
  const study = useStudyPlace();
  const upload = useUploadSheet(study.id);
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const choose = (file: File | undefined) => {
    if (file) upload.mutate(file, { onSuccess: setSheet });
  };
  return (
    <main className="min-h-0 flex-1 overflow-y-auto px-8 py-6">
      <header className="mb-6 max-w-prose">
        <h1>{study.name}</h1>
        {study.purpose && <p className="mt-1 text-soft">{study.purpose}</p>}
      </header>
      {sheet ? (
        <SheetRoles key={sheet.id} study={study.id} sheet={sheet} onLeave={() => setSheet(null)} />
      ) : (
        <div className="flex max-w-4xl flex-col gap-8">
          {study.respondents > 0 && <BroughtIn study={study} />}
          <label
            className="flex flex-col items-center gap-2 rounded border-2 border-dashed border-soft bg-card px-8 py-12 text-center focus-within:border-thread hover:border-thread"
            onDragOver={(event) => event.preventDefault()}
            onDrop={(event) => {
              event.preventDefault();
              choose(event.dataTransfer.files[0]);
            }}
          >
            <span className="text-[17px] font-semibold">
              {study.respondents === 0 ? 'Bring in a sheet' : 'Bring in another sheet'}
            </span>
            <span className="text-soft">
              Drop the file that your survey service exported, or choose it. CSV or XLSX, one row a
              respondent, up to 50 MB. Nothing is written until you have seen what it holds.
            </span>
            <input
              type="file"
              accept=".csv,.tsv,.txt,.xlsx"
              className="peer sr-only"
              disabled={upload.isPending}
              onChange={(event) => choose(event.target.files?.[0])}
            />
            <span
              role="status"
              className="mt-2 cursor-pointer rounded border border-ink bg-ink px-3 py-1.5 font-medium text-paper peer-focus-visible:outline-2 peer-focus-visible:outline-offset-2 peer-focus-visible:outline-thread"
            >
              {upload.isPending ? 'Reading the sheet …' : 'Choose a file'}
            </span>
          </label>
          {upload.error && <ProblemNote error={upload.error} />}
        </div>
      )}
    </main>
  );
}

function BroughtIn({ study }: { study: StudyDetail }) {
  return (
    <section aria-labelledby="brought-in">
      <h2 id="brought-in">Brought in</h2>
      <p className="mt-1">
        <Link
          to={stopPath(study.id, 'look', study.questions[0]?.id)}
          className="float-right underline"
        >
          Have a first look
        </Link>
        {counted(study.respondents, 'respondent')},{' '}
        {counted(study.questions.length, 'open question')},{' '}
        {counted(study.variables.length, 'background variable')}
        {study.weighted ? ', weighted' : ''}.
      </p>
      <table className="mt-3 w-full">
        <thead className="border-b border-rule text-left text-soft">
          <tr>
            <th className="py-1.5 pr-4 font-normal">Question</th>
            <th className="py-1.5 pl-4 text-right font-normal">asked</th>
            <th className="py-1.5 pl-4 text-right font-normal">answered</th>
            <th className="py-1.5 pl-4 text-right font-normal">no answer</th>
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
              <td className="figures py-2 pl-4 text-right">{question.asked}</td>
              <td className="figures py-2 pl-4 text-right">{question.answered}</td>
              <td className="figures py-2 pl-4 text-right">{question.asked - question.answered}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <ul className="mt-3 text-soft">
        {study.imports.map((one) => (
          <li key={one.id}>
            {one.fileName}: {counted(one.respondents, 'respondent')}, by {one.by}, {asDate(one.at)}
          </li>
        ))}
      </ul>
    </section>
  );
}
