import type { CodeCreate, LedgerAnswer, Mention, ShownNote } from '@yellow-thread/contract';
import { findCodeNamed, parseCodeName } from '@yellow-thread/core/codebook';
import { extendByWord, passageIn } from '@yellow-thread/core/coding';
import type { Span } from '@yellow-thread/core/text';
import { useEffect, useId, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { toast } from 'sonner';
import { FoundCodes, useCodeSearch } from '../parts/foundCodes.js';
import { usePins, useSetPin, type DrawnCodebook } from '../data/codebook.js';
import type { CodingChange } from '../data/coding.js';
import { useSession } from '../data/people.js';
import { useDrawer } from '../frame/drawer.js';
import { usePlace } from '../frame/place.js';
import { inputBox } from '../parts/field.js';
import { ledgerGrid } from './ledgerGrid.js';
import { RespondentDrawer } from './respondentDrawer.js';
import { WHOLE, type LedgerPosition, type Place } from './useLedgerPosition.js';

export interface CodeFieldProps {
  answer: LedgerAnswer;
  lines: Span[];
  byLine: Mention[][];
  place: Place;
  position: LedgerPosition;
  /** Whether what is done is done to all answers of the same words. */
  toSame: boolean;
  /** The answer before it, where that is nearly the same. */
  before: LedgerAnswer | null;
  codebook: DrawnCodebook;
  onChange: (change: CodingChange) => void;
}

/** The field at the foot of the active answer: typing finds codes, Enter applies, moves on or settles. */
export function CodeField(props: CodeFieldProps) {
  const { answer, lines, place, codebook } = props;
  const { study, question } = usePlace();
  const input = useRef<HTMLInputElement>(null);
  const list = useId();
  const likely = useMemo(
    () => new Map(answer.suggestions.map(({ codeId, probability }) => [codeId, probability])),
    [answer.suggestions],
  );
  const offered = useMemo(
    () =>
      codebook.codes.filter(
        (code) =>
          !code.archived && (code.questions === null || code.questions.includes(question.id)),
      ),
    [codebook, question.id],
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
  const deeds = useDeeds(props);
  const { data: pins = [] } = usePins(study.id);
  const { mutate: setPin } = useSetPin(study.id);
  const openDrawer = useDrawer();

  const apply = (codeId: string, made: Parameters<typeof deeds.apply>[1] = {}) => {
    deeds.apply(codeId, made);
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

  const onAltKey = (event: KeyboardEvent) => {
    const digit = /^Digit([1-9])$/u.exec(event.code)?.[1];
    const code = search.found[search.chosen];
    if (digit && code) {
      setPin({ key: Number(digit), codeId: code.id });
      return search.type('');
    }
    switch (event.code) {
      case 'KeyU':
        return deeds.unsure();
      case 'KeyM':
        return deeds.mark();
      case 'KeyN':
        return setNoting(true);
      case 'KeyS':
        return deeds.part();
      case 'KeyJ':
        return deeds.join();
      case 'KeyX':
        return deeds.exchange();
      case 'KeyP':
        return deeds.moveToPassage();
      case 'KeyE':
        return deeds.typical();
      case 'KeyB':
        return deeds.asBefore();
      case 'KeyR':
        return openDrawer({
          title: answer.externalId,
          body: <RespondentDrawer study={study} answer={answer} codebook={codebook} />,
        });
      default:
        return false;
    }
  };
  const onTypedKey = (event: KeyboardEvent) => {
    switch (event.key) {
      case 'ArrowDown':
        return search.move(1);
      case 'ArrowUp':
        return search.move(-1);
      case 'Escape':
        return search.type('');
      case 'Enter':
        return event.shiftKey ? makeAndApply() : pick(search.chosen);
      default:
        return false;
    }
  };
  const onEmptyKey = (event: KeyboardEvent) => {
    const pinned = /^[1-9]$/u.test(event.key) && pins.find(({ key }) => key === Number(event.key));
    return pinned ? apply(pinned.codeId) : deeds.onKey(event);
  };
  return (
    <div className={`relative mt-1.5 ${ledgerGrid}`}>
      <p className="self-center text-[13px] text-soft">
        {place.replacing && 'instead of what is there, '}
        <WhereTo text={answer.text} lines={lines} place={place} />
        {answer.settled && ' · settled'}
      </p>
      {noting ? (
        <NoteField
          onDone={(text) => {
            setNoting(false);
            if (text !== '') deeds.note(text);
          }}
        />
      ) : (
        <input
          ref={input}
          data-codes="field"
          role="combobox"
          aria-label="Code for this line"
          aria-expanded={search.choices > 0}
          aria-controls={list}
          aria-activedescendant={search.choices > 0 ? `${list}-${search.chosen}` : undefined}
          autoComplete="off"
          spellCheck={false}
          placeholder="type a code"
          value={search.typed}
          onChange={(event) => search.type(event.target.value)}
          onKeyDown={(event) => {
            const onKey = event.altKey ? onAltKey : search.typed === '' ? onEmptyKey : onTypedKey;
            if (onKey(event) !== false) event.preventDefault();
          }}
          className="border-b-2 border-thread bg-transparent px-1 py-0.5 outline-none placeholder:text-soft"
        />
      )}
      <FoundCodes
        id={list}
        search={search}
        likely={likely}
        newName={
          <>
            New code “{search.name}” <kbd className="ml-auto">Shift Enter</kbd>
          </>
        }
        className="right-0 w-[380px]"
        onPick={pick}
      />
    </div>
  );
}

/** What can be done at the place where one is. */
function useDeeds(props: CodeFieldProps) {
  const { answer, lines, byLine, place, position, toSame, before, onChange } = props;
  const account = useSession().data?.account;
  const line = lines[place.line];
  const target = place.passage ?? line ?? null;
  const here = byLine[place.line] ?? answer.mentions.filter(({ start }) => start === null);
  const last = here.at(-1);
  const noCode = () => void toast('There is no code here yet.');
  const settle = (settled: boolean) =>
    onChange({ do: 'settle', responseId: answer.id, settled, toSame });
  const settleAndGoOn = () => {
    if (!answer.settled) settle(true);
    position.moveAnswer(1);
  };
  const note = (text: string, unsure: boolean, passage: Span | null) => {
    const note: ShownNote = {
      id: crypto.randomUUID(),
      studyId: 0,
      responseId: answer.id,
      start: passage?.start ?? null,
      end: passage?.end ?? null,
      ...{ respondentId: null, codeId: null, text, unsure },
      authorId: account?.id ?? 0,
      author: account?.name ?? '',
      createdAt: new Date().toISOString(),
    };
    onChange({ do: 'addNote', note });
    if (place.passage) position.goTo({ ...place, passage: null });
  };
  const mentionOf = (codeId: string, passage: Span | null): Mention => ({
    id: crypto.randomUUID(),
    responseId: answer.id,
    codeId,
    coderId: account?.id ?? 0,
    start: passage?.start ?? null,
    end: passage?.end ?? null,
    origin: 'hand',
    createdAt: new Date().toISOString(),
    typical: false,
  });
  const markWord = (step: 1 | -1) => {
    if (!line) return;
    const passage = extendByWord(answer.text, line, place.passage, step);
    position.goTo({ ...place, passage });
  };
  const deeds = {
    apply(codeId: string, made: { newCode?: CodeCreate; newTheme?: { id: string; name: string } }) {
      const { replacing, ...there } = place;
      const replaced = answer.mentions.find((mention) => mention.id === replacing);
      if (replaced && !made.newCode)
        onChange({ do: 'edit', from: replaced, to: { ...replaced, codeId } });
      else {
        const { start, end } = replaced ?? { start: null, end: null };
        const there = start === null || end === null ? null : { start, end };
        const mention = mentionOf(codeId, replaced ? there : target);
        onChange({ do: 'add', mention, toSame, ...made });
        if (replaced) onChange({ do: 'remove', mention: replaced, toSame });
      }
      if (place.passage || replacing) position.goTo({ ...there, passage: null });
    },
    /** Codes a near duplicate as the answer before it was coded. */
    asBefore() {
      if (!before) return void toast('This answer is not nearly the same as the one before it.');
      const there = new Set(answer.mentions.map(({ codeId }) => codeId));
      for (const { codeId, start, end } of before.mentions) {
        if (there.has(codeId)) continue;
        const passage =
          start === null || end === null
            ? null
            : passageIn(before.text, { start, end }, answer.text);
        onChange({ do: 'add', toSame, mention: mentionOf(codeId, passage) });
      }
    },
    note: (text: string) => note(text, false, place.passage ?? (lines.length > 1 ? target : null)),
    mark: () =>
      target && place.line !== WHOLE
        ? note('', false, target)
        : void toast('Go to a line, or mark words with Shift and the arrows, to mark them.'),
    unsure() {
      const standing = answer.notes.find((one) => one.unsure);
      if (standing) onChange({ do: 'removeNote', note: standing });
      else note('', true, null);
    },
    /** Parts the line before the words that are marked. */
    part() {
      if (!line || !place.passage || place.passage.start <= line.start)
        return void toast('Mark the words that the new line begins with, then part it.');
      const at = place.passage.start;
      const joined = answer.cuts.some((cut) => cut.at === at && cut.joined);
      onChange({ do: 'line', responseId: answer.id, at, line: joined ? 'as_written' : 'parted' });
      position.goTo({ ...place, line: place.line + 1, passage: null });
    },
    /** Joins the line with the one before. */
    join() {
      if (!line || place.line < 1) return void toast('There is no line before this one.');
      const at = line.start;
      const parted = answer.cuts.some((cut) => cut.at === at && !cut.joined);
      onChange({ do: 'line', responseId: answer.id, at, line: parted ? 'as_written' : 'joined' });
      position.goTo({ ...place, line: place.line - 1, passage: null });
    },
    exchange: () =>
      last ? position.goTo({ ...place, passage: null, replacing: last.id }) : noCode(),
    moveToPassage() {
      if (!last) return noCode();
      if (!place.passage) return void toast('Mark words with Shift and the arrows first.');
      const { start, end } = place.passage;
      onChange({ do: 'edit', from: last, to: { ...last, start, end } });
      position.goTo({ ...place, passage: null });
    },
    typical: () =>
      last
        ? onChange({ do: 'edit', from: last, to: { ...last, typical: !last.typical } })
        : noCode(),
    onKey(event: KeyboardEvent) {
      const command = event.ctrlKey || event.metaKey;
      switch (event.key) {
        case 'ArrowDown':
          return position.moveLine(1);
        case 'ArrowUp':
          return position.moveLine(-1);
        case 'PageDown':
          return position.moveAnswer(1);
        case 'PageUp':
          return position.moveAnswer(-1);
        case 'Home':
          return command ? position.moveAnswer(-Infinity) : false;
        case 'End':
          return command ? position.moveAnswer(Infinity) : false;
        case 'ArrowRight':
          if (event.shiftKey) return markWord(1);
          return position.goTo({ ...place, line: Math.max(0, place.line), passage: null });
        case 'ArrowLeft':
          if (event.shiftKey) return markWord(-1);
          return position.goTo({ ...place, line: WHOLE, passage: null });
        case 'Escape': {
          if (!place.passage && !place.replacing) return false;
          const { answer, line } = place;
          return position.goTo({ answer, line, passage: null });
        }
        case 'Backspace':
          return last ? onChange({ do: 'remove', mention: last, toSame }) : undefined;
        case 'Delete':
          return answer.settled ? settle(false) : undefined;
        case 'Enter':
          if (command) {
            if (answer.mentions.length === 0) return settleAndGoOn();
            return void toast(
              'Something applies: take its codes away first, or settle with Enter.',
            );
          }
          if (answer.mentions.length > 0) return settleAndGoOn();
          return void toast('No code yet. Type one, or press Ctrl Enter if nothing applies.');
        default:
          return false;
      }
    },
  };
  return deeds;
}

/** What the next code will rest on, in words. */
function WhereTo({ text, lines, place }: { text: string; lines: Span[]; place: Place }) {
  if (place.passage)
    return (
      <>
        on “<span className="font-serif text-ink">{shorten(text, place.passage)}</span>”
      </>
    );
  if (place.line === WHOLE) return 'on the whole answer';
  return lines.length > 1 ? `on line ${place.line + 1} of ${lines.length}` : 'on this line';
}

function NoteField({ onDone }: { onDone: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <textarea
      aria-label="A note"
      rows={2}
      maxLength={4000}
      autoFocus
      placeholder="a note; [[a code’s name]] links to it"
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
