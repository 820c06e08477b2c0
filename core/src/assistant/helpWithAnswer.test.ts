import { describe, expect, test } from '@jest/globals';
import type { SentenceVectors } from '../sentences/index.js';
import { helpWithAnswer, type CodedUnit, type HelpRequest } from './helpWithAnswer.js';

/** An encoder that knows of texts how much they are about boats, prices and crew. */
const about: Record<string, [number, number, number]> = {
  'Boats late again.': [0.9, 0.1, 0],
  'The crew smiles.': [0, 0.1, 1],
  'Fares are mad.': [0.2, 1, 0],
  'Boats late again. The crew smiles. Fares are mad.': [0.3, 0.9, 0.3],
  'What keeps people ashore': [1, 0.2, 0],
  'What would you change?': [0, 1, 0.2],
  'never on time': [1, 0, 0],
  'missed my train': [0.95, 0.05, 0],
  'too dear': [0.1, 1, 0],
  'kind staff': [0, 0, 1],
};
const vectors: SentenceVectors = {
  size: 3,
  of(text) {
    const found = about[text];
    if (!found) return null;
    const length = Math.hypot(...found);
    return Float32Array.from(found, (one) => one / length);
  },
};

const text = 'Boats late again. The crew smiles. Fares are mad.';
const lines = ['Boats late again.', 'The crew smiles.', 'Fares are mad.'].map((line) => {
  const start = text.indexOf(line);
  return { start, end: start + line.length };
});
const kinds: Omit<CodedUnit, 'responseId'>[] = [
  { text: 'never on time', codeIds: ['time'] },
  { text: 'missed my train', codeIds: ['time', 'links'] },
  { text: 'too dear', codeIds: ['price'] },
  { text: 'kind staff', codeIds: ['crew'] },
];
/** As many as it takes for what all have in common to be known. */
const coded: CodedUnit[] = Array.from({ length: 24 }, (_, i) => ({
  responseId: i,
  ...kinds[i % kinds.length]!,
}));
const request: HelpRequest = {
  ...{ text, lines, coded },
  purpose: 'What keeps people ashore',
  wording: 'What would you change?',
  glossary: [
    { term: 'FARE', meaning: 'what a crossing costs' },
    { term: 'the crèw', meaning: 'who works aboard' },
  ],
};
const said = ({ start, end }: { start: number; end: number }) => text.slice(start, end);

describe('help with an answer that is read for meaning', () => {
  const help = helpWithAnswer(request, vectors, () => []);

  test('the gist is the line nearest to the whole, and purpose and question have the line nearest to each', () => {
    // by hand: cosine with (0.3, 0.9, 0.3) is largest for prices
    expect(said(help.gist!)).toBe('Fares are mad.');
    expect(help.bearing.map((one) => [one.on, said(one)])).toEqual([
      ['purpose', 'Boats late again.'],
      ['question', 'Fares are mad.'],
    ]);
  });

  test('each line has the codes of what is nearest, by their share, with those lines as reasons', () => {
    const codesOf = (line: string) =>
      help.passages.find((one) => said(one) === line)!.codes.map(({ codeId }) => codeId);
    expect(codesOf('The crew smiles.')).toEqual(['crew']);
    expect(codesOf('Fares are mad.')[0]).toBe('price');
    // by hand: the cosine with (0.95, 0.05) is 0.998, with (1, 0) 0.994
    const [late] = help.passages;
    expect(late!.codes[0]).toMatchObject({
      codeId: 'time',
      reasons: [{ text: 'missed my train' }, { text: 'missed my train' }],
    });
    for (const { codes } of help.passages)
      for (const { share, reasons } of codes) {
        expect(share).toBeGreaterThanOrEqual(0.2);
        expect(share).toBeLessThanOrEqual(1);
        expect(reasons.length).toBeGreaterThan(0);
      }
    expect([help.compared, help.isMeaning]).toEqual([24, true]);
  });

  test('terms stand at their first place, whatever their case and accents, in the plural too', () => {
    expect(help.terms.map((one) => [one.term, said(one)])).toEqual([
      ['FARE', 'Fares'],
      ['the crèw', 'The crew'],
    ]);
  });
});

test('without vectors it goes by words, and says nothing of what bears on the study', () => {
  const help = helpWithAnswer(
    {
      ...request,
      coded: [{ responseId: 9, text: 'boats late', codeIds: ['time'] }],
    },
    null,
    () => [{ start: 0, end: 5, suggestions: ['Boots'] }],
  );
  expect([help.isMeaning, help.bearing]).toEqual([false, []]);
  expect(help.passages.map((one) => [said(one), one.codes[0]!.codeId])).toEqual([
    ['Boats late again.', 'time'],
  ]);
  expect(help.misspelt).toEqual([{ start: 0, end: 5, suggestions: ['Boots'] }]);
});

test('an answer of one line has no gist, and one that nobody coded the like of no codes', () => {
  const help = helpWithAnswer(
    { ...request, lines: lines.slice(0, 1), coded: [] },
    vectors,
    () => [],
  );
  expect([help.gist, help.bearing, help.passages]).toEqual([null, [], []]);
});
