import { findCodeNamed, parseCodeName } from '@yellow-thread/core/codebook';
import { weighLikely } from '@yellow-thread/core/coding';
import type { Span } from '@yellow-thread/core/text';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { CodeField as Field, FoundCodes, useCodeCombobox } from '../studyParts/codeCombobox.js';
import { useDrawnCodebook, usePins, useSetPin } from '../data/codebook.js';
import { useNearCodes } from '../data/coding.js';
import { runCommand, usePaletteCommands } from '../frame/commands.js';
import { useDrawer } from '../frame/drawer.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { HelpDrawer } from '../assistant/helpDrawer.js';
import { inputBox, lineField } from '../parts/field.js';
import type { AnswerPlace } from './answerPlace.js';
import type { MadeWith } from './codeActions.js';
import { ledgerCommands, readingCommands, type AtAnswer } from './commands.js';
import { FieldMenu } from './fieldMenu.js';
import { ledgerGrid } from './ledgerGrid.js';
import { RespondentDrawer } from './respondentDrawer.js';
import { useAnswerActions } from './useAnswerActions.js';
import { WHOLE, type LedgerCell } from './useLedgerPosition.js';
import { codeFieldTexts } from './texts.js';

const MOST_FOUND = 7;

/** The codes that can be given here, with the evidence for each. */
function useOffered({ answer }: Pick<AnswerPlace, 'answer'>) {
  const { study, question } = useStudyLocation();
  const near = useNearCodes(study.id, answer.id).data;
  const likely = useMemo(
    () => weighLikely(answer.suggestions, near?.codes ?? []),
    [answer.suggestions, near],
  );
  // how often each was given ranks them, and stands beside them
  const counted = useDrawnCodebook(study.id);
  const codes = useMemo(
    () =>
      (counted?.codes ?? []).filter(
        (code) =>
          !code.archived && (code.questions === null || code.questions.includes(question.id)),
      ),
    [counted, question.id],
  );
  const about = (codeId: string) => {
    if (!likely.has(codeId)) return undefined;
    return answer.suggestions.some((one) => one.codeId === codeId)
      ? codeFieldTexts.likelyHere
      : codeFieldTexts.inSimilarAnswers;
  };
  return { codes, likely, about };
}

/** A code by its name, made where there is none: “theme / code” names its theme, too. */
function codeNamed(name: string, codebook: AnswerPlace['codebook']): [id: string, made: MadeWith] {
  const named = parseCodeName(name);
  const known = findCodeNamed(codebook.codes, named.code);
  if (known) return [known.id, {}];
  const id = crypto.randomUUID();
  const theme = named.theme === null ? undefined : findCodeNamed(codebook.themes, named.theme);
  const newTheme =
    named.theme === null || theme ? undefined : { id: crypto.randomUUID(), name: named.theme };
  const newCode = { id, name: named.code, themeId: theme?.id ?? newTheme?.id ?? null };
  return [id, { newCode, ...(newTheme && { newTheme }) }];
}

