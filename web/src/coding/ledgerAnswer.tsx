import type { LedgerAnswer, Mention, WordMatch } from '@yellow-thread/contract';
import { lineOfPassage, linesOf } from '@yellow-thread/core/coding';
import { blankAsides, findAsides, findHits, type Span } from '@yellow-thread/core/text';
import { memo, useMemo, type RefObject } from 'react';
import { wasHelpedWith } from '../data/assistant.js';
import type { SeenCodebook } from '../data/codebook.js';
import type { CodingChange } from '../data/coding.js';
import { useDrawer } from '../frame/drawer.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Knot } from '../parts/knot.js';
import { mentionByHand } from './answerPlace.js';
import { CodeField } from './codeField.js';
import { CodeLabel } from './codeLabel.js';
import { ledgerGrid } from './ledgerGrid.js';
import { LedgerLine } from './ledgerLine.js';
import { AnswerNotes } from './answerNotes.js';
import { RespondentDrawer } from './respondentDrawer.js';
import { SameAnswers } from './sameAnswers.js';
import { proposalsOf } from './proposals.js';
import { AlsoOffered, Proposed, shownSuggestions, Suggested } from './suggested.js';
import { WHOLE, type LedgerPosition, type LedgerCell } from './useLedgerPosition.js';
import { ledgerAnswerTexts } from './texts.js';

export interface LedgerAnswerProps {
  answer: LedgerAnswer;
  /** Who wrote it, in a few words. */
  about: string;
  /** How many answers have the same words. */
  count: number;
  /** The answer before it, where that is nearly the same. */
  before: LedgerAnswer | null;
  codebook: SeenCodebook;
  /** Where one is, when it is in this answer. */
  place: LedgerCell | null;
  index: number;
  /** How many answers there are in the list. */
  total: number;
  /** Moving on, where one is in this answer. */
  position: LedgerPosition | null;
  goTo: LedgerPosition['goTo'];
  /** The mention that is pointed at. */
  lifted: string | null;
  onLift: (mention: string | null) => void;
  /** Whether the list is of answers where no code is likely. */
  offersNothing: boolean;
  /** Where answers are read one by one with what the models propose: codes given most first; null elsewhere. */
  frequent: readonly string[] | null;
  /** Codes of which the reader pressed the digit here. */
  toggled: ReadonlySet<string>;
  onToggle: (answer: number, codeId: string) => void;
  /** What is looked for. */
  words: string;
  match: WordMatch;
  /** What was typed before the field was there. */
  typedAheadRef: RefObject<string>;
  onChange: (change: CodingChange) => void;
}

/** What follows from an answer and where one is: its lines, what stands in them, and what is proposed. */
function useAnswerView({
  answer,
  codebook,
  words,
  match,
  frequent,
  toggled,
  onToggle,
}: LedgerAnswerProps) {
  const { study } = useStudyLocation();
  const { text, noAnswer, cuts } = answer;
  const written = useMemo(
    () => (noAnswer ? [] : linesOf(text, study.asides, cuts)),
    [noAnswer, text, cuts, study.asides],
  );
  const lines = useMemo(() => written.filter((line) => !line.isAside), [written]);
  const asides = useMemo(() => findAsides(text, study.asides), [text, study.asides]);
  const hits = useMemo(
    () => (words.trim() === '' ? [] : findHits(blankAsides(text, study.asides), words, match)),
    [text, study.asides, words, match],
  );
  const mentions = useMemo(() => byPlace(answer.mentions, lines), [answer.mentions, lines]);
  const reading = useMemo(
    () =>
      frequent && {
        proposals: proposalsOf(answer, lines, frequent, toggled),
        toggle: (codeId: string) => onToggle(answer.id, codeId),
      },
    [frequent, answer, lines, toggled, onToggle],
  );
  const proposedAt = (line: number | null) =>
    reading?.proposals.map(
      (proposal, p) =>
        proposal.isShown &&
        proposal.line === line && (
          <Proposed
            key={proposal.codeId}
            proposal={proposal}
            number={p + 1}
            codebook={codebook}
            onToggle={() => reading.toggle(proposal.codeId)}
          />
        ),
    );
  return { written, lines, asides, hits, ...mentions, reading, proposedAt };
}

type AnswerView = ReturnType<typeof useAnswerView>;

