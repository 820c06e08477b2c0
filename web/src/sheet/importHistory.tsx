import type { ImportRecord } from '@yellow-thread/contract';
import { useState } from 'react';
import { AlertDialog } from 'radix-ui';
import {
  useImports,
  useJob,
  useRestoreImport,
  useUndoImport,
  useWhatUndoTakes,
} from '../data/sheets.js';
import { useDrawer } from '../frame/drawer.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { roleNames } from './roles.js';
import { asSize } from '../lib/numbers.js';
import { importHistoryTexts } from './texts.js';

/** Everything that was ever imported, and the way back from it. */
export function ImportHistory({ study }: { study: number }) {
  const { data } = useImports(study);
  if (!data || data.imports.length === 0) return null;
  return (
    <section aria-labelledby="history">
      <h2 id="history">{importHistoryTexts.sheetsStudy}</h2>
      <ul className="mt-2">
        {data.imports.map((one) => (
          <OneImport key={one.id} study={study} one={one} />
        ))}
      </ul>
    </section>
  );
}

const whatCameIn = (one: ImportRecord) =>
  [
    one.respondents > 0 && importHistoryTexts.respondentCounted(one.respondents),
    one.changedPeople > 0 && importHistoryTexts.background(one.changedPeople),
    one.changedTexts > 0 && `${importHistoryTexts.textCounted(one.changedTexts)} corrected`,
    one.wave && importHistoryTexts.wave(one.wave),
  ]
    .filter(Boolean)
    .join(', ') || importHistoryTexts.nothingNew;

function OneImport({ study, one }: { study: number; one: ImportRecord }) {
  const openDrawer = useDrawer();
  return (
    <li className="flex items-center justify-between gap-4 border-b border-rule py-2">
      <span className={one.undone ? 'text-soft line-through' : ''}>
        <button
          type="button"
          className="font-medium underline"
          onClick={() => openDrawer({ title: one.fileName, body: <ImportDetails one={one} /> })}
        >
          {one.fileName}
        </button>
        <span className="text-soft">{importHistoryTexts.by(whatCameIn(one), one.by, one.at)}</span>
      </span>
      {one.undone ? (
        <Restore study={study} one={one} undone={one.undone} />
      ) : (
        <TakeBack study={study} one={one} />
      )}
    </li>
  );
}

