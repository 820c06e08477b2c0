import type { Decision, SuggestedAnswer } from '@yellow-thread/contract';
import type { Span } from '@yellow-thread/core/text';
import { memo } from 'react';
import type { DrawnCode, DrawnCodebook } from '../data/codebook.js';
import { CodeList } from '../studyParts/codeList.js';
import { CodePicker } from '../studyParts/codePicker.js';
import { Knot } from '../parts/knot.js';
import { Menu, MenuItem } from '../parts/menu.js';
import { asShare } from '../lib/numbers.js';
import { readSelection } from '../parts/readSelection.js';
import { Evidence } from './evidence.js';
import { SuggestionReasons } from './suggestionReasons.js';
import { suggestionRowTexts } from './texts.js';

/** Another code in place of the suggested one, or beside it. */
export type Asking = 'instead' | 'as well';

/** What can be done with the active suggestion. */
export interface RowActions {
  decide: (state: Decision) => void;
  ask: (asking: Asking | null) => void;
  give: (codeId: string) => void;
  mark: (passage: Span | null) => void;
  unsure: () => void;
  /** Shows why answers are suggested, or no longer. */
  toggleReasons: () => void;
}

const act = 'rounded border border-rule bg-card px-2 py-0.5 text-[13px] hover:border-soft';

/** One suggested answer with its probability, the words that led to it and what was decided. */
export const SuggestionRow = memo(function SuggestionRow({
  suggestion,
  code,
  codebook,
  active,
  above,
  index,
  onPick,
}: {
  suggestion: SuggestedAnswer;
  code: DrawnCode;
  codebook: DrawnCodebook;
  /** Null for all but the row that one is on. */
  active: {
    passage: Span | null;
    asking: Asking | null;
    showsReasons: boolean;
    actions: RowActions;
  } | null;
  above: boolean;
  index: number;
  onPick: (index: number) => void;
}) {
  const { state, bulk, by, probability, mentions, unsure, count } = suggestion;
  const words = state === 'open' ? 'open' : `${state}${bulk ? suggestionRowTexts.bulk : ''}`;
  const others = [...new Set(mentions.map(({ codeId }) => codeId))].filter((id) => id !== code.id);
  return (
    <article
      aria-current={active ? 'true' : undefined}
      onPointerDown={active ? undefined : () => onPick(index)}
      className={`relative grid grid-cols-[52px_minmax(0,1fr)_190px] items-start gap-x-4 border-b border-rule px-5 py-2.5 ${active ? 'bg-card' : ''}`}
    >
      {active && <span aria-hidden className="absolute inset-y-0 left-0 w-[3px] bg-thread" />}
      <span className="figures pt-1 text-right text-soft">{asShare(probability)}</span>
      <div className="max-w-[44rem]">
        <p
          className={`voice break-words ${above ? '' : 'text-soft'}`}
          onPointerUp={(event) => {
            const marked = readSelection(event.currentTarget);
            if (marked) active?.actions.mark(marked);
          }}
        >
          <Evidence suggestion={suggestion} code={code} passage={active?.passage ?? null} />
        </p>
        {count > 1 && (
          <p className="text-[13px] text-soft">{suggestionRowTexts.answersSameWords(count)}</p>
        )}
        {others.length > 0 && <CodeList codeIds={others} codebook={codebook} />}
        {active?.showsReasons && <SuggestionReasons suggestion={suggestion} code={code} />}
        {active?.asking && (
          <div className="mt-1 flex items-center gap-3" ref={focusField}>
            <span className="text-soft">
              {active.asking === 'instead' ? suggestionRowTexts.instead : suggestionRowTexts.well}{' '}
              {code.name}
            </span>
            <span
              onKeyDown={(event) => {
                if (event.key !== 'Escape') return;
                event.stopPropagation();
                active.actions.ask(null);
              }}
            >
              <CodePicker
                label={suggestionRowTexts.code(active.asking, code.name)}
                codes={codebook.codes.filter(({ id }) => id !== code.id)}
                onPick={({ id }) => active.actions.give(id)}
              />
            </span>
          </div>
        )}
      </div>
      <span className="flex items-center justify-end gap-2 pt-1">
        {active ? (
          <RowButtons
            state={state}
            isUnsure={unsure !== null}
            showsReasons={active.showsReasons}
            code={code}
            actions={active.actions}
          />
        ) : (
          (state !== 'open' || unsure) && (
            <span className="min-w-0 truncate text-[13px] text-soft">
              {[state !== 'open' && words, by, unsure && 'unsure'].filter(Boolean).join(' · ')}
            </span>
          )
        )}
        <Knot state={state} label={words} />
      </span>
    </article>
  );
});

/** The field is typed into at once. */
const focusField = (element: HTMLElement | null) => element?.querySelector('input')?.focus();

function RowButtons({
  state,
  isUnsure,
  showsReasons,
  code,
  actions,
}: {
  state: Decision;
  isUnsure: boolean;
  showsReasons: boolean;
  code: DrawnCode;
  actions: RowActions;
}) {
  const choices: { to: Decision; name: string }[] = [
    { to: 'accepted', name: 'accept' },
    { to: 'refused', name: 'refuse' },
    { to: 'open', name: 'open' },
  ];
  return (
    <span className="flex gap-1">
      {choices
        .filter(({ to }) => to !== state)
        .map(({ to, name }) => (
          <button
            key={to}
            type="button"
            tabIndex={-1}
            className={act}
            onClick={() => actions.decide(to)}
          >
            {name}
          </button>
        ))}
      <button
        type="button"
        tabIndex={-1}
        aria-label={suggestionRowTexts.whySuggested(code.name)}
        aria-pressed={showsReasons}
        className={`${act} aria-pressed:border-soft aria-pressed:bg-wash`}
        onClick={actions.toggleReasons}
      >
        {suggestionRowTexts.why}
      </button>
      <Menu name="…" label={suggestionRowTexts.moreSuggestion} look={act}>
        <MenuItem
          name={suggestionRowTexts.anotherCodeInstead(code.name)}
          about="I"
          onSelect={() => actions.ask('instead')}
        />
        <MenuItem
          name={suggestionRowTexts.anotherCodeWell(code.name)}
          about="W"
          onSelect={() => actions.ask('as well')}
        />
        <MenuItem
          name={isUnsure ? suggestionRowTexts.noLongerUnsure : suggestionRowTexts.unsure}
          about="U"
          onSelect={actions.unsure}
        />
      </Menu>
    </span>
  );
}
