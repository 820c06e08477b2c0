import type { OpenedInvitation, Role } from '@yellow-thread/contract';
import { useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { useAcceptInvitation, useInvitation, useSession, useSignOut } from '../data/people.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { SignInLayout } from './signInLayout.js';
import { joinTexts as texts, roleTexts } from './texts.js';

const SHORTEST = 10;

/** Where a link leads: into a study, or to a new password. */
export function JoinPage() {
  const token = useLocation().hash.slice(1);
  const session = useSession();
  const invitation = useInvitation(token);
  const account = session.data?.account ?? null;
  const { data } = invitation;
  return (
    <SignInLayout title={titleOf(data)}>
      <title>{texts.pageTitle}</title>
      {invitation.error && (
        <>
          <ProblemNote error={invitation.error} />
          <Link to="/studies" className="self-start underline">
            {texts.toStudies}
          </Link>
        </>
      )}
      {!invitation.error && !data && <Waiting what={texts.link} />}
      {data && data.role && account && (
        <JoinAsMe token={token} invitation={data} name={account.name} />
      )}
      {data && !(data.role && account) && <JoinAnew token={token} invitation={data} />}
    </SignInLayout>
  );
}

const titleOf = (invitation: OpenedInvitation | undefined): string => {
  if (!invitation) return texts.invitation;
  return invitation.role ? texts.join(invitation.study) : texts.newPassword;
};

/** For whoever is signed in. */
function JoinAsMe({
  token,
  invitation: { madeBy, role },
  name,
}: {
  token: string;
  invitation: OpenedInvitation;
  name: string;
}) {
  const navigate = useNavigate();
  const accept = useAcceptInvitation(() => void navigate('/studies'));
  const signOut = useSignOut();
  return (
    <>
      <YourRole by={madeBy} role={role!} />
      {accept.error && <ProblemNote error={accept.error} />}
      <div className="flex flex-wrap gap-3">
        <Button look="main" disabled={accept.isPending} onClick={() => accept.mutate({ token })}>
          {texts.joinAs(name)}
        </Button>
        <Button disabled={signOut.isPending} onClick={() => signOut.mutate(undefined)}>
          {texts.notMe(name)}
        </Button>
      </div>
    </>
  );
}

function YourRole({ by, role }: { by: string; role: Role }) {
  return (
    <div className="flex flex-col gap-1">
      <p>{texts.invited(by)}</p>
      <p>
        {texts.yourRole} <span className="font-semibold">{roleTexts[role].name}</span>
      </p>
      <p className="text-soft">{roleTexts[role].may}</p>
    </div>
  );
}

/** For a new person, and for whoever forgot their password. */
function JoinAnew({ token, invitation }: { token: string; invitation: OpenedInvitation }) {
  const navigate = useNavigate();
  const accept = useAcceptInvitation(() => void navigate('/studies'));
  const { madeBy, role } = invitation;
  const [name, setName] = useState(invitation.name);
  const [password, setPassword] = useState('');
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        accept.mutate({ token, password, ...(role && { name }) });
      }}
    >
      {role ? <YourRole by={madeBy} role={role} /> : <p>{texts.chooseNew(invitation.name)}</p>}
      {role && (
        <Field
          label={texts.yourName}
          hint={texts.signInWithIt}
          autoComplete="username"
          required
          maxLength={120}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      )}
      <Field
        label={texts.password}
        hint={texts.atLeast(SHORTEST)}
        type="password"
        autoComplete="new-password"
        required
        minLength={SHORTEST}
        value={password}
        onChange={(event) => setPassword(event.target.value)}
      />
      {accept.error && <ProblemNote error={accept.error} />}
      <Button type="submit" look="main" className="self-start" disabled={accept.isPending}>
        {role ? texts.makeAccount : texts.keepPassword}
      </Button>
      {role && (
        <p className="text-soft">
          {texts.haveAccount}{' '}
          <Link to="/studies" className="underline">
            {texts.signInFirst}
          </Link>
        </p>
      )}
    </form>
  );
}
