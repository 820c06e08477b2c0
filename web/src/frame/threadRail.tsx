import type { Question, StudyDetail } from '@yellow-thread/contract';
import { BookText, Contact, FileText, LayoutList, Shapes, StickyNote, Users } from 'lucide-react';
import { Link, NavLink } from 'react-router';
import { ProgressKnot } from '../parts/knot.js';
import { STOPS, stopPath, type StopKey } from './place.js';

const NEARLY = 0.9;

/** How much of each stop's part of the job is done, 0 to 1. */
function sharesDone(study: StudyDetail, question: Question | null): Record<StopKey, number> {
  const share = (part: number, whole: number) => (whole > 0 ? part / whole : 0);
  const { settled = 0, decided = 0, answered = 0, suggestions = null } = question ?? {};
  const done = share(settled + decided, answered);
  const reviewed = suggestions?.decided ?? 0;
  return {
    import: study.allRespondents > 0 ? 1 : 0,
    // looking is never done: it has no end of its own
    look: 0,
    code: done,
    train: suggestions ? 1 : 0,
    // full only when the question is finished, whatever there is to review meanwhile
    review: question?.isFinished
      ? 1
      : Math.min(NEARLY, share(reviewed, reviewed + (suggestions?.open ?? 0))),
    report: done,
  };
}

/** The thread: one yellow line with a knot for each stop of the job. */
export function ThreadRail({ study, question }: { study: StudyDetail; question: Question | null }) {
  const done = sharesDone(study, question);
  const aside =
    'flex items-center gap-2 rounded px-2 py-1.5 text-soft hover:text-ink aria-[current=page]:font-semibold aria-[current=page]:text-ink';
  return (
    <nav
      aria-label="Stops of the study"
      className="flex min-h-0 flex-col overflow-y-auto border-r border-rule py-5 pl-4 pr-2"
    >
      <ol className="relative flex flex-col">
        <span aria-hidden className="absolute bottom-6 left-[8px] top-6 w-[2px] bg-thread" />
        {STOPS.map(({ key, name }) => (
          <li key={key}>
            {key === 'import' || question ? (
              <NavLink
                to={stopPath(study.id, key, question?.id)}
                className="group relative flex h-12 items-center gap-3 rounded text-soft hover:text-ink aria-[current=page]:font-semibold aria-[current=page]:text-ink"
              >
                <ProgressKnot share={done[key]} />
                <span className="group-aria-[current=page]:border-b-2 group-aria-[current=page]:border-thread">
                  {name}
                </span>
                {key !== 'look' && (
                  <span className="sr-only">, {Math.round(100 * done[key])} percent done</span>
                )}
              </NavLink>
            ) : (
              // a stop that has nothing to work on before a sheet is in
              <span className="relative flex h-12 items-center gap-3 text-soft">
                <ProgressKnot share={0} />
                {name}
              </span>
            )}
          </li>
        ))}
      </ol>
      <div className="mt-6 flex flex-col gap-0.5 border-t border-rule pt-4">
        <NavLink to={`/studies/${study.id}/codebook`} className={aside}>
          <BookText size={15} aria-hidden className="shrink-0" /> Codebook
        </NavLink>
        <NavLink to={`/studies/${study.id}/groups`} className={aside}>
          <Shapes size={15} aria-hidden className="shrink-0" /> Groups
        </NavLink>
        <NavLink to={`/studies/${study.id}/notes`} className={aside}>
          <StickyNote size={15} aria-hidden className="shrink-0" /> Notes
        </NavLink>
        <NavLink to={`/studies/${study.id}/respondents`} className={aside}>
          <Users size={15} aria-hidden className="shrink-0" /> Respondents
        </NavLink>
        <NavLink to={`/studies/${study.id}/people`} className={aside}>
          <Contact size={15} aria-hidden className="shrink-0" /> People
        </NavLink>
        <NavLink to={`/studies/${study.id}/about`} className={aside}>
          <FileText size={15} aria-hidden className="shrink-0" /> Study
        </NavLink>
        <Link to="/studies" className={aside}>
          <LayoutList size={15} aria-hidden className="shrink-0" /> Studies
        </Link>
      </div>
      <p className="mt-auto pt-6 text-[12px] leading-relaxed text-soft">
        <kbd>Ctrl K</kbd> anything
        <br />
        <kbd>?</kbd> keys here
      </p>
    </nav>
  );
}
