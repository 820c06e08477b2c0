import type { SuggestedAnswer } from '@yellow-thread/contract';
import type { DrawnCode } from '../data/codebook.js';
import { useNearestCoded } from '../data/review.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { ProblemNote } from '../parts/notices.js';
import { suggestionReasonsTexts as texts } from './texts.js';

/** Words that are named with what each adds. */
const NAMED = 4;
/** Of a bar, in pixels. */
const WIDEST = 60;

/**
 * Why a code is suggested for an answer: what its words and the meaning of its line add to the score, and the lines
 * coded by hand that are nearest in meaning.
 */
export function SuggestionReasons({
  suggestion,
  code,
}: {
  suggestion: SuggestedAnswer;
  code: DrawnCode;
}) {
  const { fromWords, fromMeaning, evidence } = suggestion;
  if (fromWords === null) return <p className="text-soft">{texts.notKnown}</p>;
  const longest = Math.max(Math.abs(fromWords), Math.abs(fromMeaning ?? 0), 1);
  return (
    <section
      aria-label={texts.title(code.name)}
      className="mt-2 flex flex-col gap-2 border-l border-rule pl-3 text-[13px]"
    >
      <p className="text-soft">{texts.whatAdds}</p>
      <dl className="grid grid-cols-[auto_auto_minmax(0,1fr)] items-baseline gap-x-3 gap-y-0.5">
        {fromMeaning !== null && (
          <Part name={texts.meaning} weight={fromMeaning} longest={longest} />
        )}
        <Part name={texts.words} weight={fromWords} longest={longest}>
          {evidence.slice(0, NAMED).map(({ word, weight }) => (
            <span key={word} className="mr-3 whitespace-nowrap">
              <span className="voice text-[15px]">{word}</span>{' '}
              <span className="figures text-soft">{texts.signed(weight)}</span>
            </span>
          ))}
        </Part>
      </dl>
      {fromMeaning === null ? (
        <p className="text-soft">{texts.notRead}</p>
      ) : (
        <NearestLines suggestion={suggestion} code={code} />
      )}
    </section>
  );
}

/** What one part of a score adds to it: a bar as long as it is strong. */
function Part({
  name,
  weight,
  longest,
  children,
}: {
  name: string;
  weight: number;
  longest: number;
  children?: React.ReactNode;
}) {
  return (
    <>
      <dt>{name}</dt>
      <dd className="figures text-right">{texts.signed(weight)}</dd>
      <dd className="min-w-0">
        <span
          aria-hidden
          className={`mr-3 inline-block h-2 align-baseline ${weight > 0 ? 'bg-ink' : 'border border-soft'}`}
          style={{ width: `${(WIDEST * Math.abs(weight)) / longest}px` }}
        />
        {children}
      </dd>
    </>
  );
}

function NearestLines({ suggestion, code }: { suggestion: SuggestedAnswer; code: DrawnCode }) {
  const { study, question } = useStudyLocation();
  const nearest = useNearestCoded(study.id, question.id, code.id, suggestion.responseId);
  if (nearest.isError) return <ProblemNote error={nearest.error} />;
  const lines = nearest.data?.lines ?? [];
  return (
    // once they are there, the row is longer than what was kept in view of it
    <div ref={nearest.data ? showWhole : undefined} className="min-h-[6.5rem]">
      <p className="text-soft">{texts.nearest}</p>
      <div className="grid grid-cols-[auto_minmax(0,1fr)] items-baseline gap-x-3 gap-y-0.5">
        {[true, false].map((hasCode) => {
          const ofKind = lines.filter((line) => line.hasCode === hasCode);
          return (
            ofKind.length > 0 && (
              <div key={String(hasCode)} className="contents">
                <p>{hasCode ? texts.withIt(code.name) : texts.withoutIt}</p>
                <ul>
                  {ofKind.map(({ responseId, text }) => (
                    <li key={responseId} className="voice break-words text-[15px]">
                      {text}
                    </li>
                  ))}
                </ul>
              </div>
            )
          );
        })}
      </div>
    </div>
  );
}

const showWhole = (element: HTMLElement | null) =>
  element?.closest('article')?.scrollIntoView({ block: 'nearest' });
