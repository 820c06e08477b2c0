import { type OpenedInvitation } from '@yellow-thread/contract';
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
    <SignInLayout title={data?.role ? texts.join(data.study) : texts.welcome}>
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
  const accept = useAcceptInvitation();
  const signOut = useSignOut();
  const navigate = useNavigate();
  return (
    <>
      <p>
        {texts.invited(madeBy, roleTexts[role!].name)} {roleTexts[role!].may}
      </p>
      {accept.error && <ProblemNote error={accept.error} />}
      <div className="flex flex-wrap gap-3">
        <Button
          look="main"
          disabled={accept.isPending}
          onClick={() => accept.mutate({ token }, { onSuccess: () => void navigate('/studies') })}
        >
          {texts.joinAs(name)}
        </Button>
        <Button disabled={signOut.isPending} onClick={() => signOut.mutate(undefined)}>
          {texts.notMe(name)}
        </Button>
      </div>
    </>
  );
}

/** For a new person, and for whoever forgot their password. */
function JoinAnew({ token, invitation }: { token: string; invitation: OpenedInvitation }) {
  const accept = useAcceptInvitation();
  const navigate = useNavigate();
  const { madeBy, role } = invitation;
  const [name, setName] = useState(invitation.name);
  const [password, setPassword] = useState('');
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        accept.mutate(
          { token, password, ...(role && { name }) },
          { onSuccess: () => void navigate('/studies') },
        );
      }}
    >
      <p>
        {role
          ? `${texts.invited(madeBy, roleTexts[role].name)} ${roleTexts[role].may}`
          : texts.chooseNew(invitation.name)}
      </p>
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
