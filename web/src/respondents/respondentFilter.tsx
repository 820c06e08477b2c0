import { ruleTextSchema, type Rule, type StudyDetail } from '@yellow-thread/contract';
import { X } from 'lucide-react';
import { useAddress } from '../frame/address.js';
import { Choice } from '../parts/field.js';
import {
  onVariable,
  saysSomething,
  VariableCondition,
  type BackgroundCondition,
} from '../studyParts/variableCondition.js';
import { respondentFilterTexts } from './texts.js';

const PLACE = 'where';

const isOnBackground = (rule: Rule): rule is BackgroundCondition => 'variableId' in rule;

type Conditions = readonly BackgroundCondition[];

function readConditions(search: URLSearchParams): BackgroundCondition[] {
  const read = ruleTextSchema.safeParse(search.get(PLACE) ?? '');
  return read.success && read.data.is === 'all_of' ? read.data.rules.filter(isOnBackground) : [];
}

/** The conditions by which the page is narrowed, kept in its address so that they can be saved and shared. */
export function useConditions() {
  const [search, changeAddress] = useAddress();
  const conditions = readConditions(search);
  const change = (next: (before: Conditions) => Conditions) =>
    changeAddress((address) => {
      const rules = next(readConditions(address));
      if (rules.length === 0) address.delete(PLACE);
      else address.set(PLACE, JSON.stringify({ is: 'all_of', rules }));
      return address;
    });
  const filled = conditions.filter(saysSomething);
  const rule: Rule | null = filled.length > 0 ? { is: 'all_of', rules: filled } : null;
  return { conditions, change, rule };
}

/** Narrows the table to those of whom something holds: a line a variable, all of them together. */
export function RespondentFilter({
  study,
  conditions,
  onChange,
}: {
  study: StudyDetail;
  conditions: Conditions;
  onChange: (next: (before: Conditions) => Conditions) => void;
}) {
  const lines = conditions.flatMap((condition, at) => {
    const variable = study.variables.find(({ id }) => id === condition.variableId);
    return variable ? [{ condition, variable, at }] : [];
  });
  if (lines.length === 0) return null;
  return (
    <ul aria-label={respondentFilterTexts.onlyWhom} className="mb-4 space-y-2">
      {lines.map(({ condition, variable, at }) => (
        <li key={at} className="flex flex-wrap items-start gap-2">
          <span className="py-1.5 font-medium">{variable.name}</span>
          <VariableCondition
            study={study.id}
            condition={condition}
            variable={variable}
            onChange={(next) =>
              onChange((before) => before.map((one, c) => (c === at ? next : one)))
            }
          />
          <button
            type="button"
            aria-label={respondentFilterTexts.noLongerNarrow(variable.name)}
            className="rounded p-2 text-soft hover:bg-wash hover:text-ink"
            onClick={() => onChange((before) => before.filter((_, c) => c !== at))}
          >
            <X size={14} aria-hidden />
          </button>
        </li>
      ))}
    </ul>
  );
}

/** Chooses a further variable to narrow by. */
export const NarrowBy = ({
  study,
  onChange,
}: Pick<Parameters<typeof RespondentFilter>[0], 'study' | 'onChange'>) => (
  <Choice
    label={respondentFilterTexts.narrow}
    hideLabel
    className="max-w-44"
    value=""
    onChange={(event) => {
      const variable = study.variables.find(({ id }) => id === Number(event.target.value));
      if (variable) onChange((before) => [...before, onVariable(variable)]);
    }}
  >
    <option value="">{respondentFilterTexts.narrow2}</option>
    {study.variables.map(({ id, name }) => (
      <option key={id} value={id}>
        {name}
      </option>
    ))}
  </Choice>
);
