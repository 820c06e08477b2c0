import { Link, Navigate, NavLink, useParams } from 'react-router';
import { useDrawnCodebook } from '../data/codebook.js';
import { useReviews } from '../data/review.js';
import { usePlace } from '../frame/place.js';
import { EmptyState, PageProblem, Waiting } from '../parts/notices.js';
import { StitchMark } from '../parts/stitch.js';
import { CodeReview } from './codeReview.js';

/** The suggestions of a question, one code at a time. */
export function ReviewStop() {
  const { study, question } = usePlace();
  const { code } = useParams();
  const reviews = useReviews(study.id, question.id);
  const codebook = useDrawnCodebook(study.id);
  if (reviews.isError) return <PageProblem error={reviews.error} />;
  if (!reviews.data || !codebook) return <Waiting what="the suggestions" />;
  const { codes } = reviews.data;
  if (codes.length === 0)
    return (
      <EmptyState title="No suggestions yet">
        <p>Suggestions come from training on the answers that you have settled.</p>
        <Link to={`/studies/${study.id}/questions/${question.id}/train`} className="underline">
          Go to Train
        </Link>
      </EmptyState>
    );
  const base = `/studies/${study.id}/questions/${question.id}/review`;
  const drawn = code ? codebook.byId.get(code) : undefined;
  if (!drawn || !codes.some((one) => one.codeId === code))
    return <Navigate to={`${base}/${codes[0]!.codeId}`} replace />;
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[224px_minmax(0,1fr)]">
      <nav
        aria-label="Codes with suggestions"
        className="min-h-0 overflow-y-auto border-r border-rule py-3 pl-4 pr-2"
      >
        <ul>
          {codes.map(({ codeId, open }) => {
            const one = codebook.byId.get(codeId);
            return (
              one && (
                <li key={codeId}>
                  <NavLink
                    to={`${base}/${codeId}`}
                    className="flex items-center gap-2 rounded px-2 py-1.5 text-soft hover:text-ink aria-[current=page]:bg-wash aria-[current=page]:text-ink"
                  >
                    <StitchMark look={one.look} width={18} />
                    <span className="min-w-0 flex-1 truncate">{one.name}</span>
                    <span className="figures text-[13px]" aria-label={`${open} open`}>
                      {open}
                    </span>
                  </NavLink>
                </li>
              )
            );
          })}
        </ul>
      </nav>
      <CodeReview key={`${question.id} ${drawn.id}`} code={drawn} />
    </main>
  );
}
