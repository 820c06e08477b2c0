import type { DifferingAnswer } from '@yellow-thread/contract';
import type { CoderNames } from '@yellow-thread/core/agreement';
import { Link } from 'react-router';
import { useResolveDisagreement } from '../data/agreement.js';
import type { DrawnCodebook } from '../data/codebook.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { AnswerText } from '../parts/answerText.js';
import { Button } from '../parts/button.js';
import { CodeList } from '../studyParts/codeList.js';
import { StitchMark } from '../parts/stitch.js';
import { differingTexts } from './texts.js';

const decisions = [
  { applies: true, name: 'applies' },
  { applies: false, name: differingTexts.doesNot },
] as const;

/** The answers that the two coded differently, to be discussed: what is decided stands in the coding. */
export function Differing({
  reading,
  isOfFirst,
  answers,
  names,
  only,
  codebook,
  onAll,
}: {
  reading: string;
  /** Compared with the first coding, which is the one that counts: what is decided then stands in it. */
  isOfFirst: boolean;
  answers: DifferingAnswer[];
  names: CoderNames;
  /** Only where they differ on one of these; null for all. */
  only: readonly string[] | null;
  codebook: DrawnCodebook;
  onAll: () => void;
}) {
  const { study, question } = useStudyLocation();
  const talkOver = useResolveDisagreement(study.id, question.id, reading);
  if (answers.length === 0) return null;
  const all = answers.flatMap(({ codes }) => codes);
  const decided = all.filter(({ applies }) => applies !== null).length;
  const shown = answers.filter(
    ({ codes }) => only === null || codes.some(({ codeId }) => only.includes(codeId)),
  );
  return (
    <section className="max-w-5xl" aria-labelledby="differing">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 id="differing">{differingTexts.whereDiffer}</h2>
        {isOfFirst && (
          <span className="figures text-soft" role="status">
            {differingTexts.discussed(decided, all.length)}
          </span>
        )}
        {only !== null && (
          <Button look="bare" className="ml-auto" onClick={onAll}>
            {differingTexts.showOtherCodesToo}
          </Button>
        )}
      </div>
      {isOfFirst && (
        <p className="max-w-prose text-[13px] text-soft">{differingTexts.whatYouDecideHere}</p>
      )}
      <ul className="mt-2 border-t border-rule">
        {shown.map((answer) => (
          <li
            key={answer.responseId}
            className="grid grid-cols-[minmax(0,1fr)_380px] items-start gap-x-6 gap-y-2 border-b max-[760px]:grid-cols-1 border-rule py-2.5"
          >
            <div>
              <p className="voice break-words">
                <AnswerText text={answer.text} asides={study.asides} />
              </p>
              <Link
                className="text-[13px] text-soft underline"
                to={`/studies/${study.id}/questions/${question.id}/code?like=${answer.responseId}&same=apart`}
              >
                {answer.externalId}
              </Link>
            </div>
            <div className="flex min-w-0 flex-col gap-1.5">
              {answer.both.length > 0 && (
                <div className="flex items-baseline gap-2 text-[13px]">
                  <span className="shrink-0 text-soft">{differingTexts.both}</span>
                  <CodeList codeIds={answer.both} codebook={codebook} />
                </div>
              )}
              {answer.codes.map(({ codeId, by, applies }) => {
                const drawn = codebook.byId.get(codeId);
                return drawn ? (
                  <div key={codeId} className="flex flex-wrap items-center gap-2">
                    <span className="min-w-0 flex-1">
                      <span className="flex items-center gap-1.5">
                        <StitchMark look={drawn.look} width={18} />
                        <span className="truncate font-medium" style={{ color: drawn.look.ink }}>
                          {drawn.name}
                        </span>
                      </span>
                      <span className="block truncate text-[13px] text-soft">
                        {differingTexts.only(names[by])}
                      </span>
                    </span>
                    {isOfFirst &&
                      decisions.map((one) => (
                        <button
                          key={one.name}
                          type="button"
                          aria-label={`${drawn.name} ${one.name}`}
                          aria-pressed={applies === one.applies}
                          className="shrink-0 rounded border border-rule bg-card px-2 py-0.5 text-[13px] hover:border-soft aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
                          onClick={() =>
                            talkOver.mutate({
                              responseId: answer.responseId,
                              codeId,
                              applies: one.applies,
                            })
                          }
                        >
                          {one.name}
                        </button>
                      ))}
                  </div>
                ) : null;
              })}
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}
