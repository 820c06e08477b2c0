import type { GroupFields, Rule, StudyDetail } from '@yellow-thread/contract';
import { ruleSubject } from '@yellow-thread/core/groups';
import { useDeferredValue, useId, useState } from 'react';
import { useGroupSize, usePutGroup, useRuleNames } from '../data/groups.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { Size } from './size.js';
import { JoinedRule } from './joinedRule.js';
import { isComplete, type Joined } from './rules.js';
import { groupEditorTexts } from './texts.js';

/** Builds a group in a form that reads as a sentence, with its size beside it as it is built. */
export function GroupEditor({
  study,
  id,
  group,
  onClose,
}: {
  study: StudyDetail;
  id: string;
  group: GroupFields;
  onClose: () => void;
}) {
  const [name, setName] = useState(group.name);
  const [description, setDescription] = useState(group.description);
  const [rule, setRule] = useState<Joined>(
    'rules' in group.rule ? group.rule : { is: 'all_of', rules: [group.rule] },
  );
  const put = usePutGroup(study.id);
  const title = useId();
  const ready = name.trim() !== '' && isComplete(rule);
  return (
    <form
      aria-labelledby={title}
      className="mb-4 max-w-[980px] rounded border border-rule bg-card px-5 py-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready) put.mutate({ id, name, description, rule }, { onSuccess: onClose });
      }}
    >
      <h2 id={title} className="sr-only">
        {group.name === '' ? groupEditorTexts.newGroup : groupEditorTexts.group(group.name)}
      </h2>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.4fr)_170px] items-end gap-5">
        <Field
          label={groupEditorTexts.name}
          value={name}
          maxLength={120}
          required
          autoFocus
          onChange={(event) => setName(event.target.value)}
        />
        <Field
          label={groupEditorTexts.what}
          placeholder={groupEditorTexts.optional}
          value={description}
          maxLength={4000}
          onChange={(event) => setDescription(event.target.value)}
        />
        <LiveSize study={study} id={id} rule={rule} />
      </div>
      <div className="mt-5">
        <JoinedRule study={study} groupId={id} rule={rule} onChange={setRule} isOutermost />
      </div>
      <Sentence study={study} rule={rule} />
      {put.error && <ProblemNote error={put.error} />}
      <div className="mt-4 flex gap-2">
        <Button type="submit" look="main" disabled={!ready || put.isPending}>
          {groupEditorTexts.saveGroup}
        </Button>
        <Button onClick={onClose}>{groupEditorTexts.cancel}</Button>
        {!ready && (
          <span className="self-center text-soft">
            {name.trim() === ''
              ? groupEditorTexts.needsName
              : groupEditorTexts.someConditionSaysNothing}
          </span>
        )}
      </div>
    </form>
  );
}

function LiveSize({ study, id, rule }: { study: StudyDetail; id: string; rule: Rule }) {
  const late = useDeferredValue(rule);
  const { data, error, isPlaceholderData } = useGroupSize(study.id, late, id);
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Waiting what={groupEditorTexts.size} />;
  const isOld = isPlaceholderData || late !== rule;
  return (
    <div aria-busy={isOld} className={isOld ? 'opacity-50' : ''}>
      <Size people={data.people} of={data.respondents} />
    </div>
  );
}

function Sentence({ study, rule }: { study: StudyDetail; rule: Rule }) {
  const names = useRuleNames(study.id);
  return (
    <p aria-live="polite" className="mt-4 border-t border-rule pt-3 text-soft">
      {names ? `${ruleSubject(rule, names)}.` : '…'}
    </p>
  );
}
