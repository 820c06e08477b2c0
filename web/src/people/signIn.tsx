import { useState } from 'react';
import { useEnterDemo, useSignIn } from '../data/people.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { SignInLayout } from './signInLayout.js';
import { signInTexts } from './texts.js';

export function SignIn({ demoOffered }: { demoOffered: boolean }) {
  const signIn = useSignIn();
  const enterDemo = useEnterDemo();
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const problem = signIn.error ?? enterDemo.error;
  return (
    <SignInLayout title={signInTexts.sign}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          signIn.mutate({ name, password });
        }}
      >
        <Field
          label={signInTexts.name}
          autoComplete="username"
          required
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <Field
          label={signInTexts.password}
          type="password"
          autoComplete="current-password"
          required
          value={password}
          onChange={(event) => setPassword(event.target.value)}
          hint={signInTexts.oneTimePasswordComes}
        />
        {problem && <ProblemNote error={problem} />}
        <div className="flex flex-wrap gap-3">
          <Button type="submit" look="main" disabled={signIn.isPending}>
            {signInTexts.sign}
          </Button>
          {demoOffered && (
            <Button onClick={() => enterDemo.mutate(undefined)} disabled={enterDemo.isPending}>
              {signInTexts.enterDemoResearcher}
            </Button>
          )}
        </div>
      </form>
    </SignInLayout>
  );
}
