import { MoreHorizontal } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { useAnswerActions } from './useAnswerActions.js';
import { fieldMenuTexts } from './texts.js';

/** Everything that can be done at a place, for who does not have a keyboard at hand or its keys in mind. */
export function FieldMenu({
  actions,
  opensAtOnce,
  onNote,
  onRespondent,
}: {
  actions: ReturnType<typeof useAnswerActions>;
  /** The place was pointed at for its menu. */
  opensAtOnce: boolean;
  onNote: () => void;
  onRespondent: () => void;
}) {
  const items: [string, string, () => void][] = [
    [fieldMenuTexts.markComeBack, fieldMenuTexts.altM, actions.mark],
    [fieldMenuTexts.writeNote, fieldMenuTexts.altN, onNote],
    [fieldMenuTexts.markUnmarkUnsure, fieldMenuTexts.altU, actions.unsure],
    [fieldMenuTexts.anotherCodeInsteadLast, fieldMenuTexts.altX, actions.exchange],
    [fieldMenuTexts.lastCodeMarkedWords, fieldMenuTexts.altP, actions.moveToPassage],
    [fieldMenuTexts.lastCodeTypicalExample, fieldMenuTexts.altE, actions.typical],
    [fieldMenuTexts.acceptLikeliestSuggestion, fieldMenuTexts.alt, () => actions.decide(true)],
    [fieldMenuTexts.refuseLikeliestSuggestion, fieldMenuTexts.altO, () => actions.decide(false)],
    [fieldMenuTexts.codeAnswerBefore, fieldMenuTexts.altB, actions.asBefore],
    [fieldMenuTexts.newLineMarkedWords, fieldMenuTexts.altS, actions.part],
    [fieldMenuTexts.joinLineBefore, fieldMenuTexts.altJ, actions.join],
    [fieldMenuTexts.nothingApplies, fieldMenuTexts.ctrlEnter, actions.nothingApplies],
    [fieldMenuTexts.respondent, fieldMenuTexts.altR, onRespondent],
  ];
  return (
    <DropdownMenu.Root defaultOpen={opensAtOnce}>
      <DropdownMenu.Trigger
        tabIndex={-1}
        aria-label={fieldMenuTexts.whatCanDoneHere}
        className="ml-1 rounded p-0.5 align-middle hover:bg-wash"
      >
        <MoreHorizontal size={15} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          className="z-30 w-72 rounded border border-rule bg-card p-1 shadow-[0_6px_20px_#0000001f]"
        >
          {items.map(([name, keys, act]) => (
            <DropdownMenu.Item
              key={name}
              onSelect={act}
              className="flex cursor-pointer items-center justify-between gap-3 rounded px-3 py-1 outline-none data-[highlighted]:bg-wash"
            >
              {name} <kbd>{keys}</kbd>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
