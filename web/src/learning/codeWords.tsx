import type { TrainedCode } from '@yellow-thread/contract';
import { asCount, asShare } from '../parts/numbers.js';

type Trained = Exclude<TrainedCode, { state: 'too_few' }>;

/** What a code's model goes by: its words for and against, and its measured figures. */
export function CodeWords({ code, definition }: { code: Trained; definition: string }) {
  const { quality } = code;
  return (
    <div className="flex flex-col gap-5">
      {definition && <p>{definition}</p>}
      <dl className="figures grid grid-cols-[1fr_max-content] gap-y-1">
        <dt>examples</dt>
        <dd className="text-right">{asCount(code.examples)}</dd>
        <dt>right at its line (precision)</dt>
        <dd className="text-right">
          {asShare(quality.precision)} ({quality.precisionInterval.map(asShare).join('–')})
        </dd>
        <dt>found at its line (recall)</dt>
        <dd className="text-right">
          {asShare(quality.recall)} ({quality.recallInterval.map(asShare).join('–')})
        </dd>
        <dt>F1</dt>
        <dd className="text-right">
          {asShare(quality.f1)} ({quality.f1Interval.map(asShare).join('–')})
        </dd>
        <dt>average precision</dt>
        <dd className="text-right">{asShare(quality.averagePrecision)}</dd>
        <dt>Brier score (0 is best)</dt>
        <dd className="text-right">{asShare(quality.brier)}</dd>
        <dt>default line</dt>
        <dd className="text-right">{asShare(code.line)}</dd>
      </dl>
      <Words title="Words for it" words={code.wordsFor} />
      <Words title="Words against it" words={code.wordsAgainst} />
    </div>
  );
}

function Words({ title, words }: { title: string; words: Trained['wordsFor'] }) {
  const strongest = Math.max(...words.map((one) => Math.abs(one.weight)), 0);
  return (
    <section>
      <h2>{title}</h2>
      {words.length === 0 && <p className="text-soft">none</p>}
      <ul>
        {words.map(({ word, weight, answers }) => (
          <li key={word} className="flex items-center gap-3 border-b border-rule py-0.5">
            <span className="w-32 truncate font-serif text-[16px]">{word}</span>
            <span
              aria-hidden
              className="block h-2 bg-soft"
              style={{ width: `${(110 * Math.abs(weight)) / strongest}px` }}
            />
            <span className="figures ml-auto text-[13px] text-soft">
              {weight > 0 ? '+' : '−'}
              {asShare(Math.abs(weight))} in {asCount(answers)}{' '}
              {answers === 1 ? 'answer' : 'answers'}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
