import type { RuleCondition, StudyDetail } from '@yellow-thread/contract';
import { X } from 'lucide-react';
import { useDrawnCodebook } from '../data/codebook.js';
import { CodePicker } from '../studyParts/codePicker.js';
import { Choice } from '../parts/field.js';
import { StitchMark } from '../parts/stitch.js';
import { Toggles } from '../parts/toggles.js';
import { VariableCondition } from '../studyParts/variableCondition.js';
import { conditionFormTexts } from './texts.js';

interface Props<Condition> {
  study: StudyDetail;
  condition: Condition;
  onChange: (condition: RuleCondition) => void;
}
type Of<Is extends RuleCondition['is']> = Extract<RuleCondition, { is: Is }>;

/** The rest of a condition after what it is about, as a sentence to be filled in. */
export function ConditionForm({
  others,
  imports,
  ...props
}: Props<RuleCondition> & {
  others: readonly { id: string; name: string }[];
  imports: readonly { id: number; fileName: string; wave: string }[];
}) {
  const { study, condition, onChange } = props;
  switch (condition.is) {
    case 'value':
    case 'range':
    case 'stated': {
      const variable = study.variables.find(({ id }) => id === condition.variableId);
      if (!variable)
        return <span className="py-1.5 text-brick">{conditionFormTexts.goneTakeOut}</span>;
      return (
        <VariableCondition {...props} study={study.id} condition={condition} variable={variable} />
      );
    }
    case 'mentions':
      return <OnMentions {...props} condition={condition} />;
    case 'answered':
      return (
        <>
          <Choice
            label={conditionFormTexts.answered}
            hideLabel
            value={String(condition.answered)}
            onChange={(event) =>
              onChange({ ...condition, answered: event.target.value === 'true' })
            }
          >
            <option value="true">{conditionFormTexts.answered2}</option>
            <option value="false">{conditionFormTexts.answer}</option>
          </Choice>
          <QuestionChoice
            study={study}
            value={condition.questionId}
            onChange={(questionId) => questionId && onChange({ ...condition, questionId })}
          />
        </>
      );
    case 'came_with':
      return (
        <Toggles
          options={imports.map(({ id, wave, fileName }) => ({
            key: String(id),
            name: wave || fileName,
          }))}
          chosen={condition.importIds.map(String)}
          onChange={(keys) => onChange({ ...condition, importIds: keys.map(Number) })}
        />
      );
    case 'in_group':
      return (
        <>
          <Choice
            label={conditionFormTexts.inItOrNot}
            hideLabel
            value={String(condition.member)}
            onChange={(event) => onChange({ ...condition, member: event.target.value === 'true' })}
          >
            <option value="true">{conditionFormTexts.in}</option>
            <option value="false">{conditionFormTexts.notIn}</option>
          </Choice>
          <Choice
            label={conditionFormTexts.whichGroup}
            hideLabel
            value={condition.groupId}
            onChange={(event) => onChange({ ...condition, groupId: event.target.value })}
          >
            {others.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Choice>
        </>
      );
  }
}

function QuestionChoice({
  study,
  value,
  any,
  onChange,
}: {
  study: StudyDetail;
  value: number | null;
  /** What stands for no question in particular; left out where one must be chosen. */
  any?: string;
  onChange: (question: number | null) => void;
}) {
  return (
    <Choice
      label={conditionFormTexts.whichQuestion}
      hideLabel
      className="max-w-56"
      value={value ?? ''}
      onChange={(event) => onChange(Number(event.target.value) || null)}
    >
      {any && <option value="">{any}</option>}
      {study.questions.map(({ id, label }) => (
        <option key={id} value={id}>
          {label}
        </option>
      ))}
    </Choice>
  );
}

function OnMentions({ study, condition, onChange }: Props<Of<'mentions'>>) {
  const codebook = useDrawnCodebook(study.id);
  if (!codebook) return <span className="py-1.5 text-soft">…</span>;
  const { codeIds, themeIds } = condition;
  const chips = [
    ...themeIds.map((id) => {
      const theme = codebook.themes.find((one) => one.id === id);
      return { id, name: theme?.name ?? conditionFormTexts.deletedTheme, look: theme?.look };
    }),
    ...codeIds.map((id) => {
      const code = codebook.byId.get(id);
      return { id, name: code?.name ?? conditionFormTexts.deletedCode, look: code?.look };
    }),
  ];
  const without = (id: string) =>
    onChange({
      ...condition,
      codeIds: codeIds.filter((one) => one !== id),
      themeIds: themeIds.filter((one) => one !== id),
    });
  return (
    <>
      <Choice
        label={conditionFormTexts.whichThem}
        hideLabel
        value={condition.which}
        onChange={(event) =>
          onChange({ ...condition, which: event.target.value as Of<'mentions'>['which'] })
        }
      >
        <option value="any">{conditionFormTexts.any}</option>
        <option value="all">{conditionFormTexts.all}</option>
        <option value="none">{conditionFormTexts.none}</option>
      </Choice>
      {chips.map(({ id, name, look }) => (
        <span key={id} className="inline-flex items-center gap-1.5 rounded bg-wash px-2 py-1.5">
          {look && <StitchMark look={look} width={14} />} {name}
          <button
            type="button"
            aria-label={conditionFormTexts.noLonger(name)}
            onClick={() => without(id)}
          >
            <X size={12} aria-hidden />
          </button>
        </span>
      ))}
      <CodePicker
        label={conditionFormTexts.codesMention}
        codes={codebook.codes.filter((code) => !codeIds.includes(code.id))}
        className="w-32 !py-1.5"
        onPick={(code) => onChange({ ...condition, codeIds: [...codeIds, code.id] })}
      />
      <Choice
        label={conditionFormTexts.themesMention}
        hideLabel
        className="max-w-36"
        value=""
        onChange={(event) =>
          onChange({ ...condition, themeIds: [...themeIds, event.target.value] })
        }
      >
        <option value="">{conditionFormTexts.theme}</option>
        {codebook.themes
          .filter((theme) => !themeIds.includes(theme.id))
          .map((theme) => (
            <option key={theme.id} value={theme.id}>
              {theme.name}
            </option>
          ))}
      </Choice>
      <span className="inline-flex items-center gap-2 text-soft">
        {conditionFormTexts.in}
        <QuestionChoice
          study={study}
          value={condition.questionId}
          any={conditionFormTexts.anyQuestion}
          onChange={(questionId) => onChange({ ...condition, questionId })}
        />
      </span>
    </>
  );
}
