import type { LedgerOrder, LedgerShow, WordMatch } from '@yellow-thread/contract';
import { X } from 'lucide-react';
import { useState } from 'react';
import { useDrawnCodebook, type DrawnCodebook } from '../data/codebook.js';
import { useGroups } from '../data/groups.js';
import { useMembers } from '../data/people.js';
import { useVariable } from '../data/respondents.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { Choice, inputBox } from '../parts/field.js';
import { CodePicker } from '../studyParts/codePicker.js';
import type { FilterChange, LedgerFilter } from './ledgerFilter.js';
import { filterBarTexts } from './texts.js';

const shows: [LedgerShow, string][] = [
  ['all', filterBarTexts.allAnswers],
  ['unread', 'unread'],
  ['open', 'open'],
  ['settled', 'settled'],
  ['sample', filterBarTexts.sample],
  ['sample_open', filterBarTexts.openSample],
  ['suggested', filterBarTexts.suggestions],
  ['nothing_likely', filterBarTexts.noCodeLikely],
  ['disputed', filterBarTexts.whereModelDisagrees],
  ['unsure', 'unsure'],
  ['marked', filterBarTexts.markedNoted],
  ['changed', filterBarTexts.correctedSince],
  ['no_answer', filterBarTexts.noAnswer],
];
const matches: [WordMatch, string][] = [
  ['plain', filterBarTexts.written],
  ['word', filterBarTexts.wholeWords],
  ['stem', filterBarTexts.anyFormWords],
  ['wildcard', 'with * and ?'],
];
const ofSample = new Set<LedgerShow>(['sample', 'sample_open']);
const orders: [LedgerOrder, string][] = [
  ['imported', filterBarTexts.imported],
  ['random', filterBarTexts.random],
  ['longest', filterBarTexts.longestFirst],
  ['shortest', filterBarTexts.shortestFirst],
  ['similar', filterBarTexts.similarTogether],
  ['telling', filterBarTexts.mostTellingFirst],
  ['surest', filterBarTexts.surestFirst],
  ['likely', filterBarTexts.likeliestFirst],
  ['resembling', filterBarTexts.mostLikeCodeFirst],
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
  const { question } = useStudyLocation();
  const [open, setOpen] = useState(filter.narrowed > 0);
  return (
    <>
      <Choice
        label={filterBarTexts.show}
        hideLabel
        className="!py-1 max-w-36"
        aria-label={filterBarTexts.whichAnswers}
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
          label={filterBarTexts.found}
          hideLabel
          aria-label={filterBarTexts.howWordsFound}
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
        label={filterBarTexts.order}
        hideLabel
        className="!py-1 max-w-36"
        aria-label={filterBarTexts.order2}
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
        {filterBarTexts.narrow}
        {filter.narrowed > 0 && ` · ${filter.narrowed}`}
      </Button>
      {(open || filter.narrowed > 0) && <Narrowing filter={filter} onFilter={onFilter} />}
    </>
  );
}

type CodePart = 'all' | 'any' | 'none';
const codeParts: [CodePart, string, string][] = [
  ['all', filterBarTexts.coded, filterBarTexts.codedAll],
  ['any', filterBarTexts.orWith, filterBarTexts.codedAny],
  ['none', filterBarTexts.notWith, filterBarTexts.coded2],
];

function Narrowing(props: FilterBarProps) {
  const { filter, onFilter } = props;
  const { study } = useStudyLocation();
  const codebook = useDrawnCodebook(study.id);
  const groups = useGroups(study.id).data?.groups ?? [];
  if (!codebook) return null;
  return (
    <div className="order-last flex min-w-0 basis-full flex-wrap items-center gap-x-4 gap-y-2">
      <Chips {...props} codebook={codebook} groups={groups} />
      <CodeCondition {...props} codebook={codebook} />
      {study.variables.length > 0 && <BackgroundCondition {...props} />}
      {groups.length > 0 && <GroupCondition {...props} groups={groups} />}
      <CoderCondition {...props} />
      <label className="inline-flex items-center gap-2 text-soft">
        <input
          type="checkbox"
          checked={filter.same === 'joined'}
          onChange={(event) => onFilter({ same: event.target.checked ? 'joined' : 'apart' })}
        />
        {filterBarTexts.sameWordsOne}
      </label>
    </div>
  );
}

type Groups = readonly { id: string; name: string }[];

