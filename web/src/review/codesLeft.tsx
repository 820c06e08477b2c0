import type { CodeLeft, Question, StudyDetail, WhatIsLeft } from '@yellow-thread/contract';
import { Link } from 'react-router';
import type { DrawnCode, DrawnCodebook } from '../data/codebook.js';
import { useCloseCodes, useReopenCode } from '../data/finish.js';
import { stopPath } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { asCount } from '../lib/numbers.js';
import { StitchMark } from '../parts/stitch.js';
import { Wide } from '../parts/wide.js';
import { codesLeftTexts } from './texts.js';

/** How far each code is decided, and how it is closed. */
export function CodesLeft({
  left,
  codebook,
  study,
  question,
}: {
  left: WhatIsLeft;
  codebook: DrawnCodebook;
  study: StudyDetail;
  question: Question;
}) {
  const close = useCloseCodes(study.id, question.id);
  const reopen = useReopenCode(study.id, question.id);
  const busy = close.isPending || reopen.isPending;
  const error = close.error ?? reopen.error;
  const drawn = left.codes.flatMap((code) => {
    const one = codebook.byId.get(code.codeId);
    return one ? [{ code, drawn: one }] : [];
  });
  const ready = left.codes.filter(
    ({ verdict, open, undecided }) => verdict !== null && open === 0 && undecided > 0,
  );
  return (
    <section aria-labelledby="codes-left">
      <h2 id="codes-left">{codesLeftTexts.codeCode}</h2>
      <p className="max-w-prose text-soft">{codesLeftTexts.whereNoSuggestionCode}</p>
      {ready.length > 1 && (
        <p className="mt-2 flex flex-wrap items-center gap-3">
          <Button
            disabled={busy}
            onClick={() =>
              close.mutate({
                codes: ready.map(({ codeId }) => ({ codeId, how: 'suggestions' as const })),
              })
            }
          >
            {codesLeftTexts.closeCodesWhoseSuggestions(ready.length)}
          </Button>
          <span className="text-soft">
            {codesLeftTexts.modelsExpectMentionsAmong(
              ready.reduce((sum, { expected }) => sum + (expected ?? 0), 0).toFixed(1),
            )}
          </span>
        </p>
      )}
      {error && <ProblemNote error={error} />}
      <Wide label={codesLeftTexts.codes}>
        <table className="mt-3 w-full max-w-[1040px]">
          <thead className="border-b border-rule text-left text-[13px] text-soft">
            <tr>
              <th className="py-1 pr-4 font-normal">{codesLeftTexts.code}</th>
              <th className="py-1 pr-4 text-right font-normal">{codesLeftTexts.openSuggestions}</th>
              <th className="py-1 pr-4 text-right font-normal">
                {codesLeftTexts.undecidedAnswers}
              </th>
              <th className="py-1 pr-4 font-normal">{codesLeftTexts.howStands}</th>
              <th className="py-1 font-normal">
                <span className="sr-only">{codesLeftTexts.whatCanDone}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {drawn.map(({ code, drawn: one }) => (
              <tr key={code.codeId} className="border-b border-rule">
                <th scope="row" className="py-1.5 pr-4 text-left font-normal">
                  <span className="flex items-center gap-2">
                    <StitchMark look={one.look} width={18} />
                    {one.name}
                  </span>
                </th>
                <td className="figures py-1.5 pr-4 text-right">
                  {code.open > 0 ? (
                    <Link
                      to={`${stopPath(study.id, 'review', question.id)}/${code.codeId}`}
                      className="underline"
                    >
                      {asCount(code.open)}
                    </Link>
                  ) : (
                    '–'
                  )}
                </td>
                <td className="figures py-1.5 pr-4 text-right">
                  {code.undecided > 0 ? asCount(code.undecided) : '–'}
                </td>
                <td className="py-1.5 pr-4 text-[13px] text-soft">
                  {standing(code, left.fewestExamples)}
                </td>
                <td className="py-1.5">
                  <Acts
                    code={code}
                    drawn={one}
                    study={study}
                    question={question}
                    busy={busy}
                    onClose={(how) => close.mutate({ codes: [{ codeId: code.codeId, how }] })}
                    onReopen={() => reopen.mutate(code.codeId)}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </section>
  );
}

/** How a code stands, and what it lacks. */
function standing(
  { closed, undecided, verdict, open, expected, examples }: CodeLeft,
  fewest: number,
): string {
  if (closed && closed.newAnswers > 0)
    return codesLeftTexts.closedCameChangedSince(closed.by, closed.at, closed.newAnswers);
  if (closed) return codesLeftTexts.closed(closed.by, closed.at);
  if (undecided === 0) return 'decided';
  if (verdict === null)
    return examples < fewest
      ? codesLeftTexts.noModelTakes(examples, fewest)
      : codesLeftTexts.noModelYetTrain;
  if (open > 0) return '';
  return codesLeftTexts.everySuggestionDecidedMentions(expected?.toFixed(1));
}

function Acts({
  code,
  drawn,
  study,
  question,
  busy,
  onClose,
  onReopen,
}: {
  code: CodeLeft;
  drawn: DrawnCode;
  study: StudyDetail;
  question: Question;
  busy: boolean;
  onClose: (how: 'suggestions' | 'search') => void;
  onReopen: () => void;
}) {
  const ledger = stopPath(study.id, 'code', question.id);
  if (code.closed && code.closed.newAnswers === 0)
    return (
      <Button look="bare" className="!py-0.5" disabled={busy} onClick={onReopen}>
        {codesLeftTexts.openAgain}
      </Button>
    );
  if (code.undecided === 0 || code.open > 0) return null;
  const isSearched = code.verdict === null;
  return (
    <span className="flex flex-wrap items-center gap-x-3 gap-y-1">
      {isSearched && (
        <>
          <Link
            to={`${ledger}?show=open&order=resembling&code=${code.codeId}`}
            className="underline"
            title={codesLeftTexts.openAnswersMostLike}
          >
            {codesLeftTexts.searchLikeness}
          </Link>
          <Link
            to={`${ledger}?show=open&words=${encodeURIComponent(drawn.name)}&match=stem`}
            className="underline"
          >
            {codesLeftTexts.words}
          </Link>
          {drawn.themeId && (
            <Link to={`${ledger}?about=${drawn.themeId}`} className="underline">
              {codesLeftTexts.theme}
            </Link>
          )}
        </>
      )}
      <Button
        className="!py-0.5"
        disabled={busy}
        aria-label={codesLeftTexts.closeRestMention(drawn.name)}
        onClick={() => onClose(isSearched ? 'search' : 'suggestions')}
      >
        {codesLeftTexts.restMention}
      </Button>
    </span>
  );
}
