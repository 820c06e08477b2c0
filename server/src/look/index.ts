import { api, type Look } from '@yellow-thread/contract';
import { blankAsides } from '@yellow-thread/core/text';
import { rows, StudyEntity, withinGroup } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import type { App } from '../app.types.js';
import { findQuestion } from '../study/index.js';
import { route } from '../route.js';

const MOST_WORDS = 60;

export function lookRoutes(app: App, threads: Threads): void {
  route(app, api.lookAtQuestion, async (request): Promise<Look> => {
    const { em, params } = request;
    const { head, holds, values } = withinGroup(await request.within());
    const question = await findQuestion(em, params.study, params.question);
    const answers = await rows<{ text: string }>(
      em,
      `${head} select text from response
         where question_id = :questionId and not no_answer and ${holds('respondent_id')}`,
      { ...values, questionId: question.id },
    );
    const { asides, setAside } = await em.findOneOrFail(StudyEntity, params.study);
    const counted = await threads.run('look', {
      answers: answers.map((answer) => blankAsides(answer.text, asides)),
      question: question.wording,
      aside: setAside ?? [],
      most: MOST_WORDS,
    });
    return { answered: answers.length, ...counted };
  });
}
