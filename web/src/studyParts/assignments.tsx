import type { ListedAssignment, StudyDetail } from '@yellow-thread/contract';
import { hasAccess } from '@yellow-thread/contract';
import { Link } from 'react-router';
import { useRemoveAssignment } from '../data/sampling.js';
import { stopPath } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { asDate } from '../lib/numbers.js';
import { ProgressKnot } from '../parts/knot.js';
import { assignmentsTexts as texts } from './texts.js';

/** What was assigned to whom, and how far it is. */
export function Assignments({
  study,
  assignments,
  showsQuestion = false,
}: {
  study: StudyDetail;
  assignments: readonly ListedAssignment[];
  showsQuestion?: boolean;
}) {
  const remove = useRemoveAssignment(study.id);
  const mayRemove = hasAccess(study.role, 'research');
  if (assignments.length === 0) return null;
  return (
    <section aria-labelledby="assigned" className="w-full">
      <h2 id="assigned">{texts.assignedWork}</h2>
      <ul className="mt-2 border-t border-rule">
        {assignments.map(
          ({ id, questionId, coderId, coder, assignedBy, assignedAt, size, settled }) => (
            <li
              key={id}
              className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule py-2"
            >
              <ProgressKnot share={size === 0 ? 1 : settled / size} />
              <Link
                to={`${stopPath(study.id, 'code', questionId)}?assigned=${coderId}`}
                className="font-medium underline decoration-rule underline-offset-4"
              >
                {coder}
              </Link>
              <span className="figures">{texts.settledOf(settled, size)}</span>
              <span className="text-soft">
                {showsQuestion &&
                  texts.ofQuestion(study.questions.find((one) => one.id === questionId)?.label)}
                {texts.assignedBy(assignedBy, asDate(assignedAt))}
              </span>
              {mayRemove && (
                <Button
                  look="bare"
                  className="ml-auto"
                  disabled={remove.isPending}
                  onClick={() => remove.mutate(id)}
                >
                  {texts.takeBack}
                </Button>
              )}
            </li>
          ),
        )}
      </ul>
    </section>
  );
}
