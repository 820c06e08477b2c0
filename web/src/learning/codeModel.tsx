import type { StruckWord, Trained, Training } from '@yellow-thread/contract';
import { isFunctionWord } from '@yellow-thread/core/text';
import { useState } from 'react';
import { Link } from 'react-router';
import type { DrawnCode } from '../data/codebook.js';
import { useAnswers } from '../data/coding.js';
import { useBringBack, useStrike, useTrain, useTraining } from '../data/learning.js';
import { stopPath, type Place } from '../frame/place.js';
import { Term } from '../help/term.js';
import { Button } from '../parts/button.js';
import { asCount, asMeasured, asShare, counted } from '../parts/numbers.js';
import { Curve, gainWords } from './curve.js';

/** What a code's model goes by: its figures, its words for and against, and where it is most wrong. */
export function CodeModel({
  codeId,
  drawn,
  study,
  question,
}: Place & { codeId: string; drawn: DrawnCode }) {
  const training = useTraining(study.id, question.id).data;
  const code = training?.run?.codes.find((one) => one.codeId === codeId);
  if (!training || !code || code.state === 'too_few') return <p>It has no model any more.</p>;
  const struck = training.struck.filter((one) => one.codeId === codeId || one.codeId === null);
  return (
    <div className="flex flex-col gap-6">
      {drawn.definition && <p>{drawn.definition}</p>}
      <Figures code={code} />
      <section>
        <h2>With more answers</h2>
        <p className="text-soft">
          Average precision by how many answers were learnt from. 50 more: {gainWords(code)}.
        </p>
        <Curve code={code} wide />
      </section>
      <Words title="Words for it" words={code.wordsFor} {...{ codeId, struck }} study={study.id} />
      <Words
        title="Words against it"
        words={code.wordsAgainst}
        {...{ codeId, struck }}
        study={study.id}
      />
      <Struck key={training.run?.id} struck={struck} training={training} {...{ study, question }} />
      <Mistakes
        place={{ study, question }}
        title="Likely, but not given by hand"
        hint="A slip in hand-coding, or words that mislead the model."
        mistakes={code.wrongFor}
      />
      <Mistakes
        place={{ study, question }}
        title="Given by hand, but unlikely"
        hint="Said in other words than the rest, or a definition that is not clear."
        mistakes={code.wrongAgainst}
      />
    </div>
  );
}

function Figures({ code }: { code: Trained }) {
  const { quality } = code;
  const figures: [name: string, value: string, term?: string][] = [
    ['settled examples', asCount(code.examples)],
    ...(code.decidedFor + code.decidedAgainst > 0
      ? ([
          [
            'suggestions read: accepted, refused',
            `${asCount(code.decidedFor)}, ${asCount(code.decidedAgainst)}`,
          ],
        ] as [string, string][])
      : []),
    [
      'precision at its line',
      asMeasured(quality.precision, quality.precisionInterval),
      'precision',
    ],
    ['recall at its line', asMeasured(quality.recall, quality.recallInterval), 'recall'],
    ['F1', asMeasured(quality.f1, quality.f1Interval), 'f1'],
    ['average precision', asShare(quality.averagePrecision), 'average-precision'],
    ...(code.nearest === null
      ? []
      : ([['by the nearest coded answers', asShare(code.nearest)]] as [string, string][])),
    ['Brier score (0 is best)', asShare(quality.brier), 'brier-score'],
    ['default line', asShare(code.line)],
  ];
  return (
    <dl className="figures grid grid-cols-[1fr_max-content] gap-y-1">
      {figures.map(([name, value, term]) => (
        <div key={name} className="contents">
          <dt>{term ? <Term of={term}>{name}</Term> : name}</dt>
          <dd className="text-right">{value}</dd>
        </div>
      ))}
    </dl>
  );
}

