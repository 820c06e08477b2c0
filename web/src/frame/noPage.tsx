import { Link } from 'react-router';
import { EmptyState } from '../parts/notices.js';
import { frameTexts } from './texts.js';

/** An address that leads nowhere says so. */
export function NoPage() {
  return (
    <EmptyState title={frameTexts.noPage}>
      <title>{`${frameTexts.noPage} – Yellow Thread`}</title>
      <p>{frameTexts.noPageWhy}</p>
      <Link to="/studies" className="underline">
        {frameTexts.toStudies}
      </Link>
    </EmptyState>
  );
}
