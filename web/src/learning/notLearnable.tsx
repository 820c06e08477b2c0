import type { TrainingRun } from '@yellow-thread/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import type { DrawnCode, DrawnCodebook } from '../data/codebook.js';
import { StitchMark } from '../parts/stitch.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { NearestAnswers } from '../studyParts/nearestAnswers.js';
import { notLearnableTexts } from './texts.js';

/** Codes that have too few examples for a model, with how many they have. */
export function NotLearnable({
  codes,
  unused,
  fewest,
  themes,
  codebook,
}: {
  codes: { codeId: string; examples: number; drawn: DrawnCode }[];
  unused: number;
  fewest: number;
  themes: TrainingRun['themes'];
  codebook: DrawnCodebook;
}) {
  const { study, question } = useStudyLocation();
  const [opened, setOpened] = useState<DrawnCode | null>(null);
  if (codes.length === 0 && unused === 0) return null;
  return (
    <section className="mt-6" aria-labelledby="not-yet">
      <h2 id="not-yet">{notLearnableTexts.learnableYet}</h2>
      <p className="text-soft">{notLearnableTexts.codeNeedsSettledExamples(fewest)}</p>
      <ul className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(260px,1fr))] gap-x-6">
        {codes.map(({ codeId, examples, drawn }) => (
          <li key={codeId} className="flex items-center gap-2 py-1">
            <StitchMark look={drawn.look} />
            <button
              type="button"
              className="min-w-0 truncate text-left underline decoration-dotted underline-offset-4 hover:bg-wash"
              aria-expanded={opened?.id === codeId}
              title={notLearnableTexts.nearestInMeaning}
              onClick={() => setOpened(opened?.id === codeId ? null : drawn)}
            >
              {drawn.name}
            </button>
            <span className="figures ml-auto text-soft">
              {notLearnableTexts.of(examples, fewest)}
            </span>
          </li>
        ))}
      </ul>
      {opened !== null && (
        <div className="my-4 max-w-3xl">
          <NearestAnswers study={study.id} question={question.id} code={opened} limit={6} />
        </div>
      )}
      {unused > 0 && (
        <p className="mt-2 text-soft">{notLearnableTexts.codebookNoExampleQuestion(unused)}</p>
      )}
      <LearntThemes themes={themes} codebook={codebook} />
    </section>
  );
}

/** Themes of such codes: which open answers are likely about one can be learnt before which of its codes it is. */
function LearntThemes({
  themes,
  codebook,
}: {
  themes: TrainingRun['themes'];
  codebook: DrawnCodebook;
}) {
  const shown = themes.flatMap(({ themeId, ...one }) => {
    const drawn = codebook.themes.find(({ id }) => id === themeId);
    return drawn ? [{ ...one, drawn }] : [];
  });
  if (shown.length === 0) return null;
  return (
    <>
      <p className="mt-4 max-w-3xl text-soft">{notLearnableTexts.themesCanLearntExamples}</p>
      <ul className="mt-2">
        {shown.map(({ drawn, examples, quality, likely }) => (
          <li key={drawn.id} className="flex flex-wrap items-center gap-2 py-1">
            <StitchMark look={drawn.look} />
            <span className="min-w-40" style={{ color: drawn.look.ink }}>
              {drawn.name}
            </span>
            <span className="figures min-w-72 text-soft">
              {notLearnableTexts.rightFound(examples, quality.precision, quality.recall)}
            </span>
            {likely > 0 ? (
              <Link to={`../code?about=${drawn.id}`} className="underline">
                {notLearnableTexts.readLikelyAbout(likely)}
              </Link>
            ) : (
              <span className="text-soft">{notLearnableTexts.noOpenAnswerLikely}</span>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
