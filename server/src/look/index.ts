import { lookQuery, lookSchema, questionParams, type Look } from '@yellow-thread/contract';
import { countWords } from '@yellow-thread/core/look';
import { splitWords } from '@yellow-thread/core/text';
import type { App } from '../routeScope.js';
import { rows } from '../database/index.js';
import { findQuestion } from '../study/index.js';

const MOST_WORDS = 60;
const LENGTH_BINS = [1, 6, 11, 16, 21, 31, 51];

export function lookRoutes(app: App): void {
  app.get(
    '/api/studies/:study/questions/:question/look',
    {
      schema: {
        operationId: 'lookAtQuestion',
        params: questionParams,
        querystring: lookQuery,
        response: { 200: lookSchema },
      },
    },
    async ({ em, params, query }): Promise<Look> => {
      const question = await findQuestion(em, params.study, params.question);
      const answers = await rows<{ text: string }>(
        em,
        'select text from response where question_id = ? and not no_answer',
        [question.id],
      );
      const texts = answers.map((answer) => answer.text);
      const aside = query.aside.split(' ').filter((word) => word !== '');
      const lengths = LENGTH_BINS.map((from) => ({ from, answers: 0 }));
      for (const text of texts) {
        const words = splitWords(text).length;
        lengths.findLast((bin) => bin.from <= Math.max(1, words))!.answers += 1;
      }
      return {
        answered: texts.length,
        lengths,
        words: countWords(texts, question.wording, aside, MOST_WORDS),
      };
    },
  );
}
