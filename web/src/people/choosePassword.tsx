import { useState } from 'react';
import { Link } from 'react-router';
import { useChoosePassword } from '../data/people.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { OpenSessions } from './openSessions.js';
import { SignInLayout } from './signInLayout.js';
import { choosePasswordTexts } from './texts.js';

const SHORTEST = 10;

/** In place of the one-time password. */
export function ChoosePassword() {
  return (
    <SignInLayout title={choosePasswordTexts.chooseYourPassword}>
      <PasswordForm hint={choosePasswordTexts.replacesOneTimePassword(SHORTEST)} />
    </SignInLayout>
  );
}

/** In place of one of the person's own. */
export function ChangePassword() {
  const [isKept, setKept] = useState(false);
  return (
    <SignInLayout title={choosePasswordTexts.changeYourPassword}>
      <title>{choosePasswordTexts.passwordYellowThread}</title>
      {isKept ? (
        <p role="status">{choosePasswordTexts.newPasswordHoldsNow}</p>
      ) : (
        <PasswordForm
          asksOld
          hint={choosePasswordTexts.leastCharactersSeveralWords(SHORTEST)}
          onKept={() => setKept(true)}
        />
      )}
      <OpenSessions />
      <Link to="/studies" className="self-start underline">
        {choosePasswordTexts.backStudies}
      </Link>
    </SignInLayout>
  );
}

function PasswordForm({
  asksOld = false,
  hint,
  onKept,
}: {
  asksOld?: boolean;
  hint: string;
  onKept?: () => void;
}) {
  const choose = useChoosePassword();
  const [old, setOld] = useState('');
  const [password, setPassword] = useState('');
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        choose.mutate({ password, ...(asksOld && { old }) }, { onSuccess: () => onKept?.() });
      }}
    >
      {asksOld && (
        <Field
          label={choosePasswordTexts.presentPassword}
          type="password"
          autoComplete="current-password"
          required
          value={old}
          onChange={(event) => setOld(event.target.value)}
        />
      )}
      <Field
        label={choosePasswordTexts.newPassword}
        type="password"
        autoComplete="new-password"
        required
        minLength={SHORTEST}
        value={password}
        onChange={(event) => setPassword(event.target.value)}
        hint={hint}
      />
      {choose.error && <ProblemNote error={choose.error} />}
      <Button type="submit" look="main" className="self-start" disabled={choose.isPending}>
        {choosePasswordTexts.keepPassword}
      </Button>
    </form>
  );
}
