import { expect, test } from '@jest/globals';
import type { TrainingInput } from './material.js';
import { partThemes, withThemes } from './themes.js';
import { trainQuestion } from './trainQuestion.js';

test('a theme is learnt from examples of any of its codes where one of these has too few', () => {
  const about = [
    'the fare is dear',
    'a dear ticket',
    'what a dear fare',
    'ticket and fare',
    'dear, dear',
    'the view',
    'a kind crew',
    'the seals',
    'more boats',
    'a warm deck',
    'the early boat',
  ];
  const input: TrainingInput = {
    seed: 1,
    codes: ['fares', 'tickets', 'crew'].map((id) => ({
      id,
      name: id,
      definition: '',
      include: '',
    })),
    answers: [
      ...about.map((text, i) => ({
        text,
        settled: true,
        codes: new Set(i < 2 ? ['fares'] : i < 4 ? ['tickets'] : []),
      })),
      { text: 'so dear a fare', settled: false, codes: new Set<string>() },
      { text: 'the crew again', settled: false, codes: new Set<string>() },
    ],
  };
  const themes = [
    { id: 'price', parts: ['fares', 'tickets'] },
    { id: 'people', parts: ['crew'] },
  ];
  const asked = withThemes(input, themes);
  expect(asked.codes.map(({ id }) => id)).toEqual(['fares', 'tickets', 'crew', 'price']);
  const { codes, themes: learnt } = partThemes(asked, trainQuestion(asked).codes);
  expect(codes.map(({ state }) => state)).toEqual(['too_few', 'too_few', 'too_few']);
  expect(learnt).toMatchObject([{ themeId: 'price', examples: 4, answers: [11] }]);
  // with examples enough of each code nothing is asked about themes
  const enough = { ...input, answers: [...input.answers, ...input.answers, ...input.answers] };
  expect(withThemes(enough, themes)).toBe(enough);
});
