import { X } from 'lucide-react';
import { useState } from 'react';
import { useDrawnCodebook, type DrawnCodebook } from '../data/codebook.js';
import { useGroups } from '../data/groups.js';
import { useMembers } from '../data/people.js';
import { useAssignments } from '../data/sampling.js';
import { useVariable } from '../data/respondents.js';
import { useStudyLocation } from '../frame/studyLocation.js';

import { Choice } from '../parts/field.js';
import { CodePicker } from '../studyParts/codePicker.js';

import { filterBarTexts } from './texts.js';
import type { FilterProps } from './ledgerFilter.js';

type CodePart = 'all' | 'any' | 'none';
const codeParts: [CodePart, string, string][] = [
  ['all', filterBarTexts.coded, filterBarTexts.codedAll],
  ['any', filterBarTexts.orWith, filterBarTexts.codedAny],
  ['none', filterBarTexts.notWith, filterBarTexts.coded2],
];

/** What the list is filtered by beside what it shows and the words, and what it can be filtered by. */
export function FilterConditions(props: FilterProps) {
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
      <AssignedCondition {...props} />
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
}: FilterProps & { codebook: DrawnCodebook; groups: Groups }) {
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
      {filter.cluster !== undefined && (
        <Chip onRemove={() => onFilter({ cluster: undefined })}>{filterBarTexts.gathered}</Chip>
      )}
      {filter.about !== undefined && (
        <Chip onRemove={() => onFilter({ about: undefined })}>
          {filterBarTexts.likelyAbout(codebook.themes.find(({ id }) => id === filter.about)?.name)}
        </Chip>
      )}
    </>
  );
}

function CodeCondition({ filter, onFilter, codebook }: FilterProps & { codebook: DrawnCodebook }) {
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

function BackgroundCondition({ filter, onFilter }: FilterProps) {
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

function GroupCondition({ filter, onFilter, groups }: FilterProps & { groups: Groups }) {
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

function CoderCondition({ filter, onFilter }: FilterProps) {
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

function AssignedCondition({ filter, onFilter }: FilterProps) {
  const { study } = useStudyLocation();
  const assignments = useAssignments(study.id).data?.assignments ?? [];
  const coders = new Map(assignments.map(({ coderId, coder }) => [coderId, coder]));
  if (coders.size === 0 || study.role === 'coder') return null;
  return (
    <Choice
      label={filterBarTexts.assignedTo}
      value={filter.assigned ?? 0}
      onChange={(event) => onFilter({ assigned: Number(event.target.value) || undefined })}
    >
      <option value={0}>{filterBarTexts.anybody}</option>
      {[...coders].map(([id, name]) => (
        <option key={id} value={id}>
          {name}
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
