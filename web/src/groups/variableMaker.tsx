import type { ByRule, CountedGroup, Rule, StudyDetail } from '@yellow-thread/contract';
import { useState } from 'react';
import { useDrawnCodebook, type DrawnCodebook } from '../data/codebook.js';
import { useAddByRule } from '../data/respondents.js';
import { useDrawer } from '../frame/drawer.js';
import { Button } from '../parts/button.js';
import { Choice, Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { Toggles } from '../parts/toggles.js';

/** A variable that is still being made; null where it says nothing yet. */
interface Begun {
  name: string;
  by: ByRule | null;
}

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
  const [begun, setBegun] = useState<Begun>({ name: '', by: null });
  const [named, setNamed] = useState<string | null>(null);
  const add = useAddByRule(study.id);
  const openDrawer = useDrawer();
  const name = named ?? begun.name;
  const { by } = begun;
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (by) add.mutate({ name, by }, { onSuccess: () => openDrawer(null) });
      }}
    >
      <p className="text-soft">
        It puts everybody in one category at most, and can break a report down, be sampled by and be
        exported like any other variable. It follows the coding.
      </p>
      <Choice
        label="Its categories are"
        value={ofGroups ? 'groups' : 'mentions'}
        onChange={(event) => {
          setOfGroups(event.target.value === 'groups');
          setBegun({ name: '', by: null });
        }}
      >
        <option value="groups" disabled={groups.length === 0}>
          groups
        </option>
        <option value="mentions">whether something is mentioned</option>
      </Choice>
      {ofGroups ? (
        <OfGroups groups={groups} onChange={setBegun} />
      ) : (
        codebook && <OfMentions study={study} codebook={codebook} onChange={setBegun} />
      )}
      <Field
        label="Name of the new variable"
        required
        maxLength={120}
        value={name}
        onChange={(event) => setNamed(event.target.value)}
      />
      <Button
        type="submit"
        look="main"
        className="self-start"
        disabled={!by || name.trim() === '' || add.isPending}
      >
        Make the variable
      </Button>
      {add.error && <ProblemNote error={add.error} />}
    </form>
  );
}

function OfGroups({
  groups,
  onChange,
}: {
  groups: readonly CountedGroup[];
  onChange: (begun: Begun) => void;
}) {
  const [chosen, setChosen] = useState<string[]>([]);
  const [inSeveral, setInSeveral] = useState<string | null>(null);
  const [inNone, setInNone] = useState<string | null>(null);
  const tell = (next: { chosen: string[] } & Pick<ByRule, 'inSeveral' | 'inNone'>) => {
    setChosen(next.chosen);
    setInSeveral(next.inSeveral);
    setInNone(next.inNone);
    const rules = next.chosen.map((id) => ({
      label: groups.find((group) => group.id === id)!.name,
      rule: { is: 'in_group', groupId: id, member: true } satisfies Rule,
    }));
    onChange({
      name: rules
        .map(({ label }) => label)
        .join(' / ')
        .slice(0, 120),
      by: rules.length === 0 ? null : { rules, inSeveral: next.inSeveral, inNone: next.inNone },
    });
  };
  return (
    <>
      <fieldset>
        <legend className="mb-1 text-[13px] text-soft">
          Groups, in the order of the categories
        </legend>
        <Toggles
          options={groups.map(({ id, name }) => ({ key: id, name }))}
          chosen={chosen}
          onChange={(next) => tell({ chosen: next, inSeveral, inNone })}
        />
      </fieldset>
      <Choice
        label="People in several"
        value={inSeveral ?? ''}
        onChange={(event) => tell({ chosen, inSeveral: event.target.value || null, inNone })}
      >
        <option value="">count in the first chosen</option>
        <option value="In several">are a category, “In several”</option>
      </Choice>
      <Choice
        label="People in none"
        value={inNone ?? ''}
        onChange={(event) => tell({ chosen, inSeveral, inNone: event.target.value || null })}
      >
        <option value="">are not stated</option>
        <option value="In none">are a category, “In none”</option>
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
  onChange: (begun: Begun) => void;
}) {
  const [what, setWhat] = useState('');
  const [question, setQuestion] = useState('');
  const themes = codebook.themes.map(({ id, name }) => ({ key: `theme ${id}`, name }));
  const codes = codebook.codes.map(({ id, name }) => ({ key: `code ${id}`, name }));
  const tell = (nextWhat: string, nextQuestion: string) => {
    setWhat(nextWhat);
    setQuestion(nextQuestion);
    const [kind, id] = nextWhat.split(' ');
    if (!id) return onChange({ name: '', by: null });
    const named = [...themes, ...codes].find(({ key }) => key === nextWhat)!.name;
    const where = study.questions.find((one) => String(one.id) === nextQuestion);
    const mentions = (which: 'any' | 'none'): Rule => ({
      ...{ is: 'mentions', which, questionId: where?.id ?? null },
      codeIds: kind === 'code' ? [id] : [],
      themeIds: kind === 'theme' ? [id] : [],
    });
    onChange({
      name: `Mentions ${named}${where ? `, ${where.label}` : ''}`.slice(0, 120),
      by: {
        rules: [
          { label: 'Yes', rule: mentions('any') },
          { label: 'No', rule: mentions('none') },
        ],
        inSeveral: null,
        inNone: null,
      },
    });
  };
  return (
    <>
      <Choice
        label="Theme or code"
        value={what}
        onChange={(event) => tell(event.target.value, question)}
      >
        <option value="">choose one …</option>
        <optgroup label="Themes">
          {themes.map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </optgroup>
        <optgroup label="Codes">
          {codes.map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </optgroup>
      </Choice>
      <Choice
        label="Mentioned in"
        value={question}
        onChange={(event) => tell(what, event.target.value)}
      >
        <option value="">any question</option>
        {study.questions.map(({ id, label }) => (
          <option key={id} value={id}>
            {label}
          </option>
        ))}
      </Choice>
      <p className="text-[13px] text-soft">
        “No” is for those whose answers are decided for it; who is not decided, or gave no answer,
        is not stated.
      </p>
    </>
  );
}