/** What the list is filtered by, each to be taken off. */
function Chips({
  filter,
  onFilter,
  codebook,
  groups,
}: FilterBarProps & { codebook: DrawnCodebook; groups: Groups }) {
  const { study } = useStudyLocation();
  const without = (part: CodePart, id: string) =>
    onFilter({ [part]: filter[part].filter((one) => one !== id) });
  return (
    <>
      {codeParts.flatMap(([part, said]) =>
        filter[part].map((id) => (
          <Chip key={part + id} onRemove={() => without(part, id)}>
            {said} {codebook.byId.get(id)?.name ?? filterBarTexts.deletedCode}
          </Chip>
        )),
      )}
      {filter.where.map((one, place) => (
        <Chip
          key={`${one.variableId} ${one.value}`}
          onRemove={() => onFilter({ where: filter.where.filter((_, i) => i !== place) })}
        >
          {study.variables.find(({ id }) => id === one.variableId)?.name}:{' '}
          {one.value || filterBarTexts.stated}
        </Chip>
      ))}
      {filter.among.map((id) => (
        <Chip
          key={id}
          onRemove={() => onFilter({ among: filter.among.filter((one) => one !== id) })}
        >
          {filterBarTexts.in(groups.find((group) => group.id === id)?.name)}
        </Chip>
      ))}
      {filter.like !== undefined && (
        <Chip onRemove={() => onFilter({ like: undefined, same: 'joined' })}>
          {filterBarTexts.oneAnswer}
        </Chip>
      )}
      {filter.about !== undefined && (
        <Chip onRemove={() => onFilter({ about: undefined })}>
          {filterBarTexts.likelyAbout(codebook.themes.find(({ id }) => id === filter.about)?.name)}
        </Chip>
      )}
    </>
  );
}

function CodeCondition({
  filter,
  onFilter,
  codebook,
}: FilterBarProps & { codebook: DrawnCodebook }) {
  const [part, setPart] = useState<CodePart>('all');
  return (
    <>
      <span className="inline-flex max-w-full flex-wrap items-center gap-1.5">
        <Choice
          label={filterBarTexts.codes}
          hideLabel
          value={part}
          onChange={(event) => setPart(event.target.value as CodePart)}
        >
          {codeParts.map(([one, , name]) => (
            <option key={one} value={one}>
              {name}
            </option>
          ))}
        </Choice>
        <CodePicker
          label={filterBarTexts.codeNarrow}
          codes={codebook.codes}
          onPick={(code) => {
            if (!filter[part].includes(code.id)) onFilter({ [part]: [...filter[part], code.id] });
          }}
        />
      </span>
      {filter.all.length + filter.any.length > 0 && (
        <Choice
          label={filterBarTexts.one}
          value={filter.together}
          onChange={(event) => onFilter({ together: event.target.value as 'answer' | 'line' })}
        >
          <option value="answer">{filterBarTexts.answer}</option>
          <option value="line">{filterBarTexts.line}</option>
        </Choice>
      )}
    </>
  );
}

function BackgroundCondition({ filter, onFilter }: FilterBarProps) {
  const { study } = useStudyLocation();
  const [variable, setVariable] = useState(0);
  return (
    <span className="inline-flex max-w-full flex-wrap items-center gap-1.5">
      <Choice
        label={filterBarTexts.background}
        hideLabel
        value={variable}
        onChange={(event) => setVariable(Number(event.target.value))}
      >
        <option value={0}>{filterBarTexts.background2}</option>
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
  );
}

function GroupCondition({ filter, onFilter, groups }: FilterBarProps & { groups: Groups }) {
  return (
    <Choice
      label={filterBarTexts.group}
      hideLabel
      className="max-w-40"
      value=""
      onChange={(event) => onFilter({ among: [...filter.among, event.target.value] })}
    >
      <option value="">{filterBarTexts.group2}</option>
      {groups
        .filter(({ id }) => !filter.among.includes(id))
        .map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
    </Choice>
  );
}

function CoderCondition({ filter, onFilter }: FilterBarProps) {
  const { study } = useStudyLocation();
  const members = useMembers(study.id).data?.members ?? [];
  if (members.length < 2) return null;
  return (
    <Choice
      label={filterBarTexts.coded3}
      value={filter.coder ?? 0}
      onChange={(event) => onFilter({ coder: Number(event.target.value) || undefined })}
    >
      <option value={0}>{filterBarTexts.anybody}</option>
      {members.map((member) => (
        <option key={member.id} value={member.id}>
          {member.name}
        </option>
      ))}
    </Choice>
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
      label={filterBarTexts.value}
      hideLabel
      value=""
      onChange={(event) => onPick(event.target.value === ' ' ? '' : event.target.value)}
    >
      <option value="">{filterBarTexts.is}</option>
      {labels.map((label) => (
        <option key={label} value={label}>
          {label}
        </option>
      ))}
      <option value=" ">{filterBarTexts.stated}</option>
    </Choice>
  );
}

function Chip({ children, onRemove }: { children: React.ReactNode; onRemove: () => void }) {
  return (
    <span className="inline-flex items-center gap-1 rounded bg-wash px-2 py-0.5">
      <span>{children}</span>
      <button
        type="button"
        aria-label={filterBarTexts.noLonger}
        onClick={onRemove}
        className="text-soft"
      >
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
      aria-label={filterBarTexts.answersContaining}
      placeholder={filterBarTexts.containing}
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
        // while the answers are fetched there is no field yet: it takes the focus that is dropped
        if (field) field.focus();
        else currentTarget.blur();
      }}
    />
  );
}
