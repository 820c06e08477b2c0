import { Link } from 'react-router';
import { useNearestAnswers } from '../data/meaning.js';
import { stopPath } from '../frame/studyLocation.js';
import { ProblemNote } from '../parts/notices.js';
import { nearestAnswersTexts } from './texts.js';

/**
 * Open answers near in meaning to what the codebook says of a code, to find its first examples among. They are no
 * suggestions: nothing has been learnt of them, and nothing can be accepted here.
 */
export function NearestAnswers({
  study,
  code,
  question,
  limit,
}: {
  study: number;
  code: { id: string; name: string };
  question?: number;
  limit: number;
}) {
  const nearest = useNearestAnswers(study, { code: code.id, limit, ...(question && { question }) });
  if (nearest.isError) return <ProblemNote error={nearest.error} />;
  if (!nearest.data?.isKnown) return null;
  const { answers } = nearest.data;
  return (
    <section aria-label={nearestAnswersTexts.title(code.name)} className="flex flex-col gap-2">
      <h2 className="border-b border-rule pb-1">{nearestAnswersTexts.title(code.name)}</h2>
      <p className="text-soft">{nearestAnswersTexts.whatTheyAre}</p>
      {answers.length === 0 && <p className="text-soft">{nearestAnswersTexts.none}</p>}
      <ol className="flex flex-col gap-2">
        {answers.map(({ responseId, questionId, text, count }) => (
          <li key={`${questionId} ${responseId}`} className="flex items-baseline gap-3">
            <p className="voice min-w-0 flex-1 break-words">{text}</p>
            <Link
              className="shrink-0 text-[13px] text-soft underline"
              to={`${stopPath(study, 'code', questionId)}?like=${responseId}&same=apart`}
            >
              {count > 1 ? nearestAnswersTexts.readAll(count) : nearestAnswersTexts.read}
            </Link>
          </li>
        ))}
      </ol>
    </section>
  );
}
