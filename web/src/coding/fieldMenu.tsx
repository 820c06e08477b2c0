import { MoreHorizontal } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { useDeeds } from './useDeeds.js';

/** Everything that can be done at a place, for who does not have a keyboard at hand or its keys in mind. */
export function FieldMenu({
  deeds,
  opensAtOnce,
  onNote,
  onRespondent,
}: {
  deeds: ReturnType<typeof useDeeds>;
  /** The place was pointed at for its menu. */
  opensAtOnce: boolean;
  onNote: () => void;
  onRespondent: () => void;
}) {
  const items: [string, string, () => void][] = [
    ['Mark it, to come back to it', 'Alt M', deeds.mark],
    ['Write a note', 'Alt N', onNote],
    ['Mark or unmark as unsure', 'Alt U', deeds.unsure],
    ['Another code instead of the last', 'Alt X', deeds.exchange],
    ['Last code to the marked words', 'Alt P', deeds.moveToPassage],
    ['Last code: typical example on or off', 'Alt E', deeds.typical],
    ['Accept the likeliest suggestion', 'Alt A', () => deeds.decide(true)],
    ['Refuse the likeliest suggestion', 'Alt O', () => deeds.decide(false)],
    ['Code it as the answer before', 'Alt B', deeds.asBefore],
    ['New line from the marked words', 'Alt S', deeds.part],
    ['Join with the line before', 'Alt J', deeds.join],
    ['Nothing applies', 'Ctrl Enter', deeds.nothingApplies],
    ['The respondent', 'Alt R', onRespondent],
  ];
  return (
    <DropdownMenu.Root defaultOpen={opensAtOnce}>
      <DropdownMenu.Trigger
        tabIndex={-1}
        aria-label="What can be done here"
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
