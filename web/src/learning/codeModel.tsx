import type { ExcludedWord, Trained, Training } from '@yellow-thread/contract';
import { isFunctionWord } from '@yellow-thread/core/text';
import { useState } from 'react';
import { Link } from 'react-router';
import type { DrawnCode } from '../data/codebook.js';
import { useAnswers } from '../data/coding.js';
import { useIncludeWord, useExcludeWord, useTrain, useTraining } from '../data/learning.js';
import { stopPath, type StudyLocation } from '../frame/studyLocation.js';
import { Term } from '../help/term.js';
import { Button } from '../parts/button.js';
import { asCount, asMeasured, asShare } from '../lib/numbers.js';
import { Curve, gainWords } from './curve.js';
import { codeModelTexts } from './texts.js';

/** What a code's model goes by: its figures, its words for and against, and where it is most wrong. */
export function CodeModel({
  codeId,
  drawn,
  study,
  question,
}: StudyLocation & { codeId: string; drawn: DrawnCode }) {
  const training = useTraining(study.id, question.id).data;
  const code = training?.run?.codes.find((one) => one.codeId === codeId);
  if (!training || !code || code.state === 'too_few') return <p>{codeModelTexts.noModelAnyMore}</p>;
  const excluded = training.excluded.filter((one) => one.codeId === codeId || one.codeId === null);
  return (
    <div className="flex flex-col gap-6">
      {drawn.definition && <p>{drawn.definition}</p>}
      <Figures code={code} />
      <section>
        <h2>{codeModelTexts.moreAnswers}</h2>
        <p className="text-soft">{codeModelTexts.averagePrecisionHowMany(gainWords(code))}</p>
        <Curve code={code} wide />
      </section>
      <Words
        title={codeModelTexts.words}
        words={code.wordsFor}
        codeId={codeId}
        excluded={excluded}
        study={study.id}
      />
      <Words
        title={codeModelTexts.wordsAgainst}
        words={code.wordsAgainst}
        codeId={codeId}
        excluded={excluded}
        study={study.id}
      />
      <ExcludedWords
        key={training.run?.id}
        excluded={excluded}
        training={training}
        study={study}
        question={question}
      />
      <Mistakes
        place={{ study, question }}
        title={codeModelTexts.likelyButGivenHand}
        hint={codeModelTexts.slipHandCodingWords}
        mistakes={code.wrongFor}
      />
      <Mistakes
        place={{ study, question }}
        title={codeModelTexts.givenHandButUnlikely}
        hint={codeModelTexts.saidOtherWordsRest}
        mistakes={code.wrongAgainst}
      />
    </div>
  );
}

function Figures({ code }: { code: Trained }) {
  const { quality } = code;
  const figures: [name: string, value: string, term?: string][] = [
    [codeModelTexts.settledExamples, asCount(code.examples)],
    ...(code.decidedFor + code.decidedAgainst > 0
      ? ([
          [
            codeModelTexts.suggestionsReadAcceptedRefused,
            `${asCount(code.decidedFor)}, ${asCount(code.decidedAgainst)}`,
          ],
        ] as [string, string][])
      : []),
    [
      codeModelTexts.precisionLine,
      asMeasured(quality.precision, quality.precisionInterval),
      'precision',
    ],
    [codeModelTexts.recallLine, asMeasured(quality.recall, quality.recallInterval), 'recall'],
    ['F1', asMeasured(quality.f1, quality.f1Interval), 'f1'],
    [codeModelTexts.averagePrecision, asShare(quality.averagePrecision), 'average-precision'],
    ...(code.nearest === null
      ? []
      : ([[codeModelTexts.nearestCodedAnswers, asShare(code.nearest)]] as [string, string][])),
    [codeModelTexts.brierScore0Best, asShare(quality.brier), 'brier-score'],
    [codeModelTexts.defaultLine, asShare(code.threshold)],
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
  excluded,
  study,
}: {
  title: string;
  words: Trained['wordsFor'];
  codeId: string;
  excluded: ExcludedWord[];
  study: number;
}) {
  const excludeWord = useExcludeWord(study);
  const strongest = Math.max(...words.map((one) => Math.abs(one.weight)), 0);
  const [showsAll, setShowsAll] = useState(false);
  const gone = new Set(excluded.map((one) => one.word));
  const telling = words.filter(({ word }) => !isFunctionWord(word));
  const shown = showsAll ? words : telling;
  const excludeFor = (word: string, of: string | null) =>
    excludeWord.mutate({ id: crypto.randomUUID(), word, codeId: of });
  return (
    <section>
      <h2>{title}</h2>
      {shown.length === 0 && <p className="text-soft">{codeModelTexts.none}</p>}
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
              {codeModelTexts.in(weight, Math.abs(weight), answers)}
            </span>
            {gone.has(word) ? (
              <span className="w-24 text-right text-soft">{codeModelTexts.excluded}</span>
            ) : (
              <span className="flex w-24 justify-end gap-2">
                <button
                  type="button"
                  className="rounded underline"
                  aria-label={codeModelTexts.excludeForCode(word)}
                  title={codeModelTexts.excludeForCodeTitle}
                  onClick={() => excludeFor(word, codeId)}
                >
                  {codeModelTexts.exclude}
                </button>
                <button
                  type="button"
                  className="rounded underline"
                  aria-label={codeModelTexts.excludeForEveryCode(word)}
                  title={codeModelTexts.excludeForEveryCodeTitle}
                  onClick={() => excludeFor(word, null)}
                >
                  {codeModelTexts.all}
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
          {codeModelTexts.alsoWordsLikeMore(words.length, telling.length)}
        </label>
      )}
    </section>
  );
}

function ExcludedWords({
  excluded,
  training,
  study,
  question,
}: StudyLocation & { excluded: ExcludedWord[]; training: Training }) {
  const bringBack = useIncludeWord(study.id);
  const train = useTrain(study.id, question.id);
  const key = ({ word, codeId }: Pick<ExcludedWord, 'word' | 'codeId'>) => `${word} ${codeId}`;
  const inRun = new Set(training.run?.excluded.map(key));
  const now = new Set(training.excluded.map(key));
  const isAhead =
    [...now].some((one) => !inRun.has(one)) || [...inRun].some((one) => !now.has(one));
  if (excluded.length === 0 && !isAhead) return null;
  return (
    <section>
      <h2>{codeModelTexts.excludedWords}</h2>
      {isAhead && (
        <p className="flex items-center justify-between gap-3 text-soft">
          {codeModelTexts.changesTakeEffect}
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
            {codeModelTexts.trainNow}
          </Button>
        </p>
      )}
      <ul>
        {excluded.map(({ id, word, codeId }) => (
          <li key={id} className="flex items-center gap-3 border-b border-rule py-0.5">
            <span className="font-serif text-[16px]">{word}</span>
            <span className="text-[13px] text-soft">
              {codeId === null ? codeModelTexts.everyCode : codeModelTexts.code}
            </span>
            <button
              type="button"
              className="ml-auto rounded text-[13px] underline"
              onClick={() => bringBack.mutate(id)}
            >
              {codeModelTexts.bringBack}
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
  place: StudyLocation;
}) {
  const ids = mistakes.map((one) => one.responseId);
  const answers = useAnswers({
    study: study.id,
    question: question.id,
    ids,
    blocks: ids.length > 0 ? [0] : [],
  });
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
              {codeModelTexts.probability(probability)}
              <Link
                to={`${stopPath(study.id, 'code', question.id)}?like=${responseId}`}
                className="underline"
              >
                {codeModelTexts.seeCode}
              </Link>
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
