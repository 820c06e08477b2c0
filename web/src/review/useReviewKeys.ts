import type { Decision, SuggestedAnswer } from '@yellow-thread/contract';
import { extendByWord } from '@yellow-thread/core/coding';
import type { Span } from '@yellow-thread/core/text';
import { useLayoutEffect } from 'react';
import { useKeyHelp, type KeyHelp } from '../frame/keys.js';
import { isKeyAlone } from '../frame/typing.js';
import type { Asking, RowActions } from './suggestionRow.js';
import { useReviewKeysTexts } from './texts.js';

const keyHelp: readonly KeyHelp[] = [
  { keys: '↑ ↓', does: useReviewKeysTexts.suggestionBeforeNextSuggestion },
  { keys: 'A', does: useReviewKeysTexts.accept },
  { keys: 'R', does: useReviewKeysTexts.refuse },
  { keys: 'O', does: useReviewKeysTexts.openAgain },
  { keys: 'Shift ← →', does: useReviewKeysTexts.markWordsWhichAccepted },
  { keys: 'I', does: useReviewKeysTexts.anotherCodeInstead },
  { keys: 'W', does: useReviewKeysTexts.anotherCodeWell },
  { keys: 'U', does: useReviewKeysTexts.markUnmarkUnsure },
  { keys: 'H', does: useReviewKeysTexts.whatCodedHandCompare },
  { keys: 'Shift ↑ ↓', does: useReviewKeysTexts.moveThresholdOneSuggestion },
  { keys: 'L', does: useReviewKeysTexts.goLine },
];

/** What the keys do on the list of a code's suggestions. */
export function useReviewKeys({
  suggestions,
  active,
  passage,
  below,
  actions,
  setActive,
  mark,
  ask,
  moveThreshold,
  goToThreshold,
  openByHand,
}: {
  suggestions: readonly SuggestedAnswer[];
  active: number;
  passage: Span | null;
  /** The first suggestion below the line. */
  below: number;
  actions: RowActions;
  setActive: (to: number) => void;
  mark: (passage: Span | null) => void;
  ask: (asking: Asking | null) => void;
  moveThreshold: (to: number) => void;
  goToThreshold: () => Promise<void>;
  openByHand: () => void;
}) {
  useKeyHelp(keyHelp);
  // listens anew with every drawing, since what a key does follows from all that is drawn; before
  // it is painted, so that no key is lost that is pressed as soon as the list is seen
  useLayoutEffect(() => {
    const stepLine = (step: 1 | -1) => {
      const to = below + step;
      const before = suggestions[to - 1]?.probability ?? 1;
      const after = suggestions[to]?.probability ?? Math.max(0, before - 0.01);
      if (to >= 0 && to <= suggestions.length) moveThreshold((before + after) / 2);
    };
    const suggestion = suggestions[active];
    const goTo = (to: number) => setActive(Math.min(suggestions.length - 1, Math.max(0, to)));
    const decideAndGoOn = (state: Decision) => {
      actions.decide(state);
      goTo(active + 1);
    };
    const markWord = (step: 1 | -1) => {
      if (!suggestion) return;
      const { text } = suggestion;
      mark(extendByWord(text, { start: 0, end: text.length }, passage, step));
    };
    const onKey = (event: KeyboardEvent) => {
      if (!isKeyAlone(event)) return;
      if (event.target instanceof HTMLInputElement) return;
      const acts: Record<string, () => void> = {
        ArrowDown: () => (event.shiftKey ? stepLine(1) : goTo(active + 1)),
        ArrowUp: () => (event.shiftKey ? stepLine(-1) : goTo(active - 1)),
        a: () => decideAndGoOn('accepted'),
        r: () => decideAndGoOn('refused'),
        o: () => actions.decide('open'),
        i: () => ask('instead'),
        w: () => ask('as well'),
        u: actions.unsure,
        l: () => void goToThreshold(),
        h: openByHand,
        ...(event.shiftKey && { ArrowRight: () => markWord(1), ArrowLeft: () => markWord(-1) }),
        ...(passage && { Escape: () => mark(null) }),
      };
      const act = acts[event.key.length === 1 ? event.key.toLowerCase() : event.key];
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
}
