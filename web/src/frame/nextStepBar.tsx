import { hasAccess, type Question, type StudyDetail } from '@yellow-thread/contract';
import { nextStep } from '@yellow-thread/core/study';
import { X } from 'lucide-react';
import { Link, useLocation } from 'react-router';
import { useChangeMembership, useMembership } from '../data/membership.js';
import { useSession } from '../data/people.js';
import { stopIn, stopPath } from './studyLocation.js';
import { frameTexts, nextStepWords } from './texts.js';

const bar =
  'flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule px-6 py-1.5 text-soft max-sm:px-3';
const go =
  'shrink-0 font-medium text-ink underline decoration-thread decoration-2 underline-offset-4';

/** What somebody new to the study would do next, until they dismiss it; before that, what they were asked for. */
export function NextStepBar({
  study,
  question,
}: {
  study: StudyDetail;
  question: Question | null;
}) {
  const { pathname } = useLocation();
  const membership = useMembership(study.id).data;
  const change = useChangeMembership(study.id);
  const me = useSession().data?.account?.id;
  if (!membership) return null;
  const [reading] = membership.readings;
  if (reading) {
    if (pathname.includes('/second-reading')) return null;
    return (
      <p className={bar}>
        <span>{frameTexts.secondReading(reading.left)}</span>
        <Link
          className={go}
          to={`/studies/${study.id}/questions/${reading.questionId}/second-reading/${reading.id}`}
        >
          {frameTexts.openReading}
        </Link>
      </p>
    );
  }
  const assigned = membership.assigned.find(({ left }) => left > 0);
  const isThere = assigned && pathname.endsWith(`/questions/${assigned.questionId}/code`);
  if (assigned && me !== undefined && !isThere)
    return (
      <p className={bar}>
        <span>{frameTexts.assigned(assigned.left)}</span>
        <Link
          className={go}
          to={`${stopPath(study.id, 'code', assigned.questionId)}?assigned=${me}&show=open`}
        >
          {frameTexts.openAssigned}
        </Link>
      </p>
    );
  if (!hasAccess(study.role, 'research')) return null;
  const stop = stopIn(pathname);
  const progress = { respondents: study.allRespondents, question };
  const step = membership.hidesNextSteps || !stop ? null : nextStep(progress, stop);
  if (!step) return null;
  const { sentence, button } = nextStepWords(step);
  return (
    <p className={bar}>
      <span>{sentence}</span>
      <Link
        className={go}
        to={`${stopPath(study.id, step.at, question?.id)}${step.do === 'code sample' ? '?show=sample_open' : ''}`}
        state={step.do === 'draw sample' ? { opens: 'sample' } : undefined}
      >
        {button}
      </Link>
      <button
        type="button"
        className="ml-auto shrink-0 rounded p-1 hover:bg-wash hover:text-ink"
        aria-label={frameTexts.hideNextSteps}
        title={frameTexts.hideNextSteps}
        onClick={() => change.mutate({ hidesNextSteps: true })}
      >
        <X size={14} aria-hidden />
      </button>
    </p>
  );
}
