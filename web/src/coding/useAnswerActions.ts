import type { CodeCreate, LedgerAnswer, Mention } from '@yellow-thread/contract';
import { extendByWord, lineOfPassage, passageIn } from '@yellow-thread/core/coding';
import type { Span } from '@yellow-thread/core/text';
import type { KeyboardEvent } from 'react';
import { toast } from 'sonner';
import type { SeenCodebook } from '../data/codebook.js';
import type { CodingChange } from '../data/coding.js';
import { noteOn } from '../data/notes.js';
import { useSession } from '../data/people.js';
import { mentionOf as proposedMention, type Proposal } from './proposals.js';
import { shownSuggestions } from './suggested.js';
import { WHOLE, type LedgerPosition, type LedgerCell } from './useLedgerPosition.js';
import { answerActionsTexts } from './texts.js';

export interface CodeFieldProps {
  answer: LedgerAnswer;
  lines: Span[];
  byLine: Mention[][];
  place: LedgerCell;
  position: LedgerPosition;
  /** Whether what is done is done to all answers with the same words. */
  toSame: boolean;
  /** The answer before it, where that is nearly the same. */
  before: LedgerAnswer | null;
  codebook: SeenCodebook;
  /** Where answers are read one by one: what is proposed here, and pressing its digit; null elsewhere. */
  reading: Reading | null;
  onChange: (change: CodingChange) => void;
}

/** An answer that is read with what the models propose for it. */
export interface Reading {
  proposals: readonly Proposal[];
  toggle: (codeId: string) => void;
}

