import type { ProblemCode, Role } from '@yellow-thread/contract';
import { plural } from '@yellow-thread/core/text';

/** An error that people see: a code, a sentence, and its HTTP status. */
export class Problem extends Error {
  override name = 'Problem';
  readonly status: number;
  readonly code: ProblemCode;
  readonly details: Record<string, unknown> | undefined;
  constructor(
    status: number,
    code: ProblemCode,
    sentence: string,
    details?: Record<string, unknown>,
  ) {
    super(sentence);
    this.status = status;
    this.code = code;
    this.details = details;
  }
}

/** Every problem that the server can report, in one place. */
export const problems = {
  notSignedIn: () => new Problem(401, 'not_signed_in', 'You are not signed in: sign in again.'),
  wrongSignIn: () => new Problem(401, 'wrong_sign_in', 'Wrong name or password: try again.'),
  wrongOldPassword: () =>
    new Problem(
      403,
      'wrong_old_password',
      'This is not the password that you have now: it was not changed.',
    ),
  weakPassword: (why: string) =>
    new Problem(
      422,
      'weak_password',
      `This password is easy to guess. ${why && `${why} `}Use several unrelated words.`,
    ),
  waitToTry: (seconds: number) =>
    new Problem(
      429,
      'too_many_tries',
      `Too many wrong attempts: wait ${seconds < 60 ? `${seconds} s` : `${Math.ceil(seconds / 60)} min`}, then try again.`,
      { seconds },
    ),
  unknownHost: (name: string) =>
    new Problem(
      421,
      'unknown_host',
      `This server does not answer as “${name.slice(0, 100)}”: whoever runs it must list its addresses in PUBLIC_URL.`,
    ),
  foreignOrigin: () =>
    new Problem(
      403,
      'foreign_origin',
      'This came from a page of another address, so nothing was changed. Whoever runs this server must list its addresses in PUBLIC_URL.',
    ),
  otherStudyName: (name: string) =>
    new Problem(
      409,
      'other_study_name',
      `This is not the name of the study, so it was not deleted: type “${name}”.`,
    ),
  notEncrypted: () =>
    new Problem(
      403,
      'not_encrypted',
      'Sign in by the address with https. Behind a proxy, whoever runs this server names it in TRUST_PROXY, and it says X-Forwarded-Proto.',
    ),
  diskFull: () =>
    new Problem(
      507,
      'disk_full',
      'The disk of the server is full, so nothing was changed: what you typed is kept and sent when there is room again.',
    ),
  tooManyStreams: () =>
    new Problem(429, 'too_many_streams', 'You have too many pages open: close some of them.'),
  passwordToChoose: () =>
    new Problem(403, 'password_to_choose', 'Choose a password of your own first.'),
  demoNotOffered: () =>
    new Problem(
      403,
      'demo_not_offered',
      'The demo can be entered without a password only on the machine that it runs on.',
    ),
  alreadyMember: (name: string) =>
    new Problem(409, 'already_member', `${name} works in this study already.`),
  notTheOwner: () =>
    new Problem(
      403,
      'not_the_owner',
      'The owner of this installation can be removed by nobody else: nothing was changed.',
    ),
  lastOwner: () =>
    new Problem(
      409,
      'last_owner',
      'A study has at least one owner, so nothing was changed: make somebody else an owner first.',
    ),
  notYourRole: (role: Role) =>
    new Problem(
      403,
      'not_your_role',
      `You are a ${role} in this study, and this is for others: nothing was changed. Ask one of its owners.`,
    ),
  nothingToMerge: (name: string) =>
    new Problem(
      409,
      'nothing_to_merge',
      `The copy of “${name}” brings nothing that is not here already: nothing was changed.`,
    ),
  nothingToAssign: (name: string) =>
    new Problem(
      409,
      'nothing_to_assign',
      `None of these answers can be assigned to ${name}: they were assigned to them before, or are no longer here.`,
    ),
  linkNotValid: () =>
    new Problem(
      410,
      'link_not_valid',
      'This link is not valid: it was used, withdrawn or is older than three days. Ask for another one.',
    ),
  accountNameTaken: (name: string) =>
    new Problem(
      409,
      'account_name_taken',
      `There is an account called ${name} here: sign in to it and open the link again, or choose another name.`,
    ),
  passwordOfTheirOwn: (name: string) =>
    new Problem(
      403,
      'password_of_their_own',
      `${name} works in studies that you do not own, too: only the owner of this installation can reset their password.`,
    ),
  notFound: (what: string) =>
    new Problem(404, 'not_found', `There is no such ${what} here, or you have no access to it.`),
  invalidRequest: (details: Record<string, unknown>) =>
    new Problem(
      400,
      'invalid_request',
      'The request does not have the expected form: nothing was changed.',
      details,
    ),
  tooLarge: (limit: string) =>
    new Problem(413, 'too_large', `The file is larger than ${limit}: split it, or save it as CSV.`),
  unreadableSheet: (why: string) => new Problem(422, 'unreadable_sheet', why),
  damagedSheet: (fileName: string) =>
    new Problem(
      422,
      'unreadable_sheet',
      `“${fileName}” could not be read: it may be damaged. Open it in the program that it comes from, and save it again.`,
    ),
  sheetLocked: (fileName: string) =>
    new Problem(
      422,
      'sheet_locked',
      `“${fileName}” is protected by a password: save it without one, then import it again.`,
    ),
  sheetNotReady: () =>
    new Problem(409, 'sheet_not_ready', 'This sheet is still being read: wait for that to end.'),
  badStudyFile: (why: string) =>
    new Problem(
      422,
      'bad_study_file',
      `This copy of a study cannot be opened: ${why} Nothing was opened.`,
    ),
  newerStudyFile: (version: number) =>
    new Problem(
      422,
      'newer_study_file',
      `This copy was saved by a newer program (form ${version}): open it there, or bring this program up to date. Nothing was opened.`,
    ),
  uploadCutOff: () =>
    new Problem(400, 'upload_cut_off', 'The upload was cut off: nothing was kept. Send it again.'),
  tooMuchMemory: () =>
    new Problem(
      422,
      'too_much_memory',
      'This takes more memory than there is: nothing was changed. Save a workbook as CSV, or split it.',
    ),
  tooMuchTime: (minutes: number) =>
    new Problem(
      422,
      'too_much_time',
      `This was not done within ${minutes} minutes, so it was ended: nothing was changed. Split the sheet, or save it as CSV.`,
    ),
  sheetStops: (sentences: string[]) =>
    new Problem(422, 'sheet_stops', sentences.join(' '), { findings: sentences }),
  notInBin: (fileName: string) =>
    new Problem(
      409,
      'not_in_bin',
      `“${fileName}” is not in the bin: its import was not undone, or too long ago.`,
    ),
  placeTaken: (fileName: string) =>
    new Problem(
      409,
      'place_taken',
      `“${fileName}” cannot be restored: respondents, questions or codes that were imported later have the same ids or names. Undo those imports first.`,
    ),
  columnWorkedOut: (name: string) =>
    new Problem(
      409,
      'column_worked_out',
      `“${name}” is worked out in this study, so it cannot be imported: give the column another name, or exclude it.`,
    ),
  columnTaken: (kind: string, name: string) =>
    new Problem(
      409,
      'column_taken',
      `The study already has the ${kind} “${name}” under another import: exclude the column, or rename it in the sheet.`,
    ),
  matchedTwice: (id: string) =>
    new Problem(
      409,
      'matched_twice',
      `Two rows of the sheet stand for the respondent “${id}”: undo one of the matches, or choose what to do with repeated ids.`,
    ),
  importUndone: (fileName: string) =>
    new Problem(409, 'import_undone', `“${fileName}” has been undone already.`),
  laterImport: (fileName: string, later: string) =>
    new Problem(
      409,
      'later_import',
      `“${later}” was imported after “${fileName}” and changed the same study: undo that import first.`,
    ),
  nameTaken: (what: string, name: string) =>
    new Problem(
      409,
      'name_taken',
      `There is a ${what} “${name}” already: use that one, or another name.`,
    ),
  groupCircle: (way: readonly string[]) =>
    new Problem(
      409,
      'group_circle',
      `This group would contain itself: ${way.map((name) => `“${name}”`).join(' → ')}. Remove one of these steps.`,
      { way },
    ),
  groupNeeded: (name: string, by: readonly string[]) =>
    new Problem(
      409,
      'group_needed',
      `“${name}” is part of ${by.map((one) => `“${one}”`).join(', ')}: change that first.`,
    ),
  ruleTooDeep: (deepest: number) =>
    new Problem(
      422,
      'rule_too_deep',
      `The conditions are joined more than ${deepest} levels deep: save a part of them as a group of its own and use that.`,
    ),
  writeUpFrozen: (name: string) =>
    new Problem(
      409,
      'write_up_frozen',
      `“${name}” is a frozen copy and cannot be changed: edit the write-up that it was copied from.`,
    ),
  tableLost: (why: string) =>
    new Problem(
      409,
      'table_lost',
      `A table of this write-up can no longer be counted: ${why} Remove it first.`,
    ),
  wrongTable: () =>
    new Problem(
      400,
      'wrong_table',
      'A table of this write-up has choices that no report has: choose it again in the report.',
    ),
  notAPicture: () =>
    new Problem(400, 'not_a_picture', 'The chart did not arrive as a PNG picture: add it again.'),
  tooManyColumns: (count: number, most: number) =>
    new Problem(
      422,
      'too_many_columns',
      `That would be ${count} columns, and ${most} is the most that can be read: join categories, or make groups.`,
    ),
  noSuchDifference: () =>
    new Problem(
      422,
      'no_such_difference',
      'These two columns have respondents in common, or are not both there: choose two groups with nobody in common, or compare each group with everyone else.',
    ),
  emptyCodebook: () =>
    new Problem(
      409,
      'empty_codebook',
      'There is no code yet, and a REFI-QDA codebook holds at least one: make a code first.',
    ),
  nothingToDraw: () =>
    new Problem(409, 'nothing_to_draw', 'Every answer is in a sample already: nothing was drawn.'),
  nothingTelling: () =>
    new Problem(
      409,
      'nothing_telling',
      'No model says yet which answers would teach it most: train once, then draw these.',
    ),
  nothingNear: () =>
    new Problem(
      409,
      'nothing_near',
      'No open answer is near in meaning to a code that has too few examples. Read the answers for meaning on the Import page, and give such codes a definition.',
    ),
  mergesWithItself: () =>
    new Problem(
      422,
      'merges_with_itself',
      'A code cannot be merged into itself: choose another one.',
    ),
  changedMeanwhile: () =>
    new Problem(
      409,
      'changed_meanwhile',
      'Somebody changed this in the meantime: check it, then try again.',
    ),
  passageOutside: () =>
    new Problem(
      422,
      'passage_outside',
      'The passage lies outside the answer’s text: reload, then select it again.',
    ),
  noAnswerToCode: () =>
    new Problem(422, 'no_answer_to_code', 'This response says nothing: there is nothing to code.'),
  asideNotCoded: () =>
    new Problem(
      422,
      'aside_not_coded',
      'These are the interviewer’s words, which are not coded: select some of the answer itself.',
    ),
  valueWorkedOut: (name: string) =>
    new Problem(
      422,
      'value_worked_out',
      `“${name}” is worked out from another variable: change the value there.`,
    ),
  valueDoesNotFit: (name: string, kind: string) =>
    new Problem(
      422,
      'value_does_not_fit',
      `This is no ${kind === 'yes_no' ? 'yes or no' : kind}, as “${name}” needs: nothing was changed.`,
    ),
  noBandsOf: (name: string) =>
    new Problem(
      422,
      'no_bands',
      `“${name}” cannot be banded like this: bands are made of a number or a date, with limits of the same kind.`,
    ),
  variableFromSheet: (name: string) =>
    new Problem(
      409,
      'variable_from_sheet',
      `“${name}” was imported with a sheet: undo that import to remove it.`,
    ),
  nothingToUndo: () => new Problem(409, 'nothing_to_undo', 'There is nothing of yours to undo.'),
  nothingToRedo: () => new Problem(409, 'nothing_to_redo', 'There is nothing to redo.'),
  undoCrosses: (summary: string) =>
    new Problem(
      409,
      'undo_crosses',
      `“${summary}” cannot be undone: something that it changed has been changed or used since.`,
    ),
  nothingSettled: () =>
    new Problem(
      422,
      'nothing_settled',
      'No answer to this question is settled yet: code some by hand first.',
    ),
  wrongScope: () =>
    new Problem(
      422,
      'wrong_scope',
      'The choice of answers that may get suggestions cannot be read: choose it again.',
    ),
  sampleIsBlind: () =>
    new Problem(
      409,
      'sample_is_blind',
      'This answer is drawn for coding by hand: it is settled without suggestions in view.',
    ),
  sampleAfterSuggestions: (answers: number) =>
    new Problem(
      409,
      'sample_after_suggestions',
      `${plural(answers, 'One answer was', `${answers} answers were`)} settled with suggestions in view, and cannot be in a random sample. Finish the question instead, or open these answers again before you draw.`,
    ),
  suggestionsOpen: (name: string, open: number) =>
    new Problem(
      409,
      'suggestions_open',
      `${plural(open, 'A suggestion', `${open} suggestions`)} of “${name}” ${plural(open, 'is', 'are')} still open: decide ${plural(open, 'it', 'them')} before you close the code.`,
    ),
  modelsUnreliable: (names: readonly string[], codeIds: readonly string[]) =>
    new Problem(
      409,
      'models_unreliable',
      `The models of ${names.join(', ')} cannot be relied on, or there are none: close these codes, code more examples, or say that the check alone is to correct them.`,
      { codeIds },
    ),
  nothingInBulk: () =>
    new Problem(
      422,
      'nothing_in_bulk',
      'Nothing of this code was decided in bulk, so there is nothing to check: read suggestions one by one.',
    ),
  nothingToReadAgain: (reader: string) =>
    new Problem(
      409,
      'nothing_to_read_again',
      `No settled answer is left that ${reader} has not coded a second time: code more by hand first.`,
    ),
  notYourReading: (reader: string) =>
    new Problem(
      403,
      'not_your_reading',
      `${reader} codes these answers: somebody else’s codes would not show how far you two agree.`,
    ),
  readingUnderWay: (left: number, reader: string) =>
    new Problem(
      409,
      'reading_under_way',
      `${plural(left, 'One answer is', `${left} answers are`)} still to be coded by ${reader}: agreement is shown when that is done, or ended early.`,
    ),
  copyBeforeReading: (left: number) =>
    new Problem(
      409,
      'reading_under_way',
      `${plural(left, 'One answer is', `${left} answers are`)} still to be coded by you in a second reading, and a copy would show how: code them first, or have the reading ended.`,
    ),
  readingDone: () =>
    new Problem(
      409,
      'reading_done',
      'This second reading is done and compared, so its codes stay as they are: draw another one.',
    ),
  runNotKept: () =>
    new Problem(
      409,
      'run_not_kept',
      'The suggestions of this run are no longer kept, so it cannot be used again.',
    ),
  jobUnderWay: () =>
    new Problem(409, 'job_under_way', 'This is being done already: wait for it or cancel it.'),
  answersInUse: () =>
    new Problem(
      409,
      'job_under_way',
      'A job is reading the answers of this study, so nothing was deleted: wait until it is done, or cancel it, and try again.',
    ),
  runReplaced: () =>
    new Problem(
      409,
      'run_replaced',
      'A newer training run has replaced these suggestions: look at the new ones first.',
    ),
  workerFailed: () =>
    new Problem(
      500,
      'job_failed',
      'This could not be finished because of an error in the app: nothing was changed. Try again.',
    ),
  databaseAway: () =>
    new Problem(
      503,
      'database_away',
      'The database is not reachable at the moment: what you typed is kept and sent when it is back.',
    ),
  busy: () =>
    new Problem(
      503,
      'busy',
      'Something else is being written just now, and this had to wait too long: try again in a moment.',
    ),
  unexpected: () =>
    new Problem(
      500,
      'unexpected',
      'Something went wrong in the app: what you see may not be saved. Reload and try again.',
    ),
};
