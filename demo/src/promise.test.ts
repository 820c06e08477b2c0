import { expect, test } from '@jest/globals';
import { listSuggestions, trainQuestion } from '@yellow-thread/core/learning';
import { expectAbove, outlookOf } from '@yellow-thread/core/review';
import { simpleRandomSample } from '@yellow-thread/core/sampling';
import { isNoAnswer, NO_ANSWERS, noAnswerKeys } from '@yellow-thread/core/sheet';
import { codebook } from './codebook.js';
import { readDemoPeople } from './people.js';

const codes = codebook.flatMap((theme) =>
  theme.codes.map(({ key, ...code }) => ({ ...code, id: key })),
);
const noAnswers = noAnswerKeys(NO_ANSWERS);

/** What is promised above each code's default line, beside what the true codes say of the same suggestions. */
function promises(question: number) {
  const answers = readDemoPeople()
    .map((person) => person.answers[question]!)
    .filter(({ text }) => !isNoAnswer(text, noAnswers))
    .map(({ text, mentions }) => ({ text, truth: new Set(mentions.map(({ code }) => code)) }));
  const sample = new Set(simpleRandomSample(answers.length, 200, 1));
  const { codes: trained, unseen } = trainQuestion({
    seed: 1,
    codes,
    answers: answers.map(({ text, truth }, i) => ({
      text,
      settled: sample.has(i),
      codes: sample.has(i) ? truth : new Set<string>(),
    })),
  });
  return trained.flatMap((code) => {
    if (code.state !== 'ready') return [];
    const { settledLabels, outOfFold } = unseen.find(({ codeId }) => codeId === code.codeId)!;
    const said = (label: number) => [...outOfFold].filter((_, i) => settledLabels[i] === label);
    const suggestions = listSuggestions(code.suggestions);
    const outlook = outlookOf(
      suggestions.map((one) => one.probability),
      { found: code.examples, missed: code.unsuggested },
      { yes: said(1), no: said(0) },
    );
    const { shareRight } = expectAbove(outlook, code.threshold);
    const above = suggestions.filter((one) => one.probability >= code.threshold);
    const right = above.filter((one) => answers[one.answer]!.truth.has(code.codeId)).length;
    return shareRight ? [{ ...shareRight, above: above.length, right }] : [];
  });
}

test('what the line promises holds on answers that nobody coded: 95% intervals over codes and questions', () => {
  const made = [0, 1].flatMap(promises);
  const kept = made.filter(
    ({ interval: [low, high], above, right }) => right / above >= low && right / above <= high,
  );
  expect(made.length).toBeGreaterThan(12);
  // of some fifteen such intervals three or more fail once in thirty times
  expect(made.length - kept.length).toBeLessThan(3);
  // and all together the promise is not off to one side
  const sum = (value: (one: (typeof made)[number]) => number) =>
    made.reduce((total, one) => total + value(one), 0);
  const off = sum((one) => one.value * one.above - one.right) / sum((one) => one.above);
  expect(Math.abs(off)).toBeLessThan(0.04);
  // an interval that always says “somewhere” would hold as well
  expect(sum(({ interval: [low, high] }) => high - low) / made.length).toBeLessThan(0.5);
});
