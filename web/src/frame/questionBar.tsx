import { hasAccess, type Question, type StudyDetail } from '@yellow-thread/contract';
import { Link, NavLink, useLocation, useNavigation } from 'react-router';
import { SaveStatus } from './saveStatus.js';
import { questionBarTexts } from './texts.js';

/** The question's full wording, the switch between questions, and the base. */
export function QuestionBar({ study, question }: { study: StudyDetail; question: Question }) {
  const here = useLocation();
  // a stop that is still being fetched is where one is already
  const { pathname } = useNavigation().location ?? here;
  const showsLeft = hasAccess(study.role, 'research');
  const stop = /\/questions\/\d+\/([\w-]+)/.exec(pathname)?.[1] ?? 'code';
  const settled = questionBarTexts.settledAnswered(
    question.settled,
    question.decided,
    question.answered,
  );
  return (
    <header className="border-b border-rule bg-card px-6 pb-3 pt-3.5 max-sm:px-3">
      <div className="flex items-baseline justify-between gap-x-6 gap-y-1 max-[760px]:flex-wrap">
        <nav aria-label={questionBarTexts.questions} className="flex min-w-0 gap-4 overflow-x-auto">
          {study.questions.map((one, place) => (
            <NavLink
              key={one.id}
              to={`/studies/${study.id}/questions/${one.id}/${stop}`}
              className="shrink-0 border-b-2 border-transparent text-soft hover:text-ink aria-[current=page]:border-thread aria-[current=page]:font-semibold aria-[current=page]:text-ink"
            >
              <span className="figures">{place + 1}</span> {one.label}
            </NavLink>
          ))}
        </nav>
        <span className="flex shrink-0 items-baseline gap-4 max-sm:shrink max-sm:flex-wrap">
          <span className="figures text-soft">
            {showsLeft ? (
              <Link
                to={`/studies/${study.id}/questions/${question.id}/left`}
                className="underline decoration-rule underline-offset-4 hover:text-ink hover:decoration-soft"
                title={questionBarTexts.whatLeftQuestion}
              >
                {settled}
              </Link>
            ) : (
              settled
            )}
            {question.byModel > 0 && questionBarTexts.leftModels(question.byModel)}{' '}
            {questionBarTexts.asked(question.asked)}
          </span>
          <SaveStatus />
        </span>
      </div>
      <p className="mt-1 max-h-[4.2em] overflow-y-auto font-serif text-[20px] leading-snug">
        {question.wording}
      </p>
    </header>
  );
}
