import type { TrainingRun } from '@yellow-thread/contract';
import { Link } from 'react-router';
import type { DrawnCode, DrawnCodebook } from '../data/codebook.js';
import { asShare, counted } from '../parts/numbers.js';
import { StitchMark } from '../parts/stitch.js';

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
  if (codes.length === 0 && unused === 0) return null;
  return (
    <section className="mt-6" aria-labelledby="not-yet">
      <h2 id="not-yet">Not learnable yet</h2>
      <p className="text-soft">A code needs {fewest} settled examples before it gets a model.</p>
      <ul className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(260px,1fr))] gap-x-6">
        {codes.map(({ codeId, examples, drawn }) => (
          <li key={codeId} className="flex items-center gap-2 py-1">
            <StitchMark look={drawn.look} />
            <span className="min-w-0 truncate">{drawn.name}</span>
            <span className="figures ml-auto text-soft">
              {examples} of {fewest}
            </span>
          </li>
        ))}
      </ul>
      {unused > 0 && (
        <p className="mt-2 text-soft">
          {counted(unused, 'code')} of the codebook {unused === 1 ? 'has' : 'have'} no example in
          this question.
        </p>
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
      <p className="mt-4 max-w-3xl text-soft">
        Their themes can be learnt: examples of these codes are likeliest among the open answers
        that are about the theme.
      </p>
      <ul className="mt-2">
        {shown.map(({ drawn, examples, quality, likely }) => (
          <li key={drawn.id} className="flex flex-wrap items-center gap-2 py-1">
            <StitchMark look={drawn.look} />
            <span className="min-w-40" style={{ color: drawn.look.ink }}>
              {drawn.name}
            </span>
            <span className="figures min-w-72 text-soft">
              {counted(examples, 'example')}, right {asShare(quality.precision)}, found{' '}
              {asShare(quality.recall)}
            </span>
            {likely > 0 ? (
              <Link to={`../code?about=${drawn.id}`} className="underline">
                Read {counted(likely, 'open answer')} likely about it
              </Link>
            ) : (
              <span className="text-soft">no open answer is likely about it</span>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
