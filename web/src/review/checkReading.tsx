import type { CheckAnswers, Verdict } from '@yellow-thread/contract';
import { Link } from 'react-router';
import type { DrawnCode } from '../data/codebook.js';
import { useCheck, useJudge } from '../data/review.js';
import { useDrawer } from '../frame/drawer.js';
import { useCommands } from '../frame/commands.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { ReadRow } from '../parts/readRow.js';
import { useReadRows } from '../parts/useReadRows.js';
import { StitchMark } from '../parts/stitch.js';
import { checkCommands, checkHelp } from './commands.js';
import { SpotChecks } from './spotChecks.js';
import { checkReadingTexts } from './texts.js';

const verdicts: { verdict: Verdict; name: string }[] = [
  { verdict: 'applies', name: checkReadingTexts.applies },
  { verdict: 'not', name: checkReadingTexts.doesNotApply },
  { verdict: 'unsure', name: checkReadingTexts.unsure },
];

/** A spot check being read: the answers alone, without probability, order or underlined words. */
export function CheckReading({ code, check }: { code: DrawnCode; check: string }) {
  const { study, question } = useStudyLocation();
  const answers = useCheck(study.id, question.id, code.id, check);
  if (answers.isError) return <PageProblem error={answers.error} />;
  if (!answers.data) return <Waiting what={checkReadingTexts.answersSpotCheck} />;
  return <Reading key={check} code={code} check={check} answers={answers.data.answers} />;
}

function Reading({
  code,
  check,
  answers,
}: {
  code: DrawnCode;
  check: string;
  answers: CheckAnswers['answers'];
}) {
  const { study, question } = useStudyLocation();
  const { mutate: judge } = useJudge(study.id, question.id, code.id, check);
  const openDrawer = useDrawer();
  const firstUnread = answers.findIndex((one) => one.verdict === null);
  const { active, goTo, rowOf } = useReadRows(answers.length, firstUnread);
  const read = answers.filter((one) => one.verdict !== null).length;
  useCommands(
    checkCommands,
    {
      active,
      goTo,
      judge: (verdict) => judge({ responseId: answers[active]!.responseId, verdict }),
    },
    checkHelp,
  );
  return (
    <div className="flex min-h-0 min-w-0 flex-col">
      <header className="border-b border-rule px-6 py-3">
        <div className="flex flex-wrap items-baseline gap-x-3">
          <StitchMark look={code.look} />
          <h1 style={{ color: code.look.ink }}>{checkReadingTexts.spotCheck(code.name)}</h1>
          <span className="min-w-0 flex-1 text-soft">{code.definition}</span>
          <span className="figures" role="status">
            {checkReadingTexts.read(read, answers.length)}
          </span>
        </div>
        <div className="mt-2 flex flex-wrap items-center gap-x-6 gap-y-2 text-[13px] text-soft">
          {code.include && <p>{checkReadingTexts.include(code.include)}</p>}
          {code.exclude && <p>{checkReadingTexts.exclude(code.exclude)}</p>}
          <span className="ml-auto flex gap-2">
            {read === answers.length && (
              <Button
                look="main"
                onClick={() =>
                  openDrawer({
                    title: checkReadingTexts.spotChecks(code.name),
                    body: <SpotChecks code={code} study={study} question={question} />,
                  })
                }
              >
                {checkReadingTexts.seeWhatFound}
              </Button>
            )}
            <Link to="?" className="self-center underline">
              {checkReadingTexts.backLine}
            </Link>
          </span>
        </div>
      </header>
      <div role="feed" aria-label={checkReadingTexts.answersSpotCheck2} className="list">
        {answers.map(({ responseId, text, verdict }, at) => (
          <ReadRow key={responseId} {...rowOf(at)} className="grid-cols-[minmax(0,1fr)_270px]">
            <p className="voice max-w-[44rem] break-words">{text}</p>
            <span className="flex justify-end gap-1">
              {verdicts.map(({ verdict: one, name }) => (
                <button
                  key={one}
                  type="button"
                  tabIndex={at === active ? 0 : -1}
                  aria-pressed={verdict === one}
                  className="rounded border border-rule bg-card px-2 py-0.5 text-[13px] hover:border-soft aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
                  onClick={() => judge({ responseId, verdict: verdict === one ? null : one })}
                >
                  {name}
                </button>
              ))}
            </span>
          </ReadRow>
        ))}
      </div>
    </div>
  );
}