function Words({
  title,
  words,
  codeId,
  struck,
  study,
}: {
  title: string;
  words: Trained['wordsFor'];
  codeId: string;
  struck: StruckWord[];
  study: number;
}) {
  const strike = useStrike(study);
  const strongest = Math.max(...words.map((one) => Math.abs(one.weight)), 0);
  const [showsAll, setShowsAll] = useState(false);
  const gone = new Set(struck.map((one) => one.word));
  const telling = words.filter(({ word }) => !isFunctionWord(word));
  const shown = showsAll ? words : telling;
  const strikeFor = (word: string, of: string | null) =>
    strike.mutate({ id: crypto.randomUUID(), word, codeId: of });
  return (
    <section>
      <h2>{title}</h2>
      {shown.length === 0 && <p className="text-soft">none</p>}
      <ul>
        {shown.map(({ word, weight, answers }) => (
          <li
            key={word}
            className="group flex items-center gap-3 border-b border-rule py-0.5 text-[13px]"
          >
            <span
              className={`w-28 truncate font-serif text-[16px] ${gone.has(word) ? 'text-soft line-through' : ''}`}
            >
              {word}
            </span>
            <span
              aria-hidden
              className="block h-2 bg-soft"
              style={{ width: `${(70 * Math.abs(weight)) / strongest}px` }}
            />
            <span className="figures ml-auto whitespace-nowrap text-soft">
              {weight > 0 ? '+' : '−'}
              {asShare(Math.abs(weight))} in {counted(answers, 'answer')}
            </span>
            {gone.has(word) ? (
              <span className="w-24 text-right text-soft">struck out</span>
            ) : (
              <span className="flex w-24 justify-end gap-2">
                <button
                  type="button"
                  className="rounded underline"
                  aria-label={`Strike “${word}” out for this code`}
                  title="Strike it out for this code"
                  onClick={() => strikeFor(word, codeId)}
                >
                  strike
                </button>
                <button
                  type="button"
                  className="rounded underline"
                  aria-label={`Strike “${word}” out for every code`}
                  title="Strike it out for every code"
                  onClick={() => strikeFor(word, null)}
                >
                  for all
                </button>
              </span>
            )}
          </li>
        ))}
      </ul>
      {telling.length < words.length && (
        <label className="mt-1 inline-flex items-center gap-2 text-[13px] text-soft">
          <input
            type="checkbox"
            className="accent-ink"
            checked={showsAll}
            onChange={() => setShowsAll(!showsAll)}
          />
          also words like “the”, “and”, “more” ({asCount(words.length - telling.length)})
        </label>
      )}
    </section>
  );
}

function Struck({
  struck,
  training,
  study,
  question,
}: Place & { struck: StruckWord[]; training: Training }) {
  const bringBack = useBringBack(study.id);
  const train = useTrain(study.id, question.id);
  const key = ({ word, codeId }: Pick<StruckWord, 'word' | 'codeId'>) => `${word} ${codeId}`;
  const inRun = new Set(training.run?.struck.map(key));
  const now = new Set(training.struck.map(key));
  const isAhead =
    [...now].some((one) => !inRun.has(one)) || [...inRun].some((one) => !now.has(one));
  if (struck.length === 0 && !isAhead) return null;
  return (
    <section>
      <h2>Struck out</h2>
      {isAhead && (
        <p className="flex items-center justify-between gap-3 text-soft">
          What was struck out or brought back takes effect with the next training.
          <Button
            className="shrink-0"
            disabled={train.isPending || train.isSuccess}
            onClick={() =>
              train.mutate({
                scope: training.run?.scope ?? '',
                learnFromBulk: training.run?.learntFromBulk ?? false,
              })
            }
          >
            Train now
          </Button>
        </p>
      )}
      <ul>
        {struck.map(({ id, word, codeId }) => (
          <li key={id} className="flex items-center gap-3 border-b border-rule py-0.5">
            <span className="font-serif text-[16px]">{word}</span>
            <span className="text-[13px] text-soft">
              {codeId === null ? 'for every code' : 'for this code'}
            </span>
            <button
              type="button"
              className="ml-auto rounded text-[13px] underline"
              onClick={() => bringBack.mutate(id)}
            >
              bring back
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Mistakes({
  title,
  hint,
  mistakes,
  place: { study, question },
}: {
  title: string;
  hint: string;
  mistakes: Trained['wrongFor'];
  place: Place;
}) {
  const ids = mistakes.map((one) => one.responseId);
  const answers = useAnswers(study.id, question.id, ids, ids.length > 0 ? [0] : []);
  if (mistakes.length === 0) return null;
  return (
    <section>
      <h2>{title}</h2>
      <p className="text-soft">{hint}</p>
      <ul>
        {mistakes.map(({ responseId, probability }) => (
          <li key={responseId} className="border-b border-rule py-2">
            <p className="font-serif text-[16px]">{answers.get(responseId)?.text ?? '…'}</p>
            <p className="figures flex justify-between text-[13px] text-soft">
              probability {asShare(probability)}
              <Link
                to={`${stopPath(study.id, 'code', question.id)}?like=${responseId}`}
                className="underline"
              >
                see it in Code
              </Link>
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
