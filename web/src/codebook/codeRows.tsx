import type { KeyboardEvent } from 'react';
import type { DrawnCode, DrawnCodebook } from '../data/codebook.js';
import { runCommand } from '../frame/commands.js';
import { useDraggable, useDropTarget } from '../parts/dragAndDrop.js';
import { codeRowCommands, type AtCodeRow } from './commands.js';
import { codeRowsTexts } from './texts.js';

interface Target {
  themeId: string | null;
  before: string | null;
}

interface CodeRowsProps {
  codes: DrawnCode[];
  themeId: string | null;
  codebook: DrawnCodebook;
  chosen: string | null;
  /** False while they are not in their own order. */
  canMove: boolean;
  onChoose: (id: string) => void;
  onMove: (id: string, to: Target) => void;
}

/** The codes of a theme, each with its people and mentions; dragged or moved by key to another place. */
export function CodeRows(props: CodeRowsProps) {
  const { codes, themeId, canMove, onMove } = props;
  const [end, isOverEnd] = useDropTarget(
    'code',
    ({ codeId }) => onMove(codeId, { themeId, before: null }),
    { isDisabled: !canMove },
  );
  return (
    <ul>
      {codes.map((code, place) => (
        <CodeRow key={code.id} {...props} code={code} place={place} />
      ))}
      <li ref={end} aria-hidden className={`h-2 ${isOverEnd ? 'border-t-2 border-thread' : ''}`} />
    </ul>
  );
}

function CodeRow({
  code,
  place,
  codes,
  themeId,
  codebook,
  chosen,
  canMove,
  onChoose,
  onMove,
}: CodeRowsProps & { code: DrawnCode; place: number }) {
  const dragged = useDraggable('code', canMove ? { codeId: code.id } : null);
  const [target, isOver] = useDropTarget(
    'code',
    ({ codeId }) => {
      if (codeId !== code.id) onMove(codeId, { themeId, before: code.id });
    },
    { isDisabled: !canMove },
  );
  const onKey = (event: KeyboardEvent<HTMLElement>) => {
    const button = event.currentTarget;
    const here: AtCodeRow = {
      focus: (step) => {
        const all = button.closest('main')?.querySelectorAll<HTMLElement>('[data-code]') ?? [];
        const buttons = [...all];
        buttons[buttons.indexOf(button) + step]?.focus();
      },
      move: (step) => {
        const to = canMove ? placeAfter({ codebook, codes, themeId, place }, step) : null;
        if (to) onMove(code.id, to);
      },
    };
    if (runCommand(codeRowCommands, here, event.nativeEvent)) event.preventDefault();
  };
  return (
    <li ref={target}>
      <button
        ref={dragged}
        type="button"
        data-code={code.id}
        aria-pressed={code.id === chosen}
        onClick={() => onChoose(code.id)}
        onKeyDown={onKey}
        className={`flex w-full items-baseline gap-3 rounded px-2 py-1 text-left hover:bg-wash aria-pressed:bg-wash ${isOver ? 'border-t-2 border-thread' : ''}`}
      >
        <span className="min-w-0 flex-1 truncate">{code.name}</span>
        <span className="figures text-[13px] text-soft">
          {codeRowsTexts.peopleCounted(code.people)} · {codeRowsTexts.mentionCounted(code.mentions)}
        </span>
      </button>
    </li>
  );
}

/** Where one step up or down leads: past a neighbour, or at the edge into the theme beside. */
function placeAfter(
  {
    codebook: { themes, codes: all },
    codes,
    themeId,
    place,
  }: Pick<CodeRowsProps, 'codebook' | 'codes' | 'themeId'> & { place: number },
  step: 1 | -1,
): Target | null {
  if (step === -1 && place > 0) return { themeId, before: codes[place - 1]!.id };
  if (step === 1 && place < codes.length - 1)
    return { themeId, before: codes[place + 2]?.id ?? null };
  const order = [...themes.map((theme) => theme.id), null];
  const at = order.indexOf(themeId) + step;
  if (at < 0 || at >= order.length) return null;
  const next = order[at]!;
  const first = all.find((code) => code.themeId === next && !code.archived);
  return { themeId: next, before: step === 1 ? (first?.id ?? null) : null };
}
