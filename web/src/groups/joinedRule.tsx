import type { Rule, StudyDetail } from '@yellow-thread/contract';
import { X } from 'lucide-react';
import { useGroups } from '../data/groups.js';
import { useImports } from '../data/sheets.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { onVariable } from '../studyParts/variableCondition.js';
import { ConditionForm } from './conditionForm.js';
import { subjectOf, subjectsOf, type Joined } from './rules.js';
import { joinedRuleTexts } from './texts.js';

const joints: Record<Joined['is'], string> = {
  all_of: joinedRuleTexts.allHolds,
  any_of: joinedRuleTexts.anyHolds,
  none_of: joinedRuleTexts.noneHolds,
};

/** Conditions joined with each other, each on a line of its own; those joined among themselves stand further in. */
export function JoinedRule({
  study,
  groupId,
  rule,
  onChange,
  onRemove,
  isOutermost = false,
}: {
  study: StudyDetail;
  groupId: string;
  rule: Joined;
  onChange: (rule: Joined) => void;
  onRemove?: () => void;
  isOutermost?: boolean;
}) {
  const groups = useGroups(study.id).data?.groups ?? [];
  const imports = useImports(study.id).data?.imports ?? [];
  const others = groups.filter(({ id }) => id !== groupId);
  const subjects = subjectsOf(study, others, imports);
  const set = (place: number, one: Rule) =>
    onChange({ ...rule, rules: rule.rules.with(place, one) });
  const add = (one: Rule) => onChange({ ...rule, rules: [...rule.rules, one] });
  const remove = (place: number) =>
    onChange({ ...rule, rules: rule.rules.filter((_, p) => p !== place) });
  const begin = (key: string) =>
    subjects
      .flatMap((one) => one.subjects)
      .find((subject) => subject.key === key)!
      .begin();
  const firstVariable = study.variables[0];
  return (
    <fieldset className={isOutermost ? 'min-w-0' : 'min-w-0 border-l-2 border-rule pl-4'}>
      <legend className="float-left mb-1 flex w-full flex-wrap items-center gap-2">
        <Choice
          label={isOutermost ? joinedRuleTexts.respondentsWhom : joinedRuleTexts.whom}
          value={rule.is}
          onChange={(event) => onChange({ ...rule, is: event.target.value as Joined['is'] })}
        >
          {Object.entries(joints).map(([is, name]) => (
            <option key={is} value={is}>
              {name}
            </option>
          ))}
        </Choice>
        {onRemove && <RemoveButton what={joinedRuleTexts.conditions} onClick={onRemove} />}
      </legend>
      <ul className="clear-both flex flex-col gap-1.5 pl-6">
        {rule.rules.map((one, place) => (
          <li key={place}>
            {'rules' in one ? (
              <JoinedRule
                study={study}
                groupId={groupId}
                rule={one}
                onChange={(next) => set(place, next)}
                onRemove={() => remove(place)}
              />
            ) : (
              <span className="flex flex-wrap items-start gap-x-2 gap-y-1">
                <Choice
                  label={joinedRuleTexts.whatConditionAbout}
                  hideLabel
                  className="max-w-60"
                  value={subjectOf(one)}
                  onChange={(event) => set(place, begin(event.target.value))}
                >
                  {subjects.map(({ title, subjects: some }) => (
                    <optgroup key={title} label={title}>
                      {some.map(({ key, name }) => (
                        <option key={key} value={key}>
                          {name}
                        </option>
                      ))}
                    </optgroup>
                  ))}
                </Choice>
                <ConditionForm
                  study={study}
                  others={others}
                  imports={imports}
                  condition={one}
                  onChange={(next) => set(place, next)}
                />
                <RemoveButton what={joinedRuleTexts.condition} onClick={() => remove(place)} />
              </span>
            )}
          </li>
        ))}
        <li className="flex flex-wrap gap-1">
          <Button
            look="bare"
            className="!px-2 underline"
            onClick={() => add(firstVariable ? onVariable(firstVariable) : begin('mentions'))}
          >
            {joinedRuleTexts.addCondition}
          </Button>
          <Button
            look="bare"
            className="!px-2 underline"
            onClick={() => add({ is: rule.is === 'any_of' ? 'all_of' : 'any_of', rules: [] })}
          >
            {joinedRuleTexts.addConditionsBrackets}
          </Button>
        </li>
      </ul>
    </fieldset>
  );
}

function RemoveButton({ what, onClick }: { what: string; onClick: () => void }) {
  return (
    <button
      type="button"
      aria-label={joinedRuleTexts.takeOut(what)}
      title={joinedRuleTexts.takeOut(what)}
      onClick={onClick}
      className="rounded p-1.5 text-soft hover:bg-wash hover:text-ink"
    >
      <X size={14} aria-hidden />
    </button>
  );
}
