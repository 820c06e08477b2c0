import { useState } from 'react';
import { Link } from 'react-router';
import { useChoosePassword } from '../data/people.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { Door } from './door.js';

const SHORTEST = 10;

/** In place of the one-time password. */
export function ChoosePassword() {
  return (
    <Door title="Choose your password">
      <PasswordForm hint={`It replaces the one-time password; at least ${SHORTEST} characters.`} />
    </Door>
  );
}

/** In place of one of the person's own. */
export function ChangePassword() {
  const [isKept, setKept] = useState(false);
  return (
    <Door title="Change your password">
      <title>Password – Yellow Thread</title>
      {isKept ? (
        <p role="status">
          The new password holds from now on. Wherever else you were signed in you no longer are.
        </p>
      ) : (
        <PasswordForm
          asksOld
          hint={`At least ${SHORTEST} characters: several words that do not belong together are best.`}
          onKept={() => setKept(true)}
        />
      )}
      <Link to="/studies" className="self-start underline">
        Back to the studies
      </Link>
    </Door>
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
          label="Present password"
          type="password"
          autoComplete="current-password"
          required
          value={old}
          onChange={(event) => setOld(event.target.value)}
        />
      )}
      <Field
        label="New password"
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
        Keep this password
      </Button>
    </form>
  );
}
