import { lazy, Suspense } from 'react';
import { useView, ViewTabs } from '../frame/viewTabs.js';
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
  const view = useView(views);
  return (
    <main className="work flex flex-col">
      <ViewTabs label={lookStopTexts.look} views={views} view={view} />
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
