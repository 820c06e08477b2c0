import { MoreHorizontal } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { menuLabel, menuOf, type Command } from '../frame/commands.js';
import { fieldMenuTexts } from './texts.js';

/** Everything that can be done at a place, for who does not have a keyboard at hand or its keys in mind. */
export function FieldMenu<Context>({
  commands,
  context,
  opensAtOnce,
}: {
  commands: readonly Command<Context>[];
  context: Context;
  /** The place was pointed at for its menu. */
  opensAtOnce: boolean;
}) {
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
          className="z-30 w-[30rem] max-w-[90vw] rounded border border-rule bg-card p-1 shadow-[0_6px_20px_#0000001f]"
        >
          {menuOf(commands, context).map(({ id, does, keys, run }) => (
            <DropdownMenu.Item
              key={id}
              onSelect={run}
              className="flex cursor-pointer items-center justify-between gap-3 rounded px-3 py-1 outline-none data-[highlighted]:bg-wash"
            >
              {menuLabel(does)} <kbd className="shrink-0">{keys}</kbd>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
