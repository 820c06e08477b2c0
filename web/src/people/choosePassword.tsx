import { useState } from 'react';
import { useChoosePassword } from '../data/people.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { Door } from './door.js';

const SHORTEST = 10;

export function ChoosePassword() {
  const choose = useChoosePassword();
  const [password, setPassword] = useState('');
  return (
    <Door title="Choose your password">
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          choose.mutate(password);
        }}
      >
        <Field
          label="New password"
          type="password"
          autoComplete="new-password"
          required
          minLength={SHORTEST}
          value={password}
          onChange={(event) => setPassword(event.target.value)}
          hint={`It replaces the one-time password; at least ${SHORTEST} characters.`}
        />
        {choose.error && <ProblemNote error={choose.error} />}
        <Button type="submit" look="main" className="self-start" disabled={choose.isPending}>
          Keep this password
        </Button>
      </form>
    </Door>
  );
}
