import { Link } from 'react-router';
import { EmptyState } from '../parts/notices.js';
import { frameTexts, noPageTexts } from './texts.js';

/** An address that leads nowhere says so. */
export function NoPage() {
  return (
    <EmptyState title={frameTexts.noPage}>
      <title>{noPageTexts.yellowThread(frameTexts.noPage)}</title>
      <p>{frameTexts.noPageWhy}</p>
      <Link to="/studies" className="underline">
        {frameTexts.toStudies}
      </Link>
    </EmptyState>
  );
}
