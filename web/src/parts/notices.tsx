import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { asProblem } from '../lib/problem.js';
import { noticesTexts } from './texts.js';

/** What went wrong, in words, where it went wrong. */
export function ProblemNote({ error }: { error: unknown }) {
  return (
    <p role="alert" className="text-brick max-w-prose">
      {asProblem(error).sentence}
    </p>
  );
}

/** A page that could not be shown, with the way back. */
export function PageProblem({ error }: { error: unknown }) {
  return (
    <EmptyState title={noticesTexts.cannotShown}>
      <ProblemNote error={error} />
      <Link to="/studies" className="underline">
        {noticesTexts.goYourStudies}
      </Link>
    </EmptyState>
  );
}

/** A place for what is still loading: takes its room quietly, so that nothing jumps. */
export function Waiting({ what }: { what: string }) {
  return (
    <p role="status" className="text-soft p-6">
      {noticesTexts.fetching(what)}
    </p>
  );
}

/** An empty screen that says what to do next. */
export function EmptyState({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mx-auto flex max-w-xl flex-col items-start gap-4 px-6 py-16">
      <h1>{title}</h1>
      {children}
    </div>
  );
}
