import type { LedgerAnswer, Mention } from '@yellow-thread/contract';
import { lineOfPassage, linesOf } from '@yellow-thread/core/coding';
import { findAsides, type Span } from '@yellow-thread/core/text';
import { memo, useMemo } from 'react';
import type { DrawnCodebook } from '../data/codebook.js';
import { useCode } from '../data/coding.js';
import { usePlace } from '../frame/place.js';
import { Knot } from '../parts/knot.js';
import { CodeField } from './codeField.js';
import { CodeLabel } from './codeLabel.js';
import { ledgerGrid } from './ledgerGrid.js';
import { LedgerLine } from './ledgerLine.js';
import { WHOLE, type LedgerPosition, type Place } from './useLedgerPosition.js';

export interface LedgerAnswerProps {
  answer: LedgerAnswer;
  /** Who wrote it, in a few words. */
  about: string;
  codebook: DrawnCodebook;
  /** Where one is, when it is in this answer. */
  place: Place | null;
  index: number;
  position: LedgerPosition;
  /** The mention that is pointed at. */
  lifted: string | null;
  onLift: (mention: string | null) => void;
}

/** One answer: a head row, a row a line, and the code field at its foot while one is in it. */
export const LedgerAnswerRow = memo(function LedgerAnswerRow({
  answer,
  about,
  codebook,
  place,
  index,
  position,
  lifted,
  onLift,
}: LedgerAnswerProps) {
  const { study, question } = usePlace();
  const { mutate: change } = useCode(study.id, question.id);
  const written = useMemo(
    () => (answer.noAnswer ? [] : linesOf(answer.text, study.asides)),
    [answer.noAnswer, answer.text, study.asides],
  );
  const lines = useMemo(() => written.filter((line) => !line.isAside), [written]);
  const asides = useMemo(() => findAsides(answer.text, study.asides), [answer.text, study.asides]);
  const { whole, byLine } = useMemo(() => deal(answer.mentions, lines), [answer.mentions, lines]);
  const label = (mention: Mention) => (
    <CodeLabel
      key={mention.id}
      mention={mention}
      code={codebook.byId.get(mention.codeId)}
      lifted={lifted === mention.id}
      onLift={onLift}
      onRemove={() => change({ do: 'remove', mention })}
    />
  );
  const nothingApplies = answer.settled && answer.mentions.length === 0;
  return (
    <article
      aria-label={`Answer of ${about}`}
      aria-current={place ? 'true' : undefined}
      className={`relative border-b border-rule px-6 pb-2.5 pt-2 ${place ? 'bg-card' : ''}`}
    >
      {place && <span aria-hidden className="absolute inset-y-0 left-0 w-[3px] bg-thread" />}
      <div className={`${ledgerGrid} rounded ${place?.line === WHOLE ? 'bg-wash' : ''}`}>
        <div className="flex min-w-0 items-center gap-2 text-[13px] text-soft">
          {!answer.noAnswer && (
            <button
              type="button"
              tabIndex={-1}
              title={answer.settled ? 'Settled: open it again' : 'Open: settle it'}
              aria-label={answer.settled ? 'Settled: open it again' : 'Open: settle it'}
              onClick={() =>
                change({ do: 'settle', responseId: answer.id, settled: !answer.settled })
              }
            >
              <Knot
                state={answer.settled ? 'accepted' : 'open'}
                label={answer.settled ? 'settled' : 'open'}
              />
            </button>
          )}
          <button
            type="button"
            tabIndex={-1}
            onClick={() => position.goTo({ answer: index, line: WHOLE, passage: null })}
            className="min-w-0 truncate text-left"
          >
            {about}
          </button>
          {answer.changed && (
            <span className="shrink-0 text-deep">
              · text corrected since it was coded{' '}
              <button
                type="button"
                tabIndex={-1}
                className="underline"
                onClick={() => change({ do: 'settle', responseId: answer.id, settled: true })}
              >
                looked at
              </button>
            </span>
          )}
          {nothingApplies && <span className="shrink-0">· nothing applies</span>}
          {answer.noAnswer && <span className="shrink-0">· no answer</span>}
        </div>
        <div className="flex flex-wrap gap-x-3 gap-y-0.5">{whole.map(label)}</div>
      </div>
      {answer.noAnswer && (
        <p className="voice text-soft">
          {answer.text.trim() === '' ? '(left empty)' : answer.text}
        </p>
      )}
      {written.map((line) => {
        if (line.isAside)
          return (
            <p key={line.start} className="voice text-soft">
              {answer.text.slice(line.start, line.end)}
            </p>
          );
        const l = lines.indexOf(line);
        return (
          <LedgerLine
            key={line.start}
            text={answer.text}
            line={line}
            asides={asides}
            mentions={byLine[l]!}
            codebook={codebook}
            active={place?.line === l}
            passage={place?.line === l ? place.passage : null}
            lifted={lifted}
            onPlace={(passage) => position.goTo({ answer: index, line: l, passage })}
          >
            {byLine[l]!.map(label)}
          </LedgerLine>
        );
      })}
      {place && !answer.noAnswer && (
        <CodeField
          answer={answer}
          lines={lines}
          place={place}
          position={position}
          codebook={codebook}
          onChange={change}
        />
      )}
    </article>
  );
});

/** Deals mentions out to the lines that they begin in. */
function deal(mentions: Mention[], lines: readonly Span[]) {
  const whole: Mention[] = [];
  const byLine: Mention[][] = lines.map(() => []);
  for (const mention of mentions) {
    const { start, end } = mention;
    const l = lineOfPassage(lines, start === null || end === null ? null : { start, end });
    (byLine[l] ?? whole).push(mention);
  }
  return { whole, byLine };
}
