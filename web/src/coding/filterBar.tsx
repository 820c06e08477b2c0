import type { LedgerOrder, LedgerShow, WordMatch } from '@yellow-thread/contract';
import { X } from 'lucide-react';
import { useState } from 'react';
import { useDrawnCodebook } from '../data/codebook.js';
import { useGroups } from '../data/groups.js';
import { useMembers } from '../data/people.js';
import { useVariable } from '../data/respondents.js';
import { usePlace } from '../frame/place.js';
import { Button } from '../parts/button.js';
import { Choice, inputBox } from '../parts/field.js';
import { CodePicker } from '../parts/codePicker.js';
import type { FilterChange, LedgerFilter } from './ledgerFilter.js';

const shows: [LedgerShow, string][] = [
  ['all', 'all answers'],
  ['unread', 'unread'],
  ['open', 'open'],
  ['settled', 'settled'],
  ['sample', 'in the sample'],
  ['sample_open', 'open in sample'],
  ['suggested', 'with suggestions'],
  ['nothing_likely', 'no code likely'],
  ['disputed', 'where the model disagrees'],
  ['unsure', 'unsure'],
  ['marked', 'marked or noted'],
  ['changed', 'corrected since'],
  ['no_answer', 'no answer'],
];
const matches: [WordMatch, string][] = [
  ['plain', 'as written'],
  ['word', 'whole words'],
  ['stem', 'any form of the words'],
  ['wildcard', 'with * and ?'],
];
const ofSample = new Set<LedgerShow>(['sample', 'sample_open']);
const orders: [LedgerOrder, string][] = [
  ['imported', 'as imported'],
  ['random', 'at random'],
  ['longest', 'longest first'],
  ['shortest', 'shortest first'],
  ['similar', 'similar together'],
  ['telling', 'most telling first'],
  ['surest', 'surest first'],
  ['likely', 'likeliest first'],
  ['resembling', 'most like the code first'],
];

/** What there is only after a training. */
const fromModels = new Set<LedgerShow | LedgerOrder>([
  'suggested',
  'nothing_likely',
  'disputed',
  'telling',
  'surest',
  'likely',
]);

export interface FilterBarProps {
  filter: LedgerFilter;
  onFilter: (change: FilterChange) => void;
}

/** Which answers are shown and in which order. */
export function FilterBar({ filter, onFilter }: FilterBarProps) {
  const { question } = usePlace();
  const [open, setOpen] = useState(filter.narrowed > 0);
  return (
    <>
      <Choice
        label="show"
        hideLabel
        className="!py-1 max-w-36"
        aria-label="Which answers"
        value={filter.show}
        onChange={(event) => onFilter({ show: event.target.value as LedgerShow })}
      >
        {shows
          .filter(([show]) => !fromModels.has(show) || question.suggestions || filter.show === show)
          .filter(([show]) => !ofSample.has(show) || question.sample || filter.show === show)
          .filter(
            ([show]) => show !== 'changed' || question.changed > 0 || filter.show === 'changed',
          )
          .map(([show, name]) => (
            <option key={show} value={show}>
              {name}
            </option>
          ))}
      </Choice>
      <Containing key={question.id} words={filter.words} onWords={(words) => onFilter({ words })} />
      {filter.words !== '' && (
        <Choice
          label="found"
          hideLabel
          aria-label="How words are found"
          value={filter.match}
          onChange={(event) => onFilter({ match: event.target.value as WordMatch })}
        >
          {matches.map(([match, name]) => (
            <option key={match} value={match}>
              {name}
            </option>
          ))}
        </Choice>
      )}
      <Choice
        label="order"
        hideLabel
        className="!py-1 max-w-36"
        aria-label="Order"
        value={filter.order}
        onChange={(event) =>
          onFilter({
            order: event.target.value as LedgerOrder,
            seed: event.target.value === 'random' ? Math.floor(Math.random() * 1e6) + 1 : 1,
          })
        }
      >
        {orders
          .filter(
            ([order]) =>
              filter.order === order ||
              (order !== 'resembling' && (!fromModels.has(order) || question.suggestions)),
          )
          .map(([order, name]) => (
            <option key={order} value={order}>
              {name}
            </option>
          ))}
      </Choice>
      <Button look="bare" aria-expanded={open} onClick={() => setOpen(!open)} className="!px-2">
        Narrow{filter.narrowed > 0 && ` · ${filter.narrowed}`}
      </Button>
      {(open || filter.narrowed > 0) && <Narrowing filter={filter} onFilter={onFilter} />}
    </>
  );
}

type CodePart = 'all' | 'any' | 'none';
const codeParts: [CodePart, string, string][] = [
  ['all', 'coded with', 'coded with all of'],
  ['any', 'or with', 'coded with any of'],
  ['none', 'not with', 'not coded with'],
];