/** One answer: a head row, a row a line, and the code field at its foot while one is in it. */
export const LedgerAnswerRow = memo(function LedgerAnswerRow(props: LedgerAnswerProps) {
  const { answer, about, count, codebook, place, index, position, onChange } = props;
  const view = useAnswerView(props);
  const { lines, byLine, whole, reading, proposedAt } = view;
  const { text, noAnswer } = answer;
  const toSame = count > 1;
  const settle = () =>
    onChange({ do: 'settle', responseId: answer.id, settled: true, toSame, assisted: true });
  return (
    <article
      aria-label={ledgerAnswerTexts.answer(about)}
      aria-posinset={index + 1}
      aria-setsize={props.total}
      aria-current={place ? 'true' : undefined}
      className={`relative border-b border-rule px-6 pb-2.5 pt-2 max-sm:px-3 ${place ? 'bg-card' : ''}`}
    >
      {place && <span aria-hidden className="absolute inset-y-0 left-0 w-[3px] bg-thread" />}
      <div className={`${ledgerGrid} rounded ${place?.line === WHOLE ? 'bg-wash' : ''}`}>
        <AnswerHead {...props} />
        <div className="flex flex-wrap gap-x-3 gap-y-0.5">
          <MentionLabels {...props} mentions={whole} lines={lines} />
          {proposedAt(null)}
          {!reading && (
            <Suggested
              answer={answer}
              offersNothing={props.offersNothing}
              codebook={codebook}
              onDecide={(mention, accepted) =>
                onChange({ do: 'decide', mention, accepted, toSame })
              }
              onNothing={settle}
            />
          )}
        </div>
      </div>
      {noAnswer && (
        <p className="voice text-soft">{text.trim() === '' ? ledgerAnswerTexts.leftEmpty : text}</p>
      )}
      <AnswerLines {...props} view={view} />
      <AnswerNotes answer={answer} codebook={codebook} onChange={onChange} />
      {place && reading && (
        <AlsoOffered proposals={reading.proposals} codebook={codebook} onToggle={reading.toggle} />
      )}
      {answer.isWithheld && (
        <p className="mt-1.5 text-[13px] text-soft">{ledgerAnswerTexts.youCodeAnswerYour}</p>
      )}
      {place && position && !noAnswer && !answer.isWithheld && (
        <CodeField
          answer={answer}
          lines={lines}
          byLine={byLine}
          place={place}
          position={position}
          toSame={toSame}
          before={props.before}
          codebook={codebook}
          reading={reading}
          typedAheadRef={props.typedAheadRef}
          onChange={onChange}
        />
      )}
    </article>
  );
});

/** The lines of an answer as they are written, the interviewer's between them. */
function AnswerLines({ view, ...props }: LedgerAnswerProps & { view: AnswerView }) {
  const { answer, codebook, count, place, index, goTo, lifted, onLift, onChange } = props;
  const { written, lines, asides, hits, byLine, proposedAt } = view;
  const { text } = answer;
  /** A passage belongs to its first line, wherever the pointer was released. */
  const lineOf = (passage: Span | null, l: number) => (passage ? lineOfPassage(lines, passage) : l);
  return written.map((line) => {
    if (line.isAside)
      return (
        <p key={line.start} className="voice text-soft">
          {text.slice(line.start, line.end)}
        </p>
      );
    const l = lines.indexOf(line);
    return (
      <LedgerLine
        key={line.start}
        responseId={answer.id}
        text={text}
        line={line}
        asides={asides}
        hits={hits}
        notes={answer.notes}
        mentions={mentionsWithin(answer.mentions, line)}
        codebook={codebook}
        active={place?.line === l}
        passage={place?.passage ?? null}
        lifted={lifted}
        onLift={onLift}
        onPlace={(passage) => goTo({ answer: index, line: lineOf(passage, l), passage })}
        onMenu={(passage) =>
          goTo({ answer: index, line: lineOf(passage, l), passage, menu: Date.now() })
        }
        onCode={(codeId, passage) =>
          onChange({
            do: 'add',
            toSame: count > 1,
            mention: mentionByHand({ responseId: answer.id, codeId, coderId: 0 }, passage),
          })
        }
      >
        <MentionLabels {...props} mentions={byLine[l]!} lines={lines} />
        {proposedAt(l)}
      </LedgerLine>
    );
  });
}

