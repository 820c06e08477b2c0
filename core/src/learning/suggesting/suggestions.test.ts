import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { tinyTable } from '../../../test/tinyTable.js';
import { listSuggestions, SuggestionBuilder } from './suggestions.js';
import { learnVocabulary } from '../features/vocabulary.js';
import { Tokenizer } from '../features/tokenizedTexts.js';

const forms = ['fare', 'crew', 'boat', 'pier', 'queue', 'seal', 'view', 'ramp', 'late'];
const text = fc.array(fc.constantFrom(...forms), { minLength: 1, maxLength: 14 });
const weights = fc.array(fc.integer({ min: -3, max: 5 }), { minLength: 14, maxLength: 14 });

test('a suggestion names the up to six different words that speak most for it, the strongest first', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(text, weights), { minLength: 1, maxLength: 12 }),
      fc.constantFrom(0.5, 2),
      (said, slope) => {
        const texts = said.map(([words]) => words.join(' '));
        const vocabulary = learnVocabulary(texts, { table: tinyTable().table, minAnswers: 1 });
        const reader = new Tokenizer(vocabulary);
        for (const one of texts) reader.read(one);
        const builder = new SuggestionBuilder(vocabulary.words.forms);
        said.forEach(([, given], t) =>
          builder.add(
            { answer: 3 * t, probability: t / 20, line: t % 2 === 0 ? null : t },
            {
              texts: reader.texts,
              text: t,
              contributions: Float64Array.from(given),
              meaning: t % 3 === 0 ? null : t,
              slope,
            },
          ),
        );
        expect(listSuggestions(builder.suggestions())).toEqual(
          said.map(([words, given], t) => ({
            answer: 3 * t,
            probability: t / 20,
            evidence: [...new Set(words)]
              .map((word, w) => ({ word, weight: slope * given[w]! }))
              .filter(({ weight }) => weight > 0)
              .sort((x, y) => y.weight - x.weight)
              .slice(0, 6),
            fromWords: slope * given.slice(0, new Set(words).size).reduce((x, y) => x + y, 0),
            fromMeaning: t % 3 === 0 ? null : slope * t,
            line: t % 2 === 0 ? null : t,
          })),
        );
      },
    ),
  );
});
