import { ROLES, type Invitation, type InvitationLink, type Role } from '@yellow-thread/contract';
import { Copy } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { useInvite, useWithdrawInvitation } from '../data/people.js';
import { asDate } from '../lib/numbers.js';
import { Button } from '../parts/button.js';
import { Choice, Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { invitationTexts as texts, roleTexts } from './texts.js';

/** A link that was just made, and for whom. */
export interface MadeLink extends InvitationLink {
  name: string;
  /** Null where it resets a password. */
  role: Role | null;
}

export function InviteForm({ study, onLink }: { study: number; onLink: (made: MadeLink) => void }) {
  const invite = useInvite(study);
  const [name, setName] = useState('');
  const [role, setRole] = useState<Role>('researcher');
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        invite.mutate(
          { name, role },
          {
            onSuccess: (link) => {
              onLink({ ...link, name: name.trim(), role });
              setName('');
            },
          },
        );
      }}
    >
      <Field
        label={texts.name}
        className="w-64"
        maxLength={120}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <Choice
        label={texts.role}
        value={role}
        onChange={(event) => setRole(event.target.value as Role)}
      >
        {ROLES.map((one) => (
          <option key={one} value={one}>
            {roleTexts[one].name}
          </option>
        ))}
      </Choice>
      <Button type="submit" look="main" disabled={name.trim() === '' || invite.isPending}>
        {texts.makeLink}
      </Button>
      {invite.error && <ProblemNote error={invite.error} />}
    </form>
  );
}

/** Shown once: the secret in it is kept nowhere. */
export function LinkToPassOn({ made: { name, role, token, expiresAt } }: { made: MadeLink }) {
  // behind the hash it reaches no server and no log
  const link = `${location.origin}/join#${token}`;
  return (
    <div role="status" className="mt-4 border-l-[3px] border-thread bg-card px-4 py-3">
      <p>{role ? texts.passOn(name) : texts.passOnReset(name)}</p>
      <p className="mt-2 flex flex-wrap items-center gap-3">
        <code className="break-all">{link}</code>
        <Button
          onClick={() =>
            void navigator.clipboard.writeText(link).then(
              () => toast(texts.copied),
              () => toast(texts.notCopied),
            )
          }
        >
          <Copy size={14} aria-hidden /> {texts.copy}
        </Button>
      </p>
      <p className="mt-2 text-soft">{texts.validUntil(asDate(expiresAt))}</p>
    </div>
  );
}

/** Links that were given out and not used yet. */
export function PendingInvitations({
  study,
  invitations,
}: {
  study: number;
  invitations: readonly Invitation[];
}) {
  const withdraw = useWithdrawInvitation(study);
  if (invitations.length === 0) return null;
  return (
    <>
      <h3 className="mt-5 font-medium">{texts.notUsedYet}</h3>
      <ul className="mt-1 border-t border-rule">
        {invitations.map(({ id, name, role, madeBy, expiresAt }) => (
          <li
            key={id}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1.5"
          >
            <span className="font-medium">{name}</span>
            <span>{role ? roleTexts[role].name : texts.newPassword}</span>
            <span className="text-soft">{texts.madeBy(madeBy, asDate(expiresAt))}</span>
            <Button
              look="bare"
              className="ml-auto"
              disabled={withdraw.isPending}
              onClick={() => withdraw.mutate(id)}
            >
              {texts.withdraw}
            </Button>
          </li>
        ))}
      </ul>
      {withdraw.error && <ProblemNote error={withdraw.error} />}
    </>
  );
}
