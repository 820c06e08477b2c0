import type { CountedGroup, StudyDetail } from '@yellow-thread/contract';
import { ruleSentence } from '@yellow-thread/core/groups';
import { X } from 'lucide-react';
import { useEffect } from 'react';
import { restrictTo, useGroups, useRuleNames } from '../data/groups.js';
import { useRestriction } from '../data/restriction.js';
import { withinBarTexts } from './texts.js';

/** Says on every page whom the study is restricted to, and clears that. */
export function WithinBar({ study }: { study: Pick<StudyDetail, 'id'> }) {
  const within = useRestriction(study.id);
  const groups = useGroups(study.id).data;
  const group = groups?.groups.find(({ id }) => id === within);
  const isGone = within !== null && groups !== undefined && !group;
  useEffect(() => {
    // somebody removed it, or undid its making
    if (isGone) restrictTo(study.id, null);
  }, [isGone, study.id]);
  if (!group || !groups) return null;
  return (
    <p
      role="status"
      className="flex items-baseline gap-3 border-b-2 border-thread bg-wash px-6 py-1.5"
    >
      <Whom study={study.id} group={group} respondents={groups.respondents} />
      <button
        type="button"
        className="inline-flex shrink-0 items-center gap-1 underline"
        onClick={() => restrictTo(study.id, null)}
      >
        <X size={13} aria-hidden /> {withinBarTexts.lookEverybody}
      </button>
    </p>
  );
}

/** A group in words. */
function Whom({
  study,
  group,
  respondents,
}: {
  study: number;
  group: CountedGroup;
  respondents: number;
}) {
  const names = useRuleNames(study);
  const rule = names ? ruleSentence(group.rule, names) : '';
  return (
    <span className="min-w-0 flex-1 truncate" title={rule}>
      {withinBarTexts.only} <strong>{group.name}</strong>
      {withinBarTexts.respondents(group.people, respondents)}
      {rule !== '' && `, ${rule}`}
    </span>
  );
}
