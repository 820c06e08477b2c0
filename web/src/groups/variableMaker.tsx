import type { ByRule, CountedGroup, StudyDetail } from '@yellow-thread/contract';
import { useState } from 'react';
import { useDrawnCodebook, type DrawnCodebook } from '../data/codebook.js';
import { useAddByRule } from '../data/respondents.js';
import { useDrawer } from '../frame/drawer.js';
import { Button } from '../parts/button.js';
import { Choice, Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { Toggles } from '../parts/toggles.js';
import { ofGroups, ofMentions, type ProposedVariable } from './byRule.js';
import { variableMakerTexts } from './texts.js';

/** Makes a variable by which reports can be broken down: of groups, or of whether something is mentioned. */
export function VariableMaker({
  study,
  groups,
}: {
  study: StudyDetail;
  groups: readonly CountedGroup[];
}) {
  const codebook = useDrawnCodebook(study.id);
  const [ofGroups, setOfGroups] = useState(groups.length > 0);
  const [proposed, propose] = useState<ProposedVariable | null>(null);
  const [named, setNamed] = useState<string | null>(null);
  const add = useAddByRule(study.id);
  const openDrawer = useDrawer();
  const name = named ?? proposed?.name ?? '';
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (proposed) add.mutate({ ...proposed, name }, { onSuccess: () => openDrawer(null) });
      }}
    >
      <p className="text-soft">{variableMakerTexts.putsEverybodyOneCategory}</p>
      <Choice
        label={variableMakerTexts.categories}
        value={ofGroups ? 'groups' : 'mentions'}
        onChange={(event) => {
          setOfGroups(event.target.value === 'groups');
          propose(null);
        }}
      >
        <option value="groups" disabled={groups.length === 0}>
          {variableMakerTexts.groups}
        </option>
        <option value="mentions">{variableMakerTexts.whetherSomethingMentioned}</option>
      </Choice>
      {ofGroups ? (
        <OfGroups groups={groups} onChange={propose} />
      ) : (
        codebook && <OfMentions study={study} codebook={codebook} onChange={propose} />
      )}
      <Field
        label={variableMakerTexts.nameNewVariable}
        required
        maxLength={120}
        value={name}
        onChange={(event) => setNamed(event.target.value)}
      />
      <Button
        type="submit"
        look="main"
        className="self-start"
        disabled={!proposed || name.trim() === '' || add.isPending}
      >
        {variableMakerTexts.makeVariable}
      </Button>
      {add.error && <ProblemNote error={add.error} />}
    </form>
  );
}

/** Which groups, and what becomes of those who are in several or none. */
type GroupChoice = { chosen: string[] } & Pick<ByRule, 'inSeveral' | 'inNone'>;

function OfGroups({
  groups,
  onChange,
}: {
  groups: readonly CountedGroup[];
  onChange: (proposed: ProposedVariable | null) => void;
}) {
  const [choice, setChoice] = useState<GroupChoice>({ chosen: [], inSeveral: null, inNone: null });
  const change = (changed: Partial<GroupChoice>) => {
    const next = { ...choice, ...changed };
    setChoice(next);
    const { chosen, ...rest } = next;
    onChange(ofGroups(groups, chosen, rest));
  };
  return (
    <>
      <fieldset>
        <legend className="mb-1 text-[13px] text-soft">
          {variableMakerTexts.groupsOrderCategories}
        </legend>
        <Toggles
          options={groups.map(({ id, name }) => ({ key: id, name }))}
          chosen={choice.chosen}
          onChange={(chosen) => change({ chosen })}
        />
      </fieldset>
      <Choice
        label={variableMakerTexts.peopleSeveral}
        value={choice.inSeveral ?? ''}
        onChange={(event) => change({ inSeveral: event.target.value || null })}
      >
        <option value="">{variableMakerTexts.countFirstChosen}</option>
        <option value="In several">{variableMakerTexts.categorySeveral}</option>
      </Choice>
      <Choice
        label={variableMakerTexts.peopleNone}
        value={choice.inNone ?? ''}
        onChange={(event) => change({ inNone: event.target.value || null })}
      >
        <option value="">{variableMakerTexts.stated}</option>
        <option value="In none">{variableMakerTexts.categoryNone}</option>
      </Choice>
    </>
  );
}

function OfMentions({
  study,
  codebook,
  onChange,
}: {
  study: StudyDetail;
  codebook: DrawnCodebook;
  onChange: (proposed: ProposedVariable | null) => void;
}) {
  const [what, setWhat] = useState('');
  const [question, setQuestion] = useState('');
  const themes = codebook.themes.map(({ id, name }) => ({ kind: 'theme' as const, id, name }));
  const codes = codebook.codes.map(({ id, name }) => ({ kind: 'code' as const, id, name }));
  const change = (nextWhat: string, nextQuestion: string) => {
    setWhat(nextWhat);
    setQuestion(nextQuestion);
    const mentioned = [...themes, ...codes].find(({ id }) => id === nextWhat);
    const where = study.questions.find(({ id }) => String(id) === nextQuestion) ?? null;
    onChange(mentioned ? ofMentions(mentioned, where) : null);
  };
  return (
    <>
      <Choice
        label={variableMakerTexts.themeCode}
        value={what}
        onChange={(event) => change(event.target.value, question)}
      >
        <option value="">{variableMakerTexts.chooseOne}</option>
        <optgroup label={variableMakerTexts.themes}>
          {themes.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </optgroup>
        <optgroup label={variableMakerTexts.codes}>
          {codes.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </optgroup>
      </Choice>
      <Choice
        label={variableMakerTexts.mentioned}
        value={question}
        onChange={(event) => change(what, event.target.value)}
      >
        <option value="">{variableMakerTexts.anyQuestion}</option>
        {study.questions.map(({ id, label }) => (
          <option key={id} value={id}>
            {label}
          </option>
        ))}
      </Choice>
      <p className="text-[13px] text-soft">{variableMakerTexts.noWhoseAnswersDecided}</p>
    </>
  );
}
