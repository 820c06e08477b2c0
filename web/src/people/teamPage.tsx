import type { Member } from '@yellow-thread/contract';
import { Copy } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import {
  useAddMember,
  useGivePassword,
  useMembers,
  useRemoveMember,
  useSession,
} from '../data/people.js';
import { useStudyDetail } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { PageProblem, ProblemNote, Waiting } from '../parts/notices.js';
import { teamPageTexts } from './texts.js';

/** A one-time password that was just made, and whose it is. */
interface Made {
  name: string;
  password: string;
}

/** Who works on a study: inviting people, and removing them. */
export function TeamPage() {
  const study = useStudyDetail();
  const members = useMembers(study.id);
  const add = useAddMember(study.id);
  const give = useGivePassword(study.id);
  const me = useSession().data?.account?.id;
  const [name, setName] = useState('');
  const [made, setMade] = useState<Made | null>(null);
  if (members.isError) return <PageProblem error={members.error} />;
  if (!members.data) return <Waiting what={teamPageTexts.team} />;
  return (
    <main className="work px-8 py-6 max-sm:px-4">
      <header className="mb-4 max-w-3xl">
        <h1>{teamPageTexts.team2}</h1>
        <p className="mt-1 max-w-prose text-soft">{teamPageTexts.everybodyTeamSeesAll}</p>
      </header>
      <ul className="max-w-3xl border-t border-rule">
        {members.data.members.map((member) => (
          <MemberRow
            key={member.id}
            study={study.id}
            member={member}
            isMe={member.id === me}
            isAlone={members.data.members.length === 1}
            onPassword={() =>
              give.mutate(member.id, {
                onSuccess: ({ password }) =>
                  setMade(password === null ? null : { name: member.name, password }),
              })
            }
          />
        ))}
      </ul>
      {give.error && <ProblemNote error={give.error} />}
      <form
        className="mt-6 flex max-w-3xl items-start gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate(name, {
            onSuccess: ({ password }) => {
              setMade(password === null ? null : { name: name.trim(), password });
              if (password === null) toast(teamPageTexts.accountHereCanOpen(name.trim()));
              setName('');
            },
          });
        }}
      >
        <Field
          label={teamPageTexts.inviteSomebody}
          hint={teamPageTexts.nameSignWhoeverNo}
          className="w-[28rem]"
          maxLength={120}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" look="main" className="mt-[25px]" disabled={name.trim() === ''}>
          {teamPageTexts.invite}
        </Button>
      </form>
      {add.error && <ProblemNote error={add.error} />}
      {made && <OneTimePassword made={made} />}
    </main>
  );
}

function MemberRow({
  study,
  member,
  isMe,
  isAlone,
  onPassword,
}: {
  study: number;
  member: Member;
  isMe: boolean;
  isAlone: boolean;
  onPassword: () => void;
}) {
  const remove = useRemoveMember(study);
  const [asks, setAsks] = useState(false);
  return (
    <li className="flex min-h-12 flex-wrap items-center gap-x-4 border-b border-rule py-1">
      <span className="font-medium">{member.name}</span>
      <span className="text-soft">
        {isMe ? teamPageTexts.you : member.hasEntered ? '' : teamPageTexts.chosenPasswordYet}
      </span>
      <span className="ml-auto flex items-center gap-2">
        {asks ? (
          <>
            <span>{teamPageTexts.whatCodedStays(isMe, member.name)}</span>
            <Button look="grave" onClick={() => remove.mutate(member.id)}>
              {isMe ? teamPageTexts.leave : teamPageTexts.remove}
            </Button>
            <Button onClick={() => setAsks(false)}>{teamPageTexts.cancel}</Button>
          </>
        ) : (
          <>
            {member.mayBeGivenPassword && (
              <Button look="bare" onClick={onPassword}>
                {teamPageTexts.newOneTimePassword}
              </Button>
            )}
            {!isAlone && (
              <Button look="bare" onClick={() => setAsks(true)}>
                {isMe ? teamPageTexts.leave2 : teamPageTexts.remove2}
              </Button>
            )}
          </>
        )}
      </span>
      {remove.error && <ProblemNote error={remove.error} />}
    </li>
  );
}

/** Told once: it is kept nowhere in words. */
function OneTimePassword({ made: { name, password } }: { made: Made }) {
  return (
    <div role="status" className="mt-2 max-w-3xl border-l-[3px] border-thread bg-card px-4 py-3">
      <p>{teamPageTexts.tellOneTimePassword(name)}</p>
      <p className="mt-2 flex items-center gap-3">
        <code className="text-[18px] font-semibold tracking-wide">{password}</code>
        <Button
          onClick={() =>
            void navigator.clipboard.writeText(password).then(
              () => toast('Copied.'),
              () => toast(teamPageTexts.couldCopiedMarkCopy),
            )
          }
        >
          <Copy size={14} aria-hidden /> {teamPageTexts.copy}
        </Button>
      </p>
    </div>
  );
}
