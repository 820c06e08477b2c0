import { hasAccess, type Question, type StudyDetail } from '@yellow-thread/contract';
import {
  BookText,
  ChevronLeft,
  CircleQuestionMark,
  FileText,
  Shapes,
  StickyNote,
  UserRoundPen,
  Users,
} from 'lucide-react';
import { Link, NavLink, useLocation } from 'react-router';
import { helpPath } from '../help/helpPath.js';
import { ProgressKnot } from '../parts/knot.js';
import { accessOfPage, STOP_ACCESS } from './access.js';
import { STOPS, stopPath, type StopKey } from './studyLocation.js';
import { asidePages, frameTexts, threadRailTexts } from './texts.js';

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

/** The pages beside the stops. */
const pages = [
  { to: 'codebook', name: threadRailTexts.codebook, icon: BookText },
  { to: 'groups', name: threadRailTexts.groups, icon: Shapes },
  { to: 'notes', name: threadRailTexts.notes, icon: StickyNote },
  { to: 'respondents', name: threadRailTexts.respondents, icon: Users },
  { to: 'team', name: threadRailTexts.team, icon: UserRoundPen },
  { to: 'about', name: threadRailTexts.study, icon: FileText },
] as const;

/** The thread: one yellow line with a knot for each stop of the job. */
export function ThreadRail({ study, question }: { study: StudyDetail; question: Question | null }) {
  const done = sharesDone(study, question);
  const { pathname } = useLocation();
  const shown = pages.filter(({ to }) => hasAccess(study.role, accessOfPage(to)));
  const aside =
    'flex shrink-0 items-center gap-2 rounded px-2 py-1.5 text-soft hover:text-ink aria-[current=page]:font-semibold aria-[current=page]:text-ink';
  return (
    <nav aria-label={frameTexts.stops} className="rail">
      <div className="rail-head">
        <span className="text-[12px] text-soft">{frameTexts.product}</span>
        <NavLink
          to={
            hasAccess(study.role, 'research')
              ? `/studies/${study.id}/about`
              : `/studies/${study.id}`
          }
          className="line-clamp-3 min-h-6 break-words py-0.5 font-semibold leading-tight hover:underline"
          title={study.name}
        >
          {study.name}
        </NavLink>
        <Link
          to="/studies"
          className="flex min-h-6 items-center gap-1 text-[13px] text-soft hover:text-ink"
        >
          <ChevronLeft size={13} aria-hidden className="shrink-0" /> {frameTexts.allStudies}
        </Link>
      </div>
      <ol className="rail-stops">
        <span aria-hidden className="rail-thread" />
        {STOPS.filter(({ key }) => hasAccess(study.role, STOP_ACCESS[key])).map(({ key, name }) => (
          <li key={key}>
            {key === 'import' || question ? (
              <NavLink
                to={stopPath(study.id, key, question?.id)}
                className="rail-stop group text-soft hover:text-ink aria-[current=page]:font-semibold aria-[current=page]:text-ink"
              >
                <ProgressKnot share={done[key]} />
                <span className="group-aria-[current=page]:border-b-2 group-aria-[current=page]:border-thread">
                  {name}
                </span>
                {key !== 'look' && (
                  <span className="sr-only">
                    {threadRailTexts.percentDone(Math.round(100 * done[key]))}
                  </span>
                )}
              </NavLink>
            ) : (
              // a stop that has nothing to work on before a sheet is in
              <span className="rail-stop text-soft">
                <ProgressKnot share={0} />
                {name}
              </span>
            )}
          </li>
        ))}
      </ol>
      <div className="rail-aside">
        {shown.map(({ to, name, icon: Icon }) => (
          <NavLink key={to} to={`/studies/${study.id}/${to}`} className={aside}>
            <Icon size={15} aria-hidden className="shrink-0" /> {name}
          </NavLink>
        ))}
        <NavLink to={helpPath(study.id, pathname)} className={aside}>
          <CircleQuestionMark size={15} aria-hidden className="shrink-0" /> {asidePages['help']}
        </NavLink>
      </div>
      <p className="rail-keys">
        <kbd>{threadRailTexts.ctrlK}</kbd> {threadRailTexts.anything}
        <br />
        <kbd>?</kbd> {threadRailTexts.keysHere}
      </p>
    </nav>
  );
}
