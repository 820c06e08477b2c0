import { GENERAL_PROBLEM_CODES, type ProblemCode } from '@yellow-thread/contract';
import type { FastifyError, FastifyReply } from 'fastify';
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod';
import { isBusy, isConnectionLost, isDiskFull } from './database/index.js';
import { Problem, problems } from './wording/problems.js';
import type { App } from './app.types.js';

const generalCodes = new Set<ProblemCode>(GENERAL_PROBLEM_CODES);

/**
 * Every error leaves in the one shape; what was not meant for people is logged and replaced.
 *
 * @param onUndeclared told of a code that the contract does not declare of the operation
 */
export function replyWithProblems(
  app: App,
  onUndeclared: (operation: string, code: ProblemCode) => void = () => {},
): void {
  app.setErrorHandler((error: FastifyError | Problem, request, reply) => {
    const problem = asProblem(error);
    const { endpoint } = request.routeOptions.config;
    if (endpoint && !generalCodes.has(problem.code) && !endpoint.problems.includes(problem.code))
      onUndeclared(endpoint.id, problem.code);
    // a message of its own: pino would take the error's, which may quote what was written
    if (problem.status >= 500) request.log.error({ err: error }, 'unexpected error');
    return sendProblem(reply, problem);
  });
}

export const sendProblem = (reply: FastifyReply, problem: Problem): FastifyReply =>
  reply.code(problem.status).send({
    code: problem.code,
    sentence: problem.message,
    ...(problem.details && { details: problem.details }),
  });

function asProblem(error: FastifyError | Problem): Problem {
  if (error instanceof Problem) return error;
  if (isConnectionLost(error)) return problems.databaseAway();
  if (isBusy(error)) return problems.busy();
  if (isDiskFull(error)) return problems.diskFull();
  if (hasZodFastifySchemaValidationErrors(error))
    return problems.invalidRequest({
      in: error.validationContext,
      fields: error.validation.map(({ instancePath, message }) => ({ at: instancePath, message })),
    });
  if (error.code === 'FST_CSRF_INVALID_TOKEN' || error.code === 'FST_CSRF_MISSING_SECRET')
    return new Problem(403, 'stale_page', 'This page is out of date: reload it, then try again.');
  if (error.statusCode === 429)
    return new Problem(429, 'too_many_tries', 'Too many attempts: wait a minute, then try again.');
  if (error.statusCode !== undefined && error.statusCode < 500)
    return problems.invalidRequest({ reason: error.code });
  return problems.unexpected();
}