/** The field at the foot of the active answer: typing finds codes, Enter applies, moves on or settles. */
export function CodeField(props: AnswerPlace & { typedAheadRef: RefObject<string> }) {
  const { answer, lines, place, position, codebook, reading, typedAheadRef } = props;
  const { study } = useStudyLocation();
  const input = useRef<HTMLInputElement>(null);
  const { codes, likely, about } = useOffered(props);
  const actions = useAnswerActions(props);
  const make = (name: string) => actions.apply(...codeNamed(name, codebook));
  const combobox = useCodeCombobox(codes, {
    most: MOST_FOUND,
    likely,
    onPick: ({ id }) => actions.apply(id, {}),
    onNew: make,
  });
  const { type, typed } = combobox;
  const [noting, setNoting] = useState(false);
  useEffect(() => {
    // who filters the list by typing goes on typing there while the answers change below
    const { activeElement } = document;
    if (activeElement instanceof HTMLInputElement && !activeElement.closest('[role=feed]')) return;
    input.current?.focus({ preventScroll: true });
  }, [place, noting]);
  useEffect(() => {
    if (typedAheadRef.current !== '') type(typedAheadRef.current);
    typedAheadRef.current = '';
    // once, when the field is there
  }, []); // eslint-disable-line react-hooks/exhaustive-deps
  const { data: pins = [] } = usePins(study.id);
  const { mutate: setPin } = useSetPin(study.id);
  const openDrawer = useDrawer();
  const pinned = (digit: number) => pins.find(({ key }) => key === digit);
  const commands = reading ? readingCommands : ledgerCommands;
  const here: AtAnswer = {
    place,
    position,
    actions,
    isTyped: typed !== '',
    hasFound: combobox.highlighted !== null,
    isPinned: (digit) => pinned(digit) !== undefined,
    applyPinned: (digit) => actions.apply(pinned(digit)!.codeId, {}),
    pinFound: (digit) => {
      setPin({ key: digit, codeId: combobox.highlighted!.id });
      type('');
    },
    seesAll: study.role !== 'coder',
    writeNote: () => setNoting(true),
    showRespondent: () =>
      openDrawer({
        title: answer.externalId,
        body: <RespondentDrawer study={study} answer={answer} codebook={codebook} />,
      }),
    showHelp: () =>
      openDrawer({
        title: codeFieldTexts.help(answer.externalId),
        body: (
          <HelpDrawer
            key={answer.id}
            study={study.id}
            answer={answer}
            codebook={codebook}
            onGive={actions.give}
          />
        ),
      }),
  };
  usePaletteCommands(commands, here);
  const onKey = (event: KeyboardEvent) => {
    if (typed !== '' && event.key === 'Enter' && event.shiftKey) {
      make(combobox.name);
      type('');
      return true;
    }
    return runCommand(commands, here, event.nativeEvent);
  };
  return (
    <div className={`relative mt-1.5 ${ledgerGrid}`}>
      <p className="self-center text-[13px] text-soft">
        {place.replacing && codeFieldTexts.insteadWhat}
        <WhereTo text={answer.text} lines={lines} place={place} />
        {answer.settled && codeFieldTexts.settled}
        <FieldMenu
          commands={commands}
          context={here}
          // the same place pointed at again asks again
          key={place.menu ?? 0}
          opensAtOnce={place.menu !== undefined}
        />
      </p>
      {noting ? (
        <NoteField
          onDone={(text) => {
            setNoting(false);
            if (text !== '') actions.note(text);
          }}
        />
      ) : (
        <Field
          ref={input}
          label={codeFieldTexts.codeLine}
          combobox={combobox}
          placeholder={codeFieldTexts.typeCode}
          onKey={onKey}
          className={lineField}
        />
      )}
      <FoundCodes
        combobox={combobox}
        about={about}
        newName={
          <>
            {codeFieldTexts.newCode(combobox.name)}{' '}
            <kbd className="ml-auto">{codeFieldTexts.shiftEnter}</kbd>
          </>
        }
        className="right-0 w-[380px] max-w-full"
      />
    </div>
  );
}

/** What the next code will apply to, in words. */
function WhereTo({ text, lines, place }: { text: string; lines: Span[]; place: LedgerCell }) {
  if (place.passage)
    return (
      <>
        {codeFieldTexts.on}
        <span className="font-serif text-ink">{shorten(text, place.passage)}</span>”
      </>
    );
  if (place.line === WHOLE) return codeFieldTexts.wholeAnswer;
  return lines.length > 1 ? codeFieldTexts.line(place.line, lines.length) : codeFieldTexts.line2;
}

function NoteField({ onDone }: { onDone: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <textarea
      aria-label={codeFieldTexts.note}
      rows={2}
      maxLength={4000}
      autoFocus
      placeholder={codeFieldTexts.noteCodesNameLinks}
      className={inputBox}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => onDone(text.trim())}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onDone('');
        else if (event.key === 'Enter' && !event.shiftKey) onDone(text.trim());
        else return;
        event.preventDefault();
      }}
    />
  );
}

function shorten(text: string, { start, end }: Span): string {
  const passage = text.slice(start, end);
  return passage.length > 60 ? `${passage.slice(0, 28)} … ${passage.slice(-28)}` : passage;
}