/** What can be done at the place where one is. */
export function useAnswerActions(props: CodeFieldProps) {
  const { answer, lines, byLine, place, position, toSame, before, reading, onChange } = props;
  const account = useSession().data?.account;
  const line = lines[place.line];
  const target = place.passage ?? line ?? null;
  const here = byLine[place.line] ?? answer.mentions.filter(({ start }) => start === null);
  const last = here.at(-1);
  const noCode = () => void toast(answerActionsTexts.noCodeHereYet);
  const assisted = shownSuggestions(answer).length > 0;
  const settle = (settled: boolean) =>
    onChange({ do: 'settle', responseId: answer.id, settled, toSame, assisted });
  /** Settles the answer with what is proposed and was left standing. */
  const read = (proposals: readonly Proposal[]) => {
    const accept = proposals.map((one) => proposedMention(one, answer.id, lines, account?.id ?? 0));
    onChange({ do: 'read', responseId: answer.id, accept, toSame });
    position.moveAnswer(1);
  };
  const isRead = reading !== null && !answer.settled && !answer.inSample;
  const shown = reading?.proposals.filter(({ isShown }) => isShown) ?? [];
  const settleAndGoOn = () => {
    if (!answer.settled) settle(true);
    position.moveAnswer(1);
  };
  const note = (text: string, unsure: boolean, passage: Span | null) => {
    const note = noteOn(answer.id, account ?? null, { text, unsure, passage });
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
  const markWord = (step: 1 | -1, moved: 'start' | 'end' = 'end') => {
    if (!line) return;
    const passage = extendByWord(answer.text, line, place.passage, step, moved);
    position.goTo({
      ...place,
      line: passage ? lineOfPassage(lines, passage) : place.line,
      passage,
    });
  };
  const actions = {
    markWord,
    apply: (
      codeId: string,
      made: { newCode?: CodeCreate; newTheme?: { id: string; name: string } },
    ) => {
      const { replacing, ...there } = place;
      const replaced = answer.mentions.find((mention) => mention.id === replacing);
      if (replaced && !made.newCode)
        onChange({ do: 'edit', from: replaced, to: { ...replaced, codeId } });
      else {
        const { start, end } = replaced ?? { start: null, end: null };
        const there = start === null || end === null ? null : { start, end };
        const mention = mentionOf(codeId, replaced ? there : target);
        const isThere = answer.mentions.some(
          (one) => one.codeId === codeId && one.start === mention.start && one.end === mention.end,
        );
        if (isThere) return void toast(answerActionsTexts.codeHereAlready);
        onChange({ do: 'add', mention, toSame, ...made });
        if (replaced) onChange({ do: 'remove', mention: replaced, toSame });
      }
      if (place.passage || replacing) position.goTo({ ...there, passage: null });
    },
    /** Takes the most likely suggestion that is shown, or lays it aside. */
    decide: (accepted: boolean) => {
      const [likeliest] = shownSuggestions(answer);
      if (!likeliest) return void toast(answerActionsTexts.nothingSuggestedHere);
      const mention: Mention = { ...mentionOf(likeliest.codeId, null), origin: 'accepted' };
      onChange({ do: 'decide', mention, accepted, toSame });
    },
    /** Codes a near duplicate as the answer before it was coded. */
    asBefore: () => {
      if (!before) return void toast(answerActionsTexts.answerNearlySameOne);
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
        : void toast(answerActionsTexts.goLineMarkWords),
    unsure: () => {
      const standing = answer.notes.find((one) => one.unsure);
      if (standing) onChange({ do: 'removeNote', note: standing });
      else note('', true, null);
    },
    /** Parts the line before the words that are marked. */
    part: () => {
      if (!line || !place.passage || place.passage.start <= line.start)
        return void toast(answerActionsTexts.markWordsNewLine);
      const at = place.passage.start;
      const joined = answer.cuts.some((cut) => cut.at === at && cut.joined);
      onChange({ do: 'line', responseId: answer.id, at, line: joined ? 'as_written' : 'parted' });
      position.goTo({ ...place, line: place.line + 1, passage: null });
    },
    /** Joins the line with the one before. */
    join: () => {
      if (!line || place.line < 1) return void toast(answerActionsTexts.noLineBeforeOne);
      const at = line.start;
      const parted = answer.cuts.some((cut) => cut.at === at && !cut.joined);
      onChange({ do: 'line', responseId: answer.id, at, line: parted ? 'as_written' : 'joined' });
      position.goTo({ ...place, line: place.line - 1, passage: null });
    },
    exchange: () =>
      last ? position.goTo({ ...place, passage: null, replacing: last.id }) : noCode(),
    moveToPassage: () => {
      if (!last) return noCode();
      if (!place.passage) return void toast(answerActionsTexts.markWordsShiftArrows);
      const { start, end } = place.passage;
      onChange({ do: 'edit', from: last, to: { ...last, start, end } });
      position.goTo({ ...place, passage: null });
    },
    typical: () =>
      last
        ? onChange({ do: 'edit', from: last, to: { ...last, typical: !last.typical } })
        : noCode(),
    /** Takes what is proposed under a digit away, or gives what else is offered under it. */
    press: (digit: number) => {
      const proposal = reading?.proposals[digit - 1];
      if (proposal) reading.toggle(proposal.codeId);
    },
    nothingApplies: () =>
      answer.mentions.length === 0
        ? isRead
          ? read([])
          : settleAndGoOn()
        : void toast(answerActionsTexts.somethingAppliesTakeCodes),
    onKey: (event: KeyboardEvent) => {
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
          // the last of what is shown
          if (isRead && shown.length > 0) return reading.toggle(shown.at(-1)!.codeId);
          return last ? onChange({ do: 'remove', mention: last, toSame }) : undefined;
        case 'Delete':
          return answer.settled ? settle(false) : undefined;
        case 'Enter':
          if (command) return actions.nothingApplies();
          if (isRead && shown.length + answer.mentions.length > 0) return read(shown);
          if (isRead) return void toast(answerActionsTexts.noCodeProposedGive);
          if (answer.mentions.length > 0) return settleAndGoOn();
          return void toast(answerActionsTexts.noCodeYetType);
        default:
          return false;
      }
    },
  };
  return actions;
}
