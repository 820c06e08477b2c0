import { extendByWord, lineOfPassage } from '@yellow-thread/core/coding';
import type { Span } from '@yellow-thread/core/text';
import { toast } from 'sonner';
import { noteOn } from '../data/notes.js';
import type { ActiveAnswer } from './answerPlace.js';
import { answerActionsTexts } from './texts.js';
import { WHOLE } from './useLedgerPosition.js';

/** What can be done with lines and passages at the place where one is. */
export function lineActions({ answer, lines, line, place, position, onChange }: ActiveAnswer) {
  const change = (at: number, to: 'split' | 'joined') => {
    // what was cut or joined by hand is given back as it is written
    const isUndone = answer.cuts.some((cut) => cut.at === at && cut.joined === (to === 'split'));
    onChange({ do: 'line', responseId: answer.id, at, line: isUndone ? 'as_written' : to });
  };
  return {
    /** Selects one word more or less, at either end of the passage. */
    selectWord: (step: 1 | -1, end: 'start' | 'end' = 'end') => {
      if (!line) return;
      const passage = extendByWord(answer.text, line, place.passage, step, end);
      position.goTo({
        ...place,
        line: passage ? lineOfPassage(lines, passage) : place.line,
        passage,
      });
    },
    /** Splits the line before the words that are selected. */
    split: () => {
      if (!line || !place.passage || place.passage.start <= line.start)
        return void toast(answerActionsTexts.markWordsNewLine);
      change(place.passage.start, 'split');
      position.goTo({ ...place, line: place.line + 1, passage: null });
    },
    /** Joins the line with the one before. */
    join: () => {
      if (!line || place.line < 1) return void toast(answerActionsTexts.noLineBeforeOne);
      change(line.start, 'joined');
      position.goTo({ ...place, line: place.line - 1, passage: null });
    },
  };
}

/** What can be noted at the place where one is. */
export function noteActions(at: ActiveAnswer) {
  const { answer, account, lines, place, position, target, onChange } = at;
  const add = (text: string, unsure: boolean, passage: Span | null) => {
    onChange({ do: 'addNote', note: noteOn(answer.id, account, { text, unsure, passage }) });
    if (place.passage) position.goTo({ ...place, passage: null });
  };
  return {
    note: (text: string) => add(text, false, place.passage ?? (lines.length > 1 ? target : null)),
    mark: () =>
      target && place.line !== WHOLE
        ? add('', false, target)
        : void toast(answerActionsTexts.goLineMarkWords),
    unsure: () => {
      const standing = answer.notes.find((one) => one.unsure);
      if (standing) onChange({ do: 'removeNote', note: standing });
      else add('', true, null);
    },
  };
}