/** Codes that were given, each with what can be done with it. */
function MentionLabels({
  mentions,
  lines,
  codebook,
  count,
  place,
  index,
  goTo,
  lifted,
  onLift,
  onChange,
}: LedgerAnswerProps & { mentions: readonly Mention[]; lines: Span[] }) {
  const replace = ({ id, start, end }: Mention) => {
    const passage = start === null || end === null ? null : { start, end };
    const line = lineOfPassage(lines, passage);
    goTo({ answer: index, line, passage: null, replacing: id });
  };
  return mentions.map((mention) => (
    <CodeLabel
      key={mention.id}
      mention={mention}
      code={codebook.byId.get(mention.codeId)}
      lifted={lifted === mention.id}
      onLift={onLift}
      onRemove={() => onChange({ do: 'remove', mention, toSame: count > 1 })}
      onReplace={() => replace(mention)}
      onMove={
        place?.passage
          ? () => {
              onChange({ do: 'edit', from: mention, to: { ...mention, ...place.passage } });
              goTo({ ...place, passage: null });
            }
          : null
      }
      onTypical={() =>
        onChange({ do: 'edit', from: mention, to: { ...mention, typical: !mention.typical } })
      }
    />
  ));
}

/** Who wrote it, how it stands, and what else there is to it. */
function AnswerHead({
  answer,
  about,
  count,
  before,
  codebook,
  index,
  goTo,
  onChange,
}: LedgerAnswerProps) {
  const { study, question } = useStudyLocation();
  const openDrawer = useDrawer();
  const toSame = count > 1;
  const settle = (settled: boolean) =>
    onChange({
      do: 'settle',
      responseId: answer.id,
      settled,
      toSame,
      assisted: shownSuggestions(answer).length > 0 || wasHelpedWith(answer.id),
    });
  const settled = answer.settled
    ? ledgerAnswerTexts.settledOpenAgain
    : ledgerAnswerTexts.openSettle;
  return (
    <div className="flex min-w-0 items-center gap-2 text-[13px] text-soft">
      {!answer.noAnswer && !answer.isWithheld && (
        <button
          type="button"
          tabIndex={-1}
          title={settled}
          aria-label={settled}
          onClick={() => settle(!answer.settled)}
        >
          <Knot
            state={answer.settled ? 'accepted' : 'open'}
            label={answer.settled ? ledgerAnswerTexts.settled : ledgerAnswerTexts.open}
          />
        </button>
      )}
      <button
        type="button"
        tabIndex={-1}
        onClick={() => goTo({ answer: index, line: WHOLE, passage: null })}
        onDoubleClick={() =>
          openDrawer({
            title: answer.externalId,
            body: <RespondentDrawer study={study} answer={answer} codebook={codebook} />,
          })
        }
        title={ledgerAnswerTexts.wholeAnswerTwiceRespondent}
        className="min-w-0 truncate text-left"
      >
        {about}
      </button>
      {count > 1 && (
        <button
          type="button"
          tabIndex={-1}
          className="shrink-0 underline"
          onClick={() =>
            openDrawer({
              title: ledgerAnswerTexts.answersSameWords(count),
              body: (
                <SameAnswers
                  study={study.id}
                  question={question.id}
                  answer={answer}
                  codebook={codebook}
                />
              ),
            })
          }
        >
          {ledgerAnswerTexts.sameWords(count)}
        </button>
      )}
      {before && (
        <span className="shrink-0 text-deep">{ledgerAnswerTexts.nearlySameOneBefore}</span>
      )}
      {answer.changed && (
        <span className="shrink-0 text-deep">
          {ledgerAnswerTexts.textCorrectedSinceCoded}
          <button type="button" tabIndex={-1} className="underline" onClick={() => settle(true)}>
            {ledgerAnswerTexts.looked}
          </button>
        </span>
      )}
      {answer.notes.some((note) => note.unsure) && (
        <span className="shrink-0 text-deep">{ledgerAnswerTexts.unsure}</span>
      )}
      {answer.settled && !answer.isWithheld && answer.mentions.length === 0 && (
        <span className="shrink-0">{ledgerAnswerTexts.nothingApplies}</span>
      )}
      {answer.noAnswer && <span className="shrink-0">{ledgerAnswerTexts.noAnswer}</span>}
    </div>
  );
}

/** Mentions of passages within a line. */
const mentionsWithin = (mentions: readonly Mention[], line: Span) =>
  mentions.filter(({ start, end }) => start !== null && start < line.end && end! > line.start);

/** Groups mentions by the line that they begin in. */
function byPlace(mentions: Mention[], lines: readonly Span[]) {
  const whole: Mention[] = [];
  const byLine: Mention[][] = lines.map(() => []);
  for (const mention of mentions) {
    const { start, end } = mention;
    const l = lineOfPassage(lines, start === null || end === null ? null : { start, end });
    (byLine[l] ?? whole).push(mention);
  }
  return { whole, byLine };
}
