import type { NearestCoded } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { readAnswersFor } from '../coding/index.js';
import { SuggestionEntity } from '../database/index.js';
import { nearestCodedLines } from '../sentences/index.js';
import { problems } from '../wording/problems.js';
import { reviewTexts } from '../wording/review.js';

/** As many with the code are shown, and as many without it. */
const SHOWN = 2;
/** Lines that are looked at for those that may be shown. */
const LOOKED_AT = 20;

/**
 * The hand-coded lines nearest in meaning to what a suggestion is for: those with the code and those without it. What is
 * kept from who asks, since they code it a second time, is not among them.
 *
 * @throws Problem not_found for an answer without a suggestion of the code
 */
export async function readNearestCoded(
  em: EntityManager,
  accountId: number,
  target: { studyId: number; questionId: number; codeId: string },
  responseId: number,
): Promise<NearestCoded> {
  const { codeId, questionId } = target;
  const suggestion = await em.findOne(
    SuggestionEntity,
    { codeId, responseId, questionId },
    { fields: ['line'] },
  );
  if (!suggestion) throw problems.notFound(reviewTexts.suggestion);
  const nearest = await nearestCodedLines(em, target, {
    responseId,
    line: suggestion.line ?? null,
  });
  const looked = [true, false].map((hasCode) =>
    nearest.filter((line) => line.hasCode === hasCode).slice(0, LOOKED_AT),
  );
  const answers = await readAnswersFor(
    em,
    accountId,
    looked.flat().map((line) => line.responseId),
  );
  const shown = new Map(answers.flatMap((one) => (one.isWithheld ? [] : [[one.id, one] as const])));
  return {
    lines: looked.flatMap((lines) =>
      lines
        .filter((line) => shown.has(line.responseId))
        .slice(0, SHOWN)
        .map((line) => ({ ...line, externalId: shown.get(line.responseId)!.externalId })),
    ),
  };
}
