import { useState } from 'react';
import { useEnterDemo, useSignIn } from '../data/people.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { Door } from './door.js';

export function SignIn({ demoOffered }: { demoOffered: boolean }) {
  const signIn = useSignIn();
  const enterDemo = useEnterDemo();
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const problem = signIn.error ?? enterDemo.error;
  return (
    <Door title="Sign in">
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          signIn.mutate({ name, password });
        }}
      >
        <Field
          label="Name"
          autoComplete="username"
          required
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <Field
          label="Password"
          type="password"
          autoComplete="current-password"
          required
          value={password}
          onChange={(event) => setPassword(event.target.value)}
          hint="A one-time password comes from whoever invited you; the owner’s was printed in the terminal at the first start."
        />
        {problem && <ProblemNote error={problem} />}
        <div className="flex flex-wrap gap-3">
          <Button type="submit" look="main" disabled={signIn.isPending}>
            Sign in
          </Button>
          {demoOffered && (
            <Button onClick={() => enterDemo.mutate(undefined)} disabled={enterDemo.isPending}>
              Enter as the demo researcher
            </Button>
          )}
        </div>
      </form>
    </Door>
  );
}
