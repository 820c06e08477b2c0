import { trainQuestion } from '@yellow-thread/core/learning';
import { simpleRandomSample } from '@yellow-thread/core/sampling';
import { demoCodes, demoQuestions, rounded, type CodedText } from './material.js';

const draws = 5;
const blank = demoCodes.map((code) => ({ ...code, name: '', definition: '', include: '' }));

/**
 * How good suggestions are at the default line on answers that nobody coded, by how many were coded:
 * micro-F1 over all codes, averaged over random samples, against the same models cut at .5 and against
 * models that learnt without the codebook's words.
 */
export function suggest() {
  return demoQuestions().flatMap((answers, q) =>
    [50, 100, 200]
      .filter((coded) => coded <= answers.length / 2)
      .map((coded) => {
        const runs = Array.from({ length: draws }, (_, seed) => {
          const sample = new Set(simpleRandomSample(answers.length, coded, seed));
          return {
            atLine: microF1(answers, sample, demoCodes, seed, null),
            atHalf: microF1(answers, sample, demoCodes, seed, 0.5),
            withoutCodebook: microF1(answers, sample, blank, seed, null),
          };
        });
        const mean = (key: keyof (typeof runs)[number]) =>
          runs.reduce((sum, run) => sum + run[key], 0) / draws;
        return {
          question: q + 1,
          coded,
          of: answers.length,
          microF1: rounded(mean('atLine'), 3),
          'ratio to p ≥ .5': rounded(mean('atLine') / mean('atHalf')),
          'ratio to no codebook': rounded(mean('atLine') / mean('withoutCodebook')),
        };
      }),
  );
}

function microF1(
  answers: CodedText[],
  sample: Set<number>,
  codes: typeof demoCodes,
  seed: number,
  line: number | null,
): number {
  const results = trainQuestion({
    answers: answers.map((answer, i) => ({ ...answer, settled: sample.has(i) })),
    codes,
    seed,
  });
  let [right, suggested, wanted] = [0, 0, 0];
  answers.forEach((answer, i) => {
    if (!sample.has(i)) wanted += answer.codes.size;
  });
  for (const result of results)
    if (result.state !== 'too_few')
      for (const { answer, probability } of result.suggestions) {
        if (probability < (line ?? result.line)) continue;
        suggested += 1;
        right += Number(answers[answer]!.codes.has(result.codeId));
      }
  return (2 * right) / (suggested + wanted);
}
