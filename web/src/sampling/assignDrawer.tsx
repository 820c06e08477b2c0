import type { Question, StudyDetail } from '@yellow-thread/contract';
import { hasAccess } from '@yellow-thread/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { Link } from 'react-router';
import { useMembers } from '../data/people.js';
import { useAssign, useAssignments } from '../data/sampling.js';
import { useDrawer } from '../frame/drawer.js';
import { Button } from '../parts/button.js';
import { Choice, Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { Assignments } from '../studyParts/assignments.js';
import { assignDrawerTexts as texts } from './texts.js';

/** Asks somebody of the team to code the answers that are listed, or the first of them. */
export function AssignDrawer({
  study,
  question,
  ids,
}: {
  study: StudyDetail;
  question: Question;
  /** The answers that are listed, in their order. */
  ids: readonly number[];
}) {
  const coders = (useMembers(study.id).data?.members ?? []).filter(({ role }) =>
    hasAccess(role, 'coding'),
  );
  const assign = useAssign(study.id, question.id);
  const openDrawer = useDrawer();
  const [chosen, setChosen] = useState<number | null>(null);
  const [size, setSize] = useState(ids.length);
  const coder = coders.find(({ id }) => id === chosen) ?? coders.find(isCoder) ?? coders[0];
  const assigned = useAssignments(study.id).data?.assignments ?? [];
  return (
    <div className="flex flex-col items-start gap-5">
      <p>{texts.whatTheyWillSee}</p>
      <Choice
        label={texts.whoCodesThem}
        value={coder?.id ?? 0}
        onChange={(event) => setChosen(Number(event.target.value))}
      >
        {coders.map(({ id, name, role }) => (
          <option key={id} value={id}>
            {texts.nameAndRole(name, role)}
          </option>
        ))}
      </Choice>
      {coders.length < 2 && (
        <p className="text-soft">
          {texts.nobodyElse}
          <Link
            to={`/studies/${study.id}/team`}
            className="underline"
            onClick={() => openDrawer(null)}
          >
            {texts.inviteSomebody}
          </Link>
        </p>
      )}
      <Field
        label={texts.howMany}
        hint={texts.ofThoseListed(ids.length)}
        type="number"
        min={1}
        max={ids.length}
        value={size}
        onChange={(event) => setSize(Number(event.target.value))}
        className="w-72"
      />
      {assign.isError && <ProblemNote error={assign.error} />}
      <Button
        look="main"
        disabled={!coder || size < 1 || size > ids.length || assign.isPending}
        onClick={() =>
          coder &&
          assign.mutate(
            { id: crypto.randomUUID(), coderId: coder.id, responseIds: ids.slice(0, size) },
            { onSuccess: () => toast(texts.assigned(size, coder.name)) },
          )
        }
      >
        {texts.assign(size)}
      </Button>
      <Assignments
        study={study}
        assignments={assigned.filter((one) => one.questionId === question.id)}
      />
    </div>
  );
}

const isCoder = ({ role }: { role: string }) => role === 'coder';
