import type { StudyDetail } from '@yellow-thread/contract';
import { Link, Navigate, useLocation } from 'react-router';
import { homeIn } from './access.js';
import { EmptyState } from '../parts/notices.js';
import { notForRoleTexts } from './texts.js';

/** In place of a page that is for other roles. A study opens where the role begins. */
export function NotForRole({ study }: { study: StudyDetail }) {
  const { pathname } = useLocation();
  const home = homeIn(study);
  if (home && pathname.endsWith('/import')) return <Navigate to={home} replace />;
  return (
    <main className="work">
      <EmptyState title={notForRoleTexts.notForYou(study.role)}>
        <p>{home ? notForRoleTexts.askAnOwner : notForRoleTexts.nothingYet}</p>
        {home && (
          <Link to={home} className="font-medium underline decoration-thread decoration-2">
            {notForRoleTexts.toYourWork}
          </Link>
        )}
      </EmptyState>
    </main>
  );
}
