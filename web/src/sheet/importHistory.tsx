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
import { asCount, asDate, asSize, counted } from '../parts/numbers.js';
import { roleNames } from './roles.js';

/** Everything that was ever brought in, and the way back from it. */
export function ImportHistory({ study }: { study: number }) {
  const { data } = useImports(study);
  if (!data || data.imports.length === 0) return null;
  return (
    <section aria-labelledby="history">
      <h2 id="history">Sheets of this study</h2>
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
    one.respondents > 0 && counted(one.respondents, 'respondent'),
    one.changedPeople > 0 && `background of ${asCount(one.changedPeople)}`,
    one.changedTexts > 0 && `${counted(one.changedTexts, 'text')} corrected`,
    one.wave && `wave “${one.wave}”`,
  ]
    .filter(Boolean)
    .join(', ') || 'nothing new';

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
        <span className="text-soft">
          {' '}
          {whatCameIn(one)}; by {one.by}, {asDate(one.at)}
        </span>
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
        <dt className="text-soft">size</dt>
        <dd>{asSize(one.size)}</dd>
        <dt className="text-soft">SHA-256</dt>
        <dd className="figures text-[12px] [overflow-wrap:anywhere]">{one.checksum}</dd>
        <dt className="text-soft">came in</dt>
        <dd>{whatCameIn(one)}</dd>
      </dl>
      {one.decisions.length > 0 && (
        <section>
          <h3 className="font-semibold">Decided</h3>
          <ul className="list-disc pl-5">
            {one.decisions.map((decision) => (
              <li key={decision}>{decision}</li>
            ))}
          </ul>
        </section>
      )}
      {one.findings.length > 0 && (
        <section>
          <h3 className="font-semibold">Found</h3>
          <ul className="list-disc pl-5">
            {one.findings.map((finding) => (
              <li key={finding.sentence}>
                {finding.sentence}
                {finding.count > 0 && (
                  <span className="figures text-soft"> {counted(finding.count, 'row')}</span>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      <section>
        <h3 className="font-semibold">Columns</h3>
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
      undone by {undone.by}, {asDate(undone.at)}
      {isKept && (
        <Button
          look="bare"
          disabled={underWay}
          aria-label={`Restore ${one.fileName}`}
          title={`Kept until ${asDate(undone.until)}`}
          onClick={() => restore.mutate()}
        >
          {underWay ? 'Restoring …' : 'Restore'}
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
    counted(takes.data.respondents, 'respondent'),
    counted(takes.data.responses, 'response'),
    takes.data.settled > 0 && counted(takes.data.settled, 'settled answer'),
    takes.data.mentions > 0 && `${counted(takes.data.mentions, 'mention')} made since`,
    takes.data.suggestions > 0 && counted(takes.data.suggestions, 'suggestion'),
    takes.data.codedTwice > 0 &&
      counted(takes.data.codedTwice, 'answer of a second reading', 'answers of second readings'),
    ...takes.data.questions.map((question) => `the question “${question}”`),
    ...takes.data.variables.map((variable) => `the variable “${variable}”`),
  ];
  const coded = (takes.data?.settled ?? 0) + (takes.data?.mentions ?? 0) > 0;
  return (
    <AlertDialog.Root open={open} onOpenChange={setOpen}>
      <AlertDialog.Trigger asChild>
        <Button look="bare" disabled={underWay} aria-label={`Take ${one.fileName} back`}>
          {underWay ? 'Undoing …' : 'Undo import'}
        </Button>
      </AlertDialog.Trigger>
      {(undo.error || job?.problem) && <ProblemNote error={undo.error ?? job?.problem} />}
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-30 bg-[#23211c33]" />
        <AlertDialog.Content className="fixed left-1/2 top-1/4 z-30 flex w-[520px] max-w-[90vw] -translate-x-1/2 flex-col gap-4 rounded border border-rule bg-card px-6 py-5">
          <AlertDialog.Title className="text-[17px] font-semibold">
            Undo the import of {one.fileName}?
          </AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div>
              {takes.error && <ProblemNote error={takes.error} />}
              {counts && (
                <>
                  <p>
                    {coded
                      ? 'People have worked on what came in. With it would go:'
                      : 'Nothing was coded on it. What would go:'}
                  </p>
                  <ul className="figures mt-1 list-disc pl-5">
                    {counts.filter(Boolean).map((line) => (
                      <li key={String(line)}>{line}</li>
                    ))}
                  </ul>
                  {takes.data.restored > 0 && (
                    <p className="mt-2">
                      {counted(takes.data.restored, 'value')} or texts get back what they were
                      before.
                    </p>
                  )}
                  <p className="mt-2">For thirty days it can be restored with all of that.</p>
                </>
              )}
            </div>
          </AlertDialog.Description>
          <span className="flex gap-3">
            <AlertDialog.Action asChild>
              <Button look="grave" disabled={!takes.data} onClick={() => undo.mutate()}>
                Undo the import
              </Button>
            </AlertDialog.Action>
            <AlertDialog.Cancel asChild>
              <Button look="main">Keep it</Button>
            </AlertDialog.Cancel>
          </span>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