function Narrowing({ filter, onFilter }: FilterBarProps) {
  const { study } = usePlace();
  const codebook = useDrawnCodebook(study.id);
  const groups = useGroups(study.id).data?.groups ?? [];
  const members = useMembers(study.id).data?.members ?? [];
  const [part, setPart] = useState<CodePart>('all');
  const [variable, setVariable] = useState(0);
  const [round, setRound] = useState(0);
  const without = (part: CodePart, id: string) =>
    onFilter({ [part]: filter[part].filter((one) => one !== id) });
  if (!codebook) return null;
  return (
    <div className="order-last flex min-w-0 basis-full flex-wrap items-center gap-x-4 gap-y-2">
      {codeParts.flatMap(([part, said]) =>
        filter[part].map((id) => (
          <Chip key={part + id} onRemove={() => without(part, id)}>
            {said} {codebook.byId.get(id)?.name ?? 'a deleted code'}
          </Chip>
        )),
      )}
      {filter.where.map((one, place) => (
        <Chip
          key={`${one.variableId} ${one.value}`}
          onRemove={() => onFilter({ where: filter.where.filter((_, i) => i !== place) })}
        >
          {study.variables.find(({ id }) => id === one.variableId)?.name}:{' '}
          {one.value || 'not stated'}
        </Chip>
      ))}
      {filter.among.map((id) => (
        <Chip
          key={id}
          onRemove={() => onFilter({ among: filter.among.filter((one) => one !== id) })}
        >
          in {groups.find((group) => group.id === id)?.name ?? 'a deleted group'}
        </Chip>
      ))}
      {filter.like !== undefined && (
        <Chip onRemove={() => onFilter({ like: undefined, same: 'joined' })}>one answer</Chip>
      )}
      {filter.about !== undefined && (
        <Chip onRemove={() => onFilter({ about: undefined })}>
          likely about{' '}
          {codebook.themes.find(({ id }) => id === filter.about)?.name ?? 'a deleted theme'}
        </Chip>
      )}
      <span className="inline-flex max-w-full flex-wrap items-center gap-1.5">
        <Choice
          label="Codes"
          hideLabel
          value={part}
          onChange={(event) => setPart(event.target.value as CodePart)}
        >
          {codeParts.map(([part, , name]) => (
            <option key={part} value={part}>
              {name}
            </option>
          ))}
        </Choice>
        <CodePicker
          key={round}
          label="Code to narrow by"
          codes={codebook.codes}
          onPick={(code) => {
            if (!filter[part].includes(code.id)) onFilter({ [part]: [...filter[part], code.id] });
            setRound(round + 1);
          }}
        />
      </span>
      {filter.all.length + filter.any.length > 0 && (
        <Choice
          label="in one"
          value={filter.together}
          onChange={(event) => onFilter({ together: event.target.value as 'answer' | 'line' })}
        >
          <option value="answer">answer</option>
          <option value="line">line</option>
        </Choice>
      )}
      {study.variables.length > 0 && (
        <span className="inline-flex max-w-full flex-wrap items-center gap-1.5">
          <Choice
            label="Background"
            hideLabel
            value={variable}
            onChange={(event) => setVariable(Number(event.target.value))}
          >
            <option value={0}>background</option>
            {study.variables.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Choice>
          {variable > 0 && (
            <ValueChoice
              study={study.id}
              variable={variable}
              onPick={(value) => {
                onFilter({ where: [...filter.where, { variableId: variable, value }] });
                setVariable(0);
              }}
            />
          )}
        </span>
      )}
      {groups.length > 0 && (
        <Choice
          label="Group"
          hideLabel
          className="max-w-40"
          value=""
          onChange={(event) => onFilter({ among: [...filter.among, event.target.value] })}
        >
          <option value="">in a group</option>
          {groups
            .filter(({ id }) => !filter.among.includes(id))
            .map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
        </Choice>
      )}
      {members.length > 1 && (
        <Choice
          label="coded by"
          value={filter.coder ?? 0}
          onChange={(event) => onFilter({ coder: Number(event.target.value) || undefined })}
        >
          <option value={0}>anybody</option>
          {members.map((member) => (
            <option key={member.id} value={member.id}>
              {member.name}
            </option>
          ))}
        </Choice>
      )}
      <label className="inline-flex items-center gap-2 text-soft">
        <input
          type="checkbox"
          checked={filter.same === 'joined'}
          onChange={(event) => onFilter({ same: event.target.checked ? 'joined' : 'apart' })}
        />
        same words as one
      </label>
    </div>
  );
}

function ValueChoice({
  study,
  variable,
  onPick,
}: {
  study: number;
  variable: number;
  onPick: (value: string) => void;
}) {
  const categories = useVariable(study, variable).data?.categories;
  if (!categories) return <span className="text-soft">…</span>;
  const labels = [...new Set(categories.map(({ label }) => label))];
  return (
    <Choice
      label="Value"
      hideLabel
      value=""
      onChange={(event) => onPick(event.target.value === ' ' ? '' : event.target.value)}
    >
      <option value="">is …</option>
      {labels.map((label) => (
        <option key={label} value={label}>
          {label}
        </option>
      ))}
      <option value=" ">not stated</option>
    </Choice>
  );
}

function Chip({ children, onRemove }: { children: React.ReactNode; onRemove: () => void }) {
  return (
    <span className="inline-flex items-center gap-1 rounded bg-wash px-2 py-0.5">
      <span>{children}</span>
      <button type="button" aria-label="No longer" onClick={onRemove} className="text-soft">
        <X size={12} aria-hidden />
      </button>
    </span>
  );
}

/** Keeps what is typed by itself: the address that it is written to follows a moment later. */
function Containing({ words, onWords }: { words: string; onWords: (words: string) => void }) {
  const [typed, setTyped] = useState(words);
  return (
    <input
      aria-label="Answers containing"
      placeholder="containing …"
      className={`${inputBox} w-36 !py-1`}
      value={typed}
      onChange={(event) => {
        setTyped(event.target.value);
        onWords(event.target.value);
      }}
      onKeyDown={({ key, currentTarget }) => {
        if (key !== 'Enter') return;
        const field = currentTarget
          .closest('main')
          ?.querySelector<HTMLElement>('[role=feed] [role=combobox]');
        // while the answers are fetched there is no field yet: it takes the focus that is let go
        if (field) field.focus();
        else currentTarget.blur();
      }}
    />
  );
}
