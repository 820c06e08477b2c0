import type { BinnedWriteUp } from '@yellow-thread/contract';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import {
  emptyContent,
  useRemoveWriteUp,
  useRestoreWriteUp,
  useSaveWriteUp,
  useWriteUps,
} from '../data/writeUps.js';
import { useMay } from '../frame/access.js';
import { useStudyDetail } from '../frame/studyLocation.js';
import { SaveStatus } from '../frame/saveStatus.js';
import { Button } from '../parts/button.js';
import { EmptyState, PageProblem, ProblemNote, Waiting } from '../parts/notices.js';
import { asDate } from '../lib/numbers.js';
import { writeUpListTexts } from './texts.js';

/** The write-ups of a study, those that are written on and the frozen copies. */
export function WriteUpList() {
  const study = useStudyDetail();
  const mayWrite = useMay('research');
  const list = useWriteUps(study.id);
  const save = useSaveWriteUp(study.id);
  const remove = useRemoveWriteUp(study.id);
  const navigate = useNavigate();
  const [asked, setAsked] = useState<string | null>(null);
  if (list.isError) return <PageProblem error={list.error} />;
  if (!list.data) return <Waiting what={writeUpListTexts.writeUps} />;
  const begin = () => {
    const id = crypto.randomUUID();
    save.mutate(
      { id, name: writeUpListTexts.findings, version: 0, content: emptyContent },
      { onSuccess: () => void navigate(id) },
    );
  };
  return (
    <main className="work px-8 py-6 max-sm:px-4">
      <header className="mb-5 flex items-end justify-between gap-6">
        <div>
          <h1>{writeUpListTexts.writeUps2}</h1>
          <p className="max-w-prose text-soft">{writeUpListTexts.tablesWhatSaidThem}</p>
        </div>
        {mayWrite && (
          <span className="flex items-center gap-4">
            <SaveStatus />
            <Button look="main" disabled={save.isPending} onClick={begin}>
              {writeUpListTexts.newWriteUp}
            </Button>
          </span>
        )}
      </header>
      {save.error && <ProblemNote error={save.error} />}
      {remove.error && <ProblemNote error={remove.error} />}
      {list.data.writeUps.length === 0 ? (
        <EmptyState title={writeUpListTexts.nothingWrittenUpYet}>
          <p>{writeUpListTexts.reportWriteUpPuts}</p>
        </EmptyState>
      ) : (
        <ul className="max-w-[860px]">
          {list.data.writeUps.map(({ id, name, tables, savedAt, savedBy, frozenAt }) => (
            <li key={id} className="flex items-baseline gap-4 border-b border-rule py-2.5">
              <Link to={id} className="min-w-0 flex-1 truncate font-medium underline">
                {name}
              </Link>
              <span className="figures text-soft">
                {writeUpListTexts.tableCounted(tables)} ·{' '}
                {frozenAt ? writeUpListTexts.frozen2(frozenAt) : `${savedBy}, ${asDate(savedAt)}`}
              </span>
              {!mayWrite ? null : asked === id ? (
                <span className="flex gap-1">
                  <Button look="grave" className="!py-1" onClick={() => remove.mutate(id)}>
                    {writeUpListTexts.remove}
                  </Button>
                  <Button className="!py-1" onClick={() => setAsked(null)}>
                    {writeUpListTexts.keep}
                  </Button>
                </span>
              ) : (
                <Button
                  look="bare"
                  className="!py-1"
                  aria-label={writeUpListTexts.remove3(name)}
                  onClick={() => setAsked(id)}
                >
                  {writeUpListTexts.remove2}
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
      {mayWrite && <Bin study={study.id} binned={list.data.binned} />}
    </main>
  );
}

/** What was removed lately, and the way back. */
function Bin({ study, binned }: { study: number; binned: readonly BinnedWriteUp[] }) {
  const restore = useRestoreWriteUp(study);
  if (binned.length === 0) return null;
  return (
    <section aria-labelledby="bin" className="mt-8 max-w-[860px]">
      <h2 id="bin">{writeUpListTexts.removed}</h2>
      <p className="text-soft">{writeUpListTexts.keptThirtyDaysGone}</p>
      {restore.error && <ProblemNote error={restore.error} />}
      <ul className="mt-2">
        {binned.map(({ id, name, frozenAt, by, at, until }) => (
          <li key={id} className="flex items-baseline gap-4 border-b border-rule py-2.5">
            <span className="min-w-0 flex-1 truncate text-soft">
              {name}
              {frozenAt && writeUpListTexts.frozen(frozenAt)}
            </span>
            <span className="figures text-soft">
              {writeUpListTexts.removedKeptUntil(by, at, until)}
            </span>
            <Button
              look="bare"
              className="!py-1"
              aria-label={writeUpListTexts.restore2(name)}
              onClick={() => restore.mutate(id)}
            >
              {writeUpListTexts.restore}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
