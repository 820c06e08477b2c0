/** people/signInLayout.tsx */
export const signInLayoutTexts = {
  yellowThread: 'Yellow Thread',
  whatPeopleWroteWhat:
    'What people wrote, what it comes to, and one line of judgement through all of it.',
};

/** people/choosePassword.tsx */
export const choosePasswordTexts = {
  chooseYourPassword: 'Choose your password',
  replacesOneTimePassword: (shortest: number) =>
    `It replaces the one-time password; at least ${shortest} characters.`,
  changeYourPassword: 'Change your password',
  passwordYellowThread: 'Password – Yellow Thread',
  newPasswordHoldsNow:
    'The new password is valid from now on. You were signed out everywhere else.',
  leastCharactersSeveralWords: (shortest: number) =>
    `At least ${shortest} characters: several unrelated words are best.`,
  backStudies: 'Back to the studies',
  presentPassword: 'Current password',
  newPassword: 'New password',
  keepPassword: 'Keep this password',
};

/** people/signIn.tsx */
export const signInTexts = {
  sign: 'Sign in',
  name: 'Name',
  password: 'Password',
  oneTimePasswordComes:
    'A one-time password comes from whoever invited you; the owner’s was printed in the terminal at the first start.',
  enterDemoResearcher: 'Enter as the demo researcher',
};

/** people/signedIn.tsx */
export const signedInTexts = {
  yourSession: 'your session',
};

/** people/teamPage.tsx */
export const teamPageTexts = {
  team: 'the team',
  team2: 'Team',
  everybodyTeamSeesAll:
    'Everybody in the team sees all of this study, codes in it and undoes their own changes. What somebody coded stays when they are removed.',
  accountHereCanOpen: (name: string) => `${name} has an account here and can open the study now.`,
  inviteSomebody: 'Invite somebody',
  nameSignWhoeverNo: 'The name they sign in with; whoever has no account here gets one.',
  invite: 'Invite',
  you: 'you',
  chosenPasswordYet: 'has not chosen a password yet',
  whatCodedStays: (isMe: boolean, member: string) =>
    `${isMe ? 'Leave this study?' : `Remove ${member} from the team?`} What ${isMe ? 'you' : 'they'} coded stays.`,
  leave: 'Leave',
  remove: 'Remove',
  cancel: 'Cancel',
  newOneTimePassword: 'New one-time password',
  leave2: 'Leave …',
  remove2: 'Remove …',
  tellOneTimePassword: (name: string) =>
    `Tell ${name} this one-time password. It is shown only now; on signing in with it they choose a password of their own.`,
  couldCopiedMarkCopy: 'It could not be copied: select it and copy it by hand.',
  copy: 'Copy',
};