function ImportDetails({ one }: { one: ImportRecord }) {
  return (
    <div className="flex flex-col gap-4">
      <dl className="grid grid-cols-[max-content_1fr] gap-x-4 gap-y-1">
        <dt className="text-soft">{importHistoryTexts.size}</dt>
        <dd>{asSize(one.size)}</dd>
        <dt className="text-soft">{importHistoryTexts.sha256}</dt>
        <dd className="figures text-[12px] [overflow-wrap:anywhere]">{one.checksum}</dd>
        <dt className="text-soft">{importHistoryTexts.came}</dt>
        <dd>{whatCameIn(one)}</dd>
      </dl>
      {one.decisions.length > 0 && (
        <section>
          <h3 className="font-semibold">{importHistoryTexts.decided}</h3>
          <ul className="list-disc pl-5">
            {one.decisions.map((decision) => (
              <li key={decision}>{decision}</li>
            ))}
          </ul>
        </section>
      )}
      {one.findings.length > 0 && (
        <section>
          <h3 className="font-semibold">{importHistoryTexts.found}</h3>
          <ul className="list-disc pl-5">
            {one.findings.map((finding) => (
              <li key={finding.sentence}>
                {finding.sentence}
                {finding.count > 0 && (
                  <span className="figures text-soft">
                    {' '}
                    {importHistoryTexts.rowCounted(finding.count)}
                  </span>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      <section>
        <h3 className="font-semibold">{importHistoryTexts.columns}</h3>
        <dl className="grid grid-cols-[1fr_max-content] gap-x-4">
          {one.roles.map(({ column, role }) => (
            <div key={column} className="contents">
              <dt className="border-b border-rule py-1 [overflow-wrap:anywhere]">{column}</dt>
              <dd className="border-b border-rule py-1 text-soft">
                {roleNames[role as keyof typeof roleNames] ?? role}
              </dd>
            </div>
          ))}
        </dl>
      </section>
    </div>
  );
}

function Restore({
  study,
  one,
  undone,
}: {
  study: number;
  one: ImportRecord;
  undone: NonNullable<ImportRecord['undone']>;
}) {
  const restore = useRestoreImport(study, one.id);
  const { job, underWay } = useJob(study, restore.data?.id ?? null);
  const isKept = new Date(undone.until) > new Date();
  return (
    <span className="flex shrink-0 items-baseline gap-3 text-soft">
      {importHistoryTexts.undone(undone.by, undone.at)}
      {isKept && (
        <Button
          look="bare"
          disabled={underWay}
          aria-label={importHistoryTexts.restore2(one.fileName)}
          title={importHistoryTexts.keptUntil(undone.until)}
          onClick={() => restore.mutate()}
        >
          {underWay ? importHistoryTexts.restoring : importHistoryTexts.restore}
        </Button>
      )}
      {(restore.error || job?.problem) && <ProblemNote error={restore.error ?? job?.problem} />}
    </span>
  );
}

/** Takes an import back after saying what would go with it. */
function TakeBack({ study, one }: { study: number; one: ImportRecord }) {
  const [open, setOpen] = useState(false);
  const takes = useWhatUndoTakes(study, one.id, open);
  const undo = useUndoImport(study, one.id);
  const { job, underWay } = useJob(study, undo.data?.id ?? null);
  const counts = takes.data && [
    importHistoryTexts.respondentCounted(takes.data.respondents),
    importHistoryTexts.responseCounted(takes.data.responses),
    takes.data.settled > 0 && importHistoryTexts.settledAnswerCounted(takes.data.settled),
    takes.data.mentions > 0 && importHistoryTexts.madeSince(takes.data.mentions),
    takes.data.suggestions > 0 && importHistoryTexts.suggestionCounted(takes.data.suggestions),
    takes.data.codedTwice > 0 &&
      importHistoryTexts.answersSecondReadingsCounted(takes.data.codedTwice),
    ...takes.data.questions.map((question) => importHistoryTexts.question(question)),
    ...takes.data.variables.map((variable) => importHistoryTexts.variable(variable)),
  ];
  const coded = (takes.data?.settled ?? 0) + (takes.data?.mentions ?? 0) > 0;
  return (
    <AlertDialog.Root open={open} onOpenChange={setOpen}>
      <AlertDialog.Trigger asChild>
        <Button
          look="bare"
          disabled={underWay}
          aria-label={importHistoryTexts.takeBack(one.fileName)}
        >
          {underWay ? importHistoryTexts.undoing : importHistoryTexts.undoImport}
        </Button>
      </AlertDialog.Trigger>
      {(undo.error || job?.problem) && <ProblemNote error={undo.error ?? job?.problem} />}
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-30 bg-[#23211c33]" />
        <AlertDialog.Content className="fixed left-1/2 top-1/4 z-30 flex w-[520px] max-w-[90vw] -translate-x-1/2 flex-col gap-4 rounded border border-rule bg-card px-6 py-5">
          <AlertDialog.Title className="text-[17px] font-semibold">
            {importHistoryTexts.undoImport2(one.fileName)}
          </AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div>
              {takes.error && <ProblemNote error={takes.error} />}
              {counts && (
                <>
                  <p>
                    {coded
                      ? importHistoryTexts.peopleWorkedWhatCame
                      : importHistoryTexts.nothingCodedWhatWould}
                  </p>
                  <ul className="figures mt-1 list-disc pl-5">
                    {counts.filter(Boolean).map((line) => (
                      <li key={String(line)}>{line}</li>
                    ))}
                  </ul>
                  {takes.data.restored > 0 && (
                    <p className="mt-2">
                      {importHistoryTexts.textsGetBackWhat(takes.data.restored)}
                    </p>
                  )}
                  <p className="mt-2">{importHistoryTexts.thirtyDaysCanRestored}</p>
                </>
              )}
            </div>
          </AlertDialog.Description>
          <span className="flex gap-3">
            <AlertDialog.Action asChild>
              <Button look="grave" disabled={!takes.data} onClick={() => undo.mutate()}>
                {importHistoryTexts.undoImport3}
              </Button>
            </AlertDialog.Action>
            <AlertDialog.Cancel asChild>
              <Button look="main">{importHistoryTexts.keep}</Button>
            </AlertDialog.Cancel>
          </span>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
