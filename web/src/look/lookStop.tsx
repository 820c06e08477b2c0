import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import { useAddressPart, useAddressWith } from '../frame/address.js';
import { Waiting } from '../parts/notices.js';
import { AnswersView } from './answersView.js';
import { ContextView } from './contextView.js';
import { ContrastView } from './contrastView.js';
import { WordsView } from './wordsView.js';
import { lookStopTexts } from './texts.js';

/** Layouts of networks bring a library of their own: fetched when one is first looked at. */
const NetworkView = lazy(async () => ({ default: (await import('./networkView.js')).NetworkView }));

const views = [
  { key: 'words', name: lookStopTexts.words },
  { key: 'answers', name: lookStopTexts.answers },
  { key: 'contrast', name: lookStopTexts.contrast },
  { key: 'network', name: lookStopTexts.network },
  { key: 'context', name: lookStopTexts.context },
] as const;

/** A first reading of everything, before any coding and beside it: nothing of it enters a count. */
export function LookStop() {
  const [asked] = useAddressPart('view');
  const view = views.find(({ key }) => key === asked)?.key ?? 'words';
  const addressWith = useAddressWith();
  return (
    <main className="work flex flex-col">
      <nav
        aria-label={lookStopTexts.look}
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
      </nav>
      {view === 'words' && <WordsView />}
      {view === 'answers' && <AnswersView />}
      {view === 'contrast' && <ContrastView />}
      {view === 'network' && (
        <Suspense fallback={<Waiting what={lookStopTexts.picture} />}>
          <NetworkView />
        </Suspense>
      )}
      {view === 'context' && <ContextView />}
    </main>
  );
}
