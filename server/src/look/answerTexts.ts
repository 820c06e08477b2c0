import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, withinGroup } from '../database/index.js';

/** What was answered to a question, by some respondents or all. */
export async function readAnswerTexts(
  em: EntityManager,
  questionId: number,
  within: readonly number[] | null,
): Promise<string[]> {
  const { head, holds, values } = withinGroup(within);
  const answers = await rows<{ text: string }>(
    em,
    `${head} select text from response
     where question_id = :questionId and not no_answer and ${holds('respondent_id')}`,
    { ...values, questionId },
  );
  return answers.map(({ text }) => text);
}
