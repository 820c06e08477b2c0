import type { Role } from '@yellow-thread/contract';

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

/** What each role is called, and may do. */
export const roleTexts: Record<Role, { name: string; may: string }> = {
  owner: {
    name: 'Owner',
    may: 'Does everything, and alone invites people, changes roles, removes respondents and deletes the study.',
  },
  researcher: {
    name: 'Researcher',
    may: 'Does all the work: imports, codes, trains, reviews, reports, and assigns answers to coders.',
  },
  coder: {
    name: 'Coder',
    may: 'Codes the answers that are assigned to them, and codes answers a second time. Sees no other answers.',
  },
  reader: {
    name: 'Reader',
    may: 'Reads the report and the write-ups. Changes nothing.',
  },
};

/** people/teamPage.tsx */
export const teamPageTexts = {
  team: 'the team',
  heading: 'Team',
  members: 'Members',
  whatOwnersDo:
    'Whoever is here can open the study, and does in it what their role allows. What somebody coded stays when they are removed.',
  yourRole: (role: Role) =>
    `You are a ${role} in this study. Owners invite people and change roles.`,
  you: 'you',
  roleOf: (name: string) => `Role of ${name}`,
  whatCodedStays: (isMe: boolean, member: string) =>
    `${isMe ? 'Leave this study?' : `Remove ${member} from the team?`} What ${isMe ? 'you' : 'they'} coded stays.`,
  leave: 'Leave',
  remove: 'Remove',
  cancel: 'Cancel',
  resetPassword: 'Reset password',
  leaveAsk: 'Leave …',
  removeAsk: 'Remove …',
  inviteSomebody: 'Invite somebody',
  whatReadersSee: 'What readers see',
  maskNames: 'Mask names and contact details for readers',
  maskNamesHow:
    'Readers then see no id of a respondent; in answers and write-ups, e-mail addresses, numbers, names after a form of address, and the names that write-ups list are masked.',
  roles: 'What each role may do',
};

/** people/invitations.tsx */
export const invitationTexts = {
  name: 'Name',
  role: 'Role',
  makeLink: 'Make a link',
  passOn: (name: string) =>
    `Send this link to ${name}. Whoever opens it first joins the study; it is shown only now.`,
  passOnReset: (name: string) =>
    `Send this link to ${name}. Whoever opens it first chooses the password of that account, and is signed out everywhere else; it is shown only now.`,
  validUntil: (moment: string) => `It can be used once, until ${moment}.`,
  copy: 'Copy the link',
  copied: 'Copied.',
  notCopied: 'It could not be copied: select it and copy it by hand.',
  notUsedYet: 'Links that were not used yet',
  newPassword: 'new password',
  madeBy: (name: string, moment: string) => `made by ${name}, valid until ${moment}`,
  withdraw: 'Withdraw',
};

/** people/joinPage.tsx */
export const joinTexts = {
  pageTitle: 'Invitation – Yellow Thread',
  invitation: 'Invitation',
  newPassword: 'Choose a new password',
  join: (study: string) => `Join “${study}”`,
  link: 'the link',
  toStudies: 'Go to your studies',
  invited: (by: string) => `${by} invites you to work on this study.`,
  yourRole: 'Your role:',
  chooseNew: (name: string) =>
    `This is the new password of ${name}. You are then signed out everywhere else.`,
  joinAs: (name: string) => `Join as ${name}`,
  notMe: (name: string) => `I am not ${name}: sign out`,
  yourName: 'Your name',
  signInWithIt: 'You sign in with it, and others see it beside what you coded.',
  password: 'Password',
  atLeast: (shortest: number) =>
    `At least ${shortest} characters: several unrelated words are best.`,
  makeAccount: 'Make an account and join',
  keepPassword: 'Keep this password',
  haveAccount: 'You have an account here?',
  signInFirst: 'Sign in, then open the link again.',
};

/** people/openSessions.tsx */
export const openSessionsTexts = {
  whereSignedIn: 'Where you are signed in',
  thisOne: 'This browser,',
  used: (moment: string) => `last used ${moment},`,
  since: (moment: string) => `since ${moment}`,
  end: 'Sign out there',
  unknownBrowser: 'A browser',
  browserOn: (browser: string, system: string) => `${browser} on ${system}`,
};
