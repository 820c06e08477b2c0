import type { CodeCreate, LedgerAnswer, Mention } from '@yellow-thread/contract';
import { findCodeNamed, findCodes } from '@yellow-thread/core/codebook';
import { extendByWord } from '@yellow-thread/core/coding';
import type { Span } from '@yellow-thread/core/text';
import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';
import { toast } from 'sonner';
import type { DrawnCodebook } from '../data/codebook.js';
import type { CodingChange } from '../data/coding.js';
import { useSession } from '../data/people.js';
import { StitchMark } from '../parts/stitch.js';
import { ledgerGrid } from './ledgerGrid.js';
import { WHOLE, type LedgerPosition, type Place } from './useLedgerPosition.js';

const MOST_FOUND = 7;

/** The field at the foot of the active answer: typing finds codes, Enter applies, moves on or settles. */
export function CodeField({
  answer,
  lines,
  place,
  position,
  codebook,
  onChange,
}: {
  answer: LedgerAnswer;
  lines: Span[];
  place: Place;
  position: LedgerPosition;
  codebook: DrawnCodebook;
  onChange: (change: CodingChange) => void;
}) {
  const [typed, setTyped] = useState('');
  const [chosen, setChosen] = useState(0);
  const input = useRef<HTMLInputElement>(null);
  const list = useId();
  const accountId = useSession().data?.account?.id ?? 0;
  useEffect(() => {
    // who narrows the list by typing goes on typing there while the answers change below
    const { activeElement } = document;
    if (activeElement instanceof HTMLInputElement && activeElement.role !== 'combobox') return;
    input.current?.focus({ preventScroll: true });
  }, [place]);

  const line = lines[place.line];
  const target = place.passage ?? line ?? null;
  const name = typed.trim();
  const found = name === '' ? [] : findCodes(codebook.codes, name).slice(0, MOST_FOUND);
  const isNew = name !== '' && !findCodeNamed(codebook.codes, name);
  const choices = found.length + (isNew ? 1 : 0);

  const apply = (codeId: string, newCode?: CodeCreate) => {
    const mention: Mention = {
      id: crypto.randomUUID(),
      responseId: answer.id,
      codeId,
      coderId: accountId,
      start: target?.start ?? null,
      end: target?.end ?? null,
      origin: 'hand',
      createdAt: new Date().toISOString(),
    };
    onChange({ do: 'add', mention, ...(newCode && { newCode }) });
    setTyped('');
    setChosen(0);
    if (place.passage) position.goTo({ ...place, passage: null });
  };
  const makeAndApply = () => {
    const known = findCodeNamed(codebook.codes, name);
    const id = known?.id ?? crypto.randomUUID();
    apply(id, known ? undefined : { id, name, themeId: null });
  };
  const settle = () => {
    if (!answer.settled) onChange({ do: 'settle', responseId: answer.id, settled: true });
    position.moveAnswer(1);
  };
  const takeLastAway = () => {
    const here = answer.mentions.filter(({ start }) =>
      line ? start !== null && start >= line.start && start < line.end : start === null,
    );
    const mention = here.at(-1);
    if (mention) onChange({ do: 'remove', mention });
  };
  const markWord = (step: 1 | -1) => {
    if (!line) return;
    const passage = extendByWord(answer.text, line, place.passage, step);
    position.goTo({ ...place, passage });
  };

  const onTypedKey = (event: KeyboardEvent) => {
    switch (event.key) {
      case 'ArrowDown':
        return setChosen((chosen + 1) % Math.max(1, choices));
      case 'ArrowUp':
        return setChosen((chosen + choices - 1) % Math.max(1, choices));
      case 'Escape':
        return setTyped('');
      case 'Enter': {
        const code = found[chosen];
        return code && !event.shiftKey ? apply(code.id) : makeAndApply();
      }
      default:
        return false;
    }
  };
  const onEmptyKey = (event: KeyboardEvent) => {
    switch (event.key) {
      case 'ArrowDown':
        return position.moveLine(1);
      case 'ArrowUp':
        return position.moveLine(-1);
      case 'PageDown':
        return position.moveAnswer(1);
      case 'PageUp':
        return position.moveAnswer(-1);
      case 'ArrowRight':
        if (event.shiftKey) return markWord(1);
        return position.goTo({ ...place, line: Math.max(0, place.line), passage: null });
      case 'ArrowLeft':
        if (event.shiftKey) return markWord(-1);
        return position.goTo({ ...place, line: WHOLE, passage: null });
      case 'Escape':
        return place.passage ? position.goTo({ ...place, passage: null }) : false;
      case 'Backspace':
        return takeLastAway();
      case 'Delete':
        if (answer.settled) onChange({ do: 'settle', responseId: answer.id, settled: false });
        return;
      case 'Enter':
        if (event.ctrlKey || event.metaKey) {
          if (answer.mentions.length === 0) return settle();
          return void toast('Something applies: take its codes away first, or settle with Enter.');
        }
        if (answer.mentions.length > 0) return settle();
        return void toast('No code yet. Type one, or press Ctrl Enter if nothing applies.');
      default:
        return false;
    }
  };
  return (
    <div className={`relative mt-1.5 ${ledgerGrid}`}>
      <p className="self-center text-[13px] text-soft">
        {place.passage ? (
          <>
            on “<span className="font-serif text-ink">{shorten(answer.text, place.passage)}</span>”
          </>
        ) : place.line === WHOLE ? (
          'on the whole answer'
        ) : lines.length > 1 ? (
          `on line ${place.line + 1} of ${lines.length}`
        ) : (
          'on this line'
        )}
        {answer.settled && ' · settled'}
      </p>
      <input
        ref={input}
        role="combobox"
        aria-label="Code for this line"
        aria-expanded={choices > 0}
        aria-controls={list}
        aria-activedescendant={choices > 0 ? `${list}-${chosen}` : undefined}
        autoComplete="off"
        spellCheck={false}
        placeholder="type a code"
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setChosen(0);
        }}
        onKeyDown={(event) => {
          const handled = typed === '' ? onEmptyKey(event) : onTypedKey(event);
          if (handled !== false) event.preventDefault();
        }}
        className="border-b-2 border-thread bg-transparent px-1 py-0.5 outline-none placeholder:text-soft"
      />
      <ul
        id={list}
        role="listbox"
        aria-label="Codes found"
        hidden={choices === 0}
        className="absolute right-0 top-full z-10 mt-1 w-[380px] rounded border border-rule bg-card py-1 shadow-[0_6px_20px_#0000001f]"
      >
        {found.map((code, place) => (
          <li
            key={code.id}
            id={`${list}-${place}`}
            role="option"
            aria-selected={place === chosen}
            onPointerDown={(event) => {
              event.preventDefault();
              apply(code.id);
            }}
            className="flex cursor-pointer items-center gap-2 px-3 py-1 aria-selected:bg-wash"
          >
            <StitchMark look={code.look} width={18} />
            <span className="font-medium">{code.name}</span>
            <span className="truncate text-[13px] text-soft">{code.themeName}</span>
            <span className="figures ml-auto text-[13px] text-soft">{code.people}</span>
          </li>
        ))}
        {isNew && (
          <li
            id={`${list}-${found.length}`}
            role="option"
            aria-selected={chosen === found.length}
            onPointerDown={(event) => {
              event.preventDefault();
              makeAndApply();
            }}
            className="flex cursor-pointer items-center gap-2 px-3 py-1 aria-selected:bg-wash"
          >
            New code “{name}” <kbd className="ml-auto">Shift Enter</kbd>
          </li>
        )}
      </ul>
    </div>
  );
}

function shorten(text: string, { start, end }: Span): string {
  const passage = text.slice(start, end);
  return passage.length > 60 ? `${passage.slice(0, 28)} … ${passage.slice(-28)}` : passage;
}
