import { expect, test } from '@jest/globals';
import { nextStep, type Stop, type StudyProgress } from './nextStep.js';

const fresh = { answered: 200, settled: 0, sample: null, suggestions: null, isFinished: false };
const at = (question: Partial<NonNullable<StudyProgress['question']>>, stop: Stop | null) =>
  nextStep({ respondents: 200, question: { ...fresh, ...question } }, stop)?.do ?? null;

test('leads from the import through all stops to the report', () => {
  expect(nextStep({ respondents: 0, question: null }, 'import')).toBeNull();
  expect(at({}, 'import')).toBe('look');
  expect(at({}, 'look')).toBe('draw sample');
  expect(at({}, 'code')).toBe('draw sample');
  const drawn = { sample: { size: 60, settled: 20 }, settled: 20 };
  expect(at(drawn, 'import')).toBe('code sample');
  expect(at(drawn, 'code')).toBeNull();
  const coded = { sample: { size: 60, settled: 60 }, settled: 60 };
  expect(at(coded, 'code')).toBe('train');
  expect(at({ settled: 50 }, 'code')).toBe('train');
  expect(at(coded, 'train')).toBeNull();
  const trained = { ...coded, suggestions: { open: 300, decided: 0 } };
  expect(at(trained, 'train')).toBe('review');
  expect(at(trained, null)).toBe('review');
  expect(at(trained, 'review')).toBeNull();
  expect(at({ ...coded, suggestions: { open: 0, decided: 300 } }, 'review')).toBe('report');
  expect(at({ ...trained, isFinished: true }, 'review')).toBe('report');
  expect(at({ ...trained, isFinished: true }, 'report')).toBeNull();
});
