import { findCodeNamed, parseCodeName } from '@yellow-thread/core/codebook';
import { weighLikely } from '@yellow-thread/core/coding';
import type { Span } from '@yellow-thread/core/text';
import {
  useEffect,
  useId,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type RefObject,
} from 'react';
import { CodeInput, searchKey } from '../parts/codeInput.js';
import { FoundCodes, useCodeSearch } from '../parts/foundCodes.js';
import { useDrawnCodebook, usePins, useSetPin } from '../data/codebook.js';
import { useNearCodes } from '../data/coding.js';
import { useDrawer } from '../frame/drawer.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { inputBox } from '../parts/field.js';
import { FieldMenu } from './fieldMenu.js';
import { ledgerGrid } from './ledgerGrid.js';
import { RespondentDrawer } from './respondentDrawer.js';
import { useAnswerActions, type CodeFieldProps } from './useAnswerActions.js';
import { WHOLE, type LedgerCell } from './useLedgerPosition.js';
import { codeFieldTexts } from './texts.js';

/** The field at the foot of the active answer: typing finds codes, Enter applies, moves on or settles. */
export function CodeField(props: CodeFieldProps & { typedAheadRef: RefObject<string> }) {
  const { answer, lines, place, codebook } = props;
  const { study, question } = useStudyLocation();
  const input = useRef<HTMLInputElement>(null);
  const list = useId();
  const near = useNearCodes(study.id, answer.id).data;
  const { likely, about } = useMemo(() => {
    const likely = weighLikely(answer.suggestions, near?.codes ?? []);
    const suggested = new Set(answer.suggestions.map(({ codeId }) => codeId));
    return {
      likely,
      about: (codeId: string) => {
        if (!likely.has(codeId)) return undefined;
        return suggested.has(codeId) ? 'likely here' : 'in similar answers';
      },
    };
  }, [answer.suggestions, near]);
  // how often each was given ranks them, and stands beside them
  const counted = useDrawnCodebook(study.id);
  const offered = useMemo(
    () =>
      (counted?.codes ?? []).filter(
        (code) =>
          !code.archived && (code.questions === null || code.questions.includes(question.id)),
      ),
    [counted, question.id],
  );
  const search = useCodeSearch(offered, { most: 7, offersNew: true, likely });
  const [noting, setNoting] = useState(false);
  useEffect(() => {
    // who narrows the list by typing goes on typing there while the answers change below
    const { activeElement } = document;
    if (activeElement instanceof HTMLInputElement && activeElement.dataset['codes'] !== 'field')
      return;
    input.current?.focus({ preventScroll: true });
  }, [place, noting]);
  const { typedAheadRef } = props;
  const { type } = search;
  useEffect(() => {
    if (typedAheadRef.current !== '') type(typedAheadRef.current);
    typedAheadRef.current = '';
    // once, when the field is there
  }, []); // eslint-disable-line react-hooks/exhaustive-deps
  const actions = useAnswerActions(props);
  const { data: pins = [] } = usePins(study.id);
  const { mutate: setPin } = useSetPin(study.id);
  const openDrawer = useDrawer();

  const apply = (codeId: string, made: Parameters<typeof actions.apply>[1] = {}) => {
    actions.apply(codeId, made);
    search.type('');
  };
  const makeAndApply = () => {
    const named = parseCodeName(search.name);
    const known = findCodeNamed(codebook.codes, named.code);
    if (known) return apply(known.id);
    const id = crypto.randomUUID();
    const theme = named.theme === null ? undefined : findCodeNamed(codebook.themes, named.theme);
    const newTheme =
      named.theme === null || theme ? undefined : { id: crypto.randomUUID(), name: named.theme };
    const newCode = { id, name: named.code, themeId: theme?.id ?? newTheme?.id ?? null };
    apply(id, { newCode, ...(newTheme && { newTheme }) });
  };
  const pick = (found: number) => {
    const code = search.found[found];
    if (code) apply(code.id);
    else makeAndApply();
  };

  const showRespondent = () =>
    openDrawer({
      title: answer.externalId,
      body: <RespondentDrawer study={study} answer={answer} codebook={codebook} />,
    });
  const onAltKey = (event: KeyboardEvent) => {
    const digit = /^Digit([1-9])$/u.exec(event.code)?.[1];
    const code = search.found[search.chosen];
    if (digit && code) {
      setPin({ key: Number(digit), codeId: code.id });
      return search.type('');
    }
    switch (event.code) {
      case 'ArrowRight':
        return event.shiftKey ? actions.markWord(1, 'start') : false;
      case 'ArrowLeft':
        return event.shiftKey ? actions.markWord(-1, 'start') : false;
      case 'KeyU':
        return actions.unsure();
      case 'KeyM':
        return actions.mark();
      case 'KeyN':
        return setNoting(true);
      case 'KeyS':
        return actions.part();
      case 'KeyJ':
        return actions.join();
      case 'KeyX':
        return actions.exchange();
      case 'KeyP':
        return actions.moveToPassage();
      case 'KeyE':
        return actions.typical();
      case 'KeyA':
        return actions.decide(true);
      case 'KeyO':
        return actions.decide(false);
      case 'KeyB':
        return actions.asBefore();
      case 'KeyR':
        return showRespondent();
      default:
        return false;
    }
  };
  const onTypedKey = (event: KeyboardEvent) =>
    searchKey(search, event, () => (event.shiftKey ? makeAndApply() : pick(search.chosen)));
  const onEmptyKey = (event: KeyboardEvent) => {
    const isDigit = /^[1-9]$/u.test(event.key);
    if (isDigit && props.reading) return actions.press(Number(event.key));
    const pinned = isDigit && pins.find(({ key }) => key === Number(event.key));
    return pinned ? apply(pinned.codeId) : actions.onKey(event);
  };
  return (
    <div className={`relative mt-1.5 ${ledgerGrid}`}>
      <p className="self-center text-[13px] text-soft">
        {place.replacing && codeFieldTexts.insteadWhat}
        <WhereTo text={answer.text} lines={lines} place={place} />
        {answer.settled && codeFieldTexts.settled}
        <FieldMenu
          actions={actions}
          // the same place pointed at again asks again
          key={place.menu ?? 0}
          opensAtOnce={place.menu !== undefined}
          onNote={() => setNoting(true)}
          onRespondent={showRespondent}
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
        <CodeInput
          ref={input}
          label={codeFieldTexts.codeLine}
          list={list}
          search={search}
          onKey={(event) => {
            const onKey = event.altKey ? onAltKey : search.typed === '' ? onEmptyKey : onTypedKey;
            return onKey(event);
          }}
        />
      )}
      <FoundCodes
        id={list}
        search={search}
        about={about}
        newName={
          <>
            {codeFieldTexts.newCode(search.name)}{' '}
            <kbd className="ml-auto">{codeFieldTexts.shiftEnter}</kbd>
          </>
        }
        className="right-0 w-[380px] max-w-full"
        onPick={pick}
      />
    </div>
  );
}

/** What the next code will rest on, in words. */
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
