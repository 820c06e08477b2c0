import type { RuleCondition, Variable } from '@yellow-thread/contract';
import { categoriesOf } from '../data/background.js';
import { useVariable } from '../data/respondents.js';
import { Choice, inputBox } from '../parts/field.js';
import { Toggles } from '../parts/toggles.js';
import { variableConditionTexts } from './texts.js';

type Of<Is extends RuleCondition['is']> = Extract<RuleCondition, { is: Is }>;
/** A condition on a background variable. */
export type BackgroundCondition = Of<'value' | 'range' | 'stated'>;

const isRanged = ({ kind, derived }: Variable) =>
  !derived && (kind === 'number' || kind === 'date');

/** A condition on a variable that says nothing yet. */
export const onVariable = (variable: Variable): BackgroundCondition =>
  isRanged(variable)
    ? { is: 'range', variableId: variable.id, from: null, to: null }
    : { is: 'value', variableId: variable.id, test: 'any_of', labels: [] };

/** Whether a condition says something. */
export function saysSomething(condition: BackgroundCondition): boolean {
  switch (condition.is) {
    case 'value':
      return condition.labels.length > 0;
    case 'range':
      return condition.from !== null || condition.to !== null;
    case 'stated':
      return true;
  }
}

const statedTests: Record<string, boolean> = { stated: true, missing: false };

/** The rest of a condition after the variable's name, as a sentence to be filled in. */
export function VariableCondition({
  study,
  condition,
  variable,
  onChange,
}: {
  study: number;
  condition: BackgroundCondition;
  variable: Variable;
  onChange: (condition: BackgroundCondition) => void;
}) {
  const begun = onVariable(variable);
  const tests: [string, string][] =
    begun.is === 'range'
      ? [['range', variableConditionTexts.between]]
      : [
          ['any_of', variableConditionTexts.any],
          ['none_of', variableConditionTexts.statedNone],
        ];
  const test =
    condition.is === 'stated'
      ? condition.stated
        ? 'stated'
        : 'missing'
      : condition.is === 'value'
        ? condition.test
        : 'range';
  const choose = (next: string) => {
    const stated = statedTests[next];
    if (stated !== undefined) onChange({ is: 'stated', variableId: variable.id, stated });
    else if (next === 'range') onChange(begun);
    else
      onChange({
        is: 'value',
        variableId: variable.id,
        test: next === 'none_of' ? 'none_of' : 'any_of',
        labels: condition.is === 'value' ? condition.labels : [],
      });
  };
  return (
    <>
      <Choice
        label={variableConditionTexts.howAsked(variable.name)}
        hideLabel
        value={test}
        onChange={(event) => choose(event.target.value)}
      >
        {[
          ...tests,
          ['stated', variableConditionTexts.stated] as const,
          ['missing', variableConditionTexts.stated2] as const,
        ].map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </Choice>
      {condition.is === 'value' && (
        <ValueToggles
          study={study}
          variable={variable}
          chosen={condition.labels}
          onChange={(labels) => onChange({ ...condition, labels })}
        />
      )}
      {condition.is === 'range' && (
        <Limits
          variable={variable}
          condition={condition}
          onChange={(limits) => onChange({ ...condition, ...limits })}
        />
      )}
    </>
  );
}

function Limits({
  variable,
  condition,
  onChange,
}: {
  variable: Variable;
  condition: Of<'range'>;
  onChange: (limits: Partial<Pick<Of<'range'>, 'from' | 'to'>>) => void;
}) {
  const isDate = variable.kind === 'date';
  const field = (side: 'from' | 'to', name: string) => (
    <input
      type={isDate ? 'date' : 'number'}
      step="any"
      aria-label={`${variable.name} ${name}`}
      placeholder={side === 'from' ? variableConditionTexts.lowest : variableConditionTexts.highest}
      className={`${inputBox} ${isDate ? 'w-40' : 'figures w-24'}`}
      value={condition[side] ?? ''}
      onChange={({ target: { value } }) =>
        onChange({ [side]: value === '' ? null : isDate ? value : Number(value) })
      }
    />
  );
  return (
    <span className="inline-flex items-center gap-2">
      {field('from', 'from')} <span className="text-soft">{variableConditionTexts.and}</span>{' '}
      {field('to', 'to')}
    </span>
  );
}

function ValueToggles({
  study,
  variable,
  chosen,
  onChange,
}: {
  study: number;
  variable: Variable;
  chosen: readonly string[];
  onChange: (labels: string[]) => void;
}) {
  const detail = useVariable(study, variable.id).data;
  if (!detail) return <span className="py-1.5 text-soft">…</span>;
  const labels =
    variable.kind === 'yes_no'
      ? [variableConditionTexts.yes, variableConditionTexts.no]
      : detail.derived
        ? categoriesOf(detail.derived)
        : detail.categories.map(({ label }) => label);
  // what is chosen and has gone since can still be removed
  const all = [...new Set([...labels, ...chosen])];
  return (
    <Toggles
      options={all.map((label) => ({ key: label, name: label }))}
      chosen={chosen}
      onChange={onChange}
    />
  );
}
