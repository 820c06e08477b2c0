import { api, type Look } from '@yellow-thread/contract';
import { blankAsides } from '@yellow-thread/core/text';
import { StudyEntity } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import type { App } from '../app.types.js';
import { findQuestion } from '../study/index.js';
import { route } from '../route.js';
import { readAnswerTexts } from './answerTexts.js';

const MOST = { words: 60, phrases: 30 };

export function lookRoutes(app: App, threads: Threads): void {
  route(app, api.lookAtQuestion, async (request): Promise<Look> => {
    const { em, params } = request;
    const question = await findQuestion(em, params.study, params.question);
    const texts = await readAnswerTexts(em, question.id, await request.within());
    const { asides, setAside } = await em.findOneOrFail(StudyEntity, params.study);
    const counted = await threads.run('look', {
      answers: texts.map((text) => blankAsides(text, asides)),
      question: question.wording,
      aside: setAside ?? [],
      most: MOST,
    });
    return { answered: texts.length, ...counted };
  });
}
