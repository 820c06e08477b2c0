import type { Problem, ProblemCode } from '@yellow-thread/contract';
import { problemTexts } from './texts.js';

/** What can be told to a person: a reply of the server, or that there is none. */
export type ShownProblem = Omit<Problem, 'code'> & { code: ProblemCode | 'no_connection' };

/** A reply that says what went wrong. */
export class ProblemError extends Error {
  readonly problem: Problem;
  readonly status: number;
  constructor(status: number, problem: Problem) {
    super(problem.sentence);
    this.status = status;
    this.problem = problem;
  }
}

/**
 * What became of a request: refused for good; not for now, as the session or the page is out of date; or not
 * answered, by a server that is away or in trouble.
 */
export function failureKind(error: unknown): 'refused' | 'not_now' | 'not_answered' {
  if (!(error instanceof ProblemError) || error.status >= 500) return 'not_answered';
  return [401, 403, 408, 429].includes(error.status) ? 'not_now' : 'refused';
}

/** Whatever was thrown, as something that can be told to a person. */
export function asProblem(error: unknown): ShownProblem {
  if (error instanceof ProblemError) return error.problem;
  if (error instanceof TypeError)
    return {
      code: 'no_connection',
      sentence: problemTexts.serverAnswerCheckRuns,
    };
  return {
    code: 'unexpected',
    sentence: problemTexts.somethingWentWrongPage,
  };
}
