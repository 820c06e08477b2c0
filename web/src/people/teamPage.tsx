import { ROLES, type Member, type Role } from '@yellow-thread/contract';
import { useState } from 'react';
import {
  useChangeRole,
  useMembers,
  useRemoveMember,
  useResetPassword,
  useSession,
} from '../data/people.js';
import { useChangePrivacy } from '../data/personalData.js';
import { useAssignments } from '../data/sampling.js';
import { useMay } from '../frame/access.js';
import { useStudyDetail } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { PageProblem, ProblemNote, Waiting } from '../parts/notices.js';
import { Assignments } from '../studyParts/assignments.js';
import { InviteForm, LinkToPassOn, PendingInvitations, type MadeLink } from './invitations.js';
import { roleTexts, teamPageTexts } from './texts.js';

/** Who works on a study, in which role, and how far what was assigned is. */
export function TeamPage() {
  const study = useStudyDetail();
  const members = useMembers(study.id);
  const isOwner = useMay('ownership');
  const showsAssigned = useMay('coding');
  const me = useSession().data?.account?.id;
  const [made, setMade] = useState<MadeLink | null>(null);
  if (members.isError) return <PageProblem error={members.error} />;
  if (!members.data) return <Waiting what={teamPageTexts.team} />;
  return (
    <main className="work px-8 py-6 max-sm:px-4">
      <div className="flex max-w-4xl flex-col gap-8">
        <header>
          <h1>{teamPageTexts.heading}</h1>
          <p className="mt-1 max-w-prose text-soft">
            {isOwner ? teamPageTexts.whatOwnersDo : teamPageTexts.yourRole(study.role)}
          </p>
        </header>
        <section aria-labelledby="members">
          <h2 id="members" className="sr-only">
            {teamPageTexts.members}
          </h2>
          <ul className="border-t border-rule">
            {members.data.members.map((member) => (
              <MemberRow
                key={member.id}
                study={study.id}
                member={member}
                isMe={member.id === me}
                isOwner={isOwner}
                onLink={setMade}
              />
            ))}
          </ul>
        </section>
        {isOwner && (
          <section aria-labelledby="invite">
            <h2 id="invite">{teamPageTexts.inviteSomebody}</h2>
            <InviteForm study={study.id} onLink={setMade} />
            {made && <LinkToPassOn made={made} />}
            <PendingInvitations study={study.id} invitations={members.data.invitations} />
          </section>
        )}
        {isOwner && <WhatReadersSee />}
        {showsAssigned && <AssignedWork />}
        <Roles />
      </div>
    </main>
  );
}

/** Whether readers see people's names. */
function WhatReadersSee() {
  const study = useStudyDetail();
  const change = useChangePrivacy(study.id);
  return (
    <section aria-labelledby="readers">
      <h2 id="readers">{teamPageTexts.whatReadersSee}</h2>
      <label className="mt-2 flex items-baseline gap-2">
        <input
          type="checkbox"
          checked={study.masksForReaders}
          disabled={change.isPending}
          onChange={(event) => change.mutate(event.target.checked)}
        />
        <span className="max-w-prose">
          {teamPageTexts.maskNames}
          <span className="block text-[13px] text-soft">{teamPageTexts.maskNamesHow}</span>
        </span>
      </label>
      {change.error && <ProblemNote error={change.error} />}
    </section>
  );
}

function AssignedWork() {
  const study = useStudyDetail();
  const assignments = useAssignments(study.id).data?.assignments ?? [];
  return <Assignments study={study} assignments={assignments} showsQuestion />;
}

function MemberRow({
  study,
  member,
  isMe,
  isOwner,
  onLink,
}: {
  study: number;
  member: Member;
  isMe: boolean;
  isOwner: boolean;
  onLink: (made: MadeLink) => void;
}) {
  const change = useChangeRole(study);
  const remove = useRemoveMember(study);
  const reset = useResetPassword(study);
  const [asks, setAsks] = useState(false);
  const { id, name, role } = member;
  const problem = change.error ?? remove.error ?? reset.error;
  return (
    <li className="flex min-h-12 flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1.5">
      <span className="min-w-0 break-words">
        <span className="font-medium">{name}</span>{' '}
        {isMe && <span className="text-soft">{teamPageTexts.you}</span>}
      </span>
      {asks ? (
        <span className="ml-auto flex flex-wrap items-center gap-2">
          <span>{teamPageTexts.whatCodedStays(isMe, name)}</span>
          <Button look="grave" disabled={remove.isPending} onClick={() => remove.mutate(id)}>
            {isMe ? teamPageTexts.leave : teamPageTexts.remove}
          </Button>
          <Button onClick={() => setAsks(false)}>{teamPageTexts.cancel}</Button>
        </span>
      ) : (
        <span className="ml-auto grid grid-cols-[8rem_minmax(7rem,15rem)] items-center gap-2">
          {isOwner ? (
            <Choice
              label={teamPageTexts.roleOf(name)}
              hideLabel
              value={change.isPending ? change.variables.role : role}
              disabled={change.isPending}
              onChange={(event) => change.mutate({ member: id, role: event.target.value as Role })}
            >
              {ROLES.map((one) => (
                <option key={one} value={one}>
                  {roleTexts[one].name}
                </option>
              ))}
            </Choice>
          ) : (
            <span>{roleTexts[role].name}</span>
          )}
          <span className="flex flex-wrap justify-end gap-2">
            {member.mayBeReset && (
              <Button
                look="bare"
                disabled={reset.isPending}
                onClick={() =>
                  reset.mutate(id, { onSuccess: (link) => onLink({ ...link, name, role: null }) })
                }
              >
                {teamPageTexts.resetPassword}
              </Button>
            )}
            {(isOwner || isMe) && (
              <Button look="bare" onClick={() => setAsks(true)}>
                {isMe ? teamPageTexts.leaveAsk : teamPageTexts.removeAsk}
              </Button>
            )}
          </span>
        </span>
      )}
      {problem && <ProblemNote error={problem} />}
    </li>
  );
}

/** What each role may do. */
function Roles() {
  return (
    <section aria-labelledby="roles">
      <h2 id="roles">{teamPageTexts.roles}</h2>
      <dl className="mt-2 grid grid-cols-[max-content_1fr] gap-x-4 gap-y-1 max-sm:grid-cols-1">
        {ROLES.map((role) => (
          <div key={role} className="contents">
            <dt className="font-medium">{roleTexts[role].name}</dt>
            <dd className="max-w-prose text-soft">{roleTexts[role].may}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
