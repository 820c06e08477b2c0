import { Outlet } from 'react-router';
import { useSession } from '../data/people.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { ChoosePassword } from './choosePassword.js';
import { SignIn } from './signIn.js';
import { signedInTexts } from './texts.js';

/** Shows the app to who is signed in, and the door to everybody else. */
export function SignedIn() {
  const session = useSession();
  if (session.isError) return <PageProblem error={session.error} />;
  if (!session.data) return <Waiting what={signedInTexts.yourSession} />;
  const { account, demoOffered } = session.data;
  if (!account) return <SignIn demoOffered={demoOffered} />;
  if (account.choosesPassword) return <ChoosePassword />;
  return <Outlet />;
}
