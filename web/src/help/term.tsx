import type { ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { termTexts } from './texts.js';

/** A term of statistics on screen; leads to what it means. @param of the heading of `docs/guide/terms.md`, as in its address */
export function Term({ of, children }: { of: string; children: ReactNode }) {
  const { study } = useParams();
  return (
    <Link
      to={`/studies/${study}/help/terms#${of}`}
      title={termTexts.whatMeans}
      className="underline decoration-soft decoration-dotted underline-offset-4 hover:decoration-solid"
    >
      {children}
    </Link>
  );
}
