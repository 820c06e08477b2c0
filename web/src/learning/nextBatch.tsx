import type { Training } from '@yellow-thread/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { DrawnCodebook } from '../data/codebook.js';
import { useTelling } from '../data/learning.js';
import { useDrawSample } from '../data/sampling.js';
import { useCommands } from '../frame/commands.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { PageProblem, ProblemNote, Waiting } from '../parts/notices.js';
import { StitchMark } from '../parts/stitch.js';
import { nextBatchCommands, nextBatchHelp } from './commands.js';
import { nextBatchTexts } from './texts.js';

const sizes = [10, 20, 50];
/** A gain in average precision that is not worth fifty answers of work. */
const littleGain = 0.01;

/** What to code by hand next, and why; or that more coding will not help. */
export function NextBatch({ training, codebook }: { training: Training; codebook: DrawnCodebook }) {
  const { study, question } = useStudyLocation();
  const [size, setSize] = useState(20);
  const telling = useTelling(study.id, question.id, size);
  const draw = useDrawSample(study.id, question.id);
  const navigate = useNavigate();
  const code = (kind: 'most_telling' | 'random') =>
    draw.mutate(
      { kind, size, variableId: null },
      { onSuccess: () => void navigate('../code?show=sample_open') },
    );
  const found = telling.data?.answers.length ?? 0;
  useCommands(
    nextBatchCommands,
    { code: found === 0 || draw.isPending ? null : () => code('most_telling') },
    nextBatchHelp,
  );
  if (telling.isError) return <PageProblem error={telling.error} />;
  if (!telling.data) return <Waiting what={nextBatchTexts.answersWouldTeachMost} />;
  const { answers } = telling.data;
  return (
    <>
      <p className="max-w-3xl">{whatMoreBrings(training)}</p>
      <div className="my-4 flex flex-wrap items-center gap-3">
        <Choice
          label={nextBatchTexts.howMany}
          value={size}
          onChange={(event) => setSize(Number(event.target.value))}
        >
          {sizes.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </Choice>
        <Button
          look="main"
          disabled={found === 0 || draw.isPending}
          onClick={() => code('most_telling')}
        >
          {nextBatchTexts.code(found)}{' '}
          <kbd className="border-soft bg-transparent">{nextBatchTexts.c}</kbd>
        </Button>
        <Button disabled={draw.isPending} onClick={() => code('random')}>
          {nextBatchTexts.codeRandomInstead(size)}
        </Button>
        <span className="text-[13px] text-soft">{nextBatchTexts.onlyAnswersDrawnRandom}</span>
      </div>
      {draw.error && <ProblemNote error={draw.error} />}
      {found === 0 && <p className="text-soft">{nextBatchTexts.noOpenAnswerLeft}</p>}
      <ul>
        {answers.map(({ responseId, text, nearLineOf, nearestTo }) => {
          const drawn = codebook.byId.get(nearLineOf ?? nearestTo ?? '');
          return (
            <li
              key={responseId}
              className="grid grid-cols-[minmax(0,1fr)_260px] gap-6 border-b border-rule py-2"
            >
              <p className="font-serif text-[16px]">{text}</p>
              <p className="flex items-center gap-2 self-start text-[13px] text-soft">
                {drawn ? (
                  <>
                    {nearLineOf === null ? nextBatchTexts.nearestTo : nextBatchTexts.nearLine}
                    <StitchMark look={drawn.look} />
                    {drawn.name}
                  </>
                ) : (
                  nextBatchTexts.unlikeAnythingCoded
                )}
              </p>
            </li>
          );
        })}
      </ul>
    </>
  );
}

/** Says how much fifty more settled answers would help. */
function whatMoreBrings({ run }: Training): string {
  const gains = (run?.codes ?? []).flatMap((code) =>
    code.state === 'too_few' || !code.gain ? [] : [code.gain],
  );
  if (gains.length === 0) return nextBatchTexts.howMuchMoreCoding;
  const mean = gains.reduce((sum, gain) => sum + gain.value, 0) / gains.length;
  const helped = gains.filter((gain) => gain.value >= littleGain).length;
  if (helped === 0) return nextBatchTexts.coding50MoreAnswers(littleGain);
  return mean < littleGain
    ? nextBatchTexts.coding50MoreAnswersWould(helped, gains.length)
    : nextBatchTexts.coding50MoreAnswersWouldHelp(helped, gains.length, mean);
}
