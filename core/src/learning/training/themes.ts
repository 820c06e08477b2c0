import type { MeasuredQuality } from '../evaluation/measureQuality.js';
import { FEWEST_EXAMPLES } from './fitCodes.js';
import type { TrainingInput } from './material.js';
import type { CodeResult } from './trainQuestion.js';

export interface Theme {
  id: string;
  /** Ids of its codes. */
  parts: string[];
}

/** What was learnt of a theme: which open answers are likely about it, by position, most likely first. */
export interface LearntTheme {
  themeId: string;
  examples: number;
  quality: MeasuredQuality;
  answers: number[];
}

const MOST_ANSWERS = 2000;

/**
 * Has themes learnt as if they were codes, where one of their codes has examples and too few of them: an answer about
 * any of a theme's codes is an example of it. A theme of one code says no more than the code.
 */
export function withThemes(input: TrainingInput, themes: readonly Theme[]): TrainingInput {
  const examples = new Map<string, number>();
  for (const { settled, codes } of input.answers)
    if (settled) for (const id of codes) examples.set(id, (examples.get(id) ?? 0) + 1);
  const asked = new Set(input.codes.map(({ id }) => id));
  const wanted = themes
    .map(({ id, parts }) => ({ id, parts: parts.filter((part) => asked.has(part)) }))
    .filter(
      ({ parts }) =>
        parts.length > 1 &&
        parts.some((part) => (examples.get(part) ?? FEWEST_EXAMPLES) < FEWEST_EXAMPLES),
    );
  if (wanted.length === 0) return input;
  const withTheirs = (codes: ReadonlySet<string>) =>
    new Set([
      ...codes,
      ...wanted.flatMap(({ id, parts }) => (parts.some((part) => codes.has(part)) ? [id] : [])),
    ]);
  const accepted = (decided: ReadonlyMap<string, boolean>) =>
    new Map([
      ...decided,
      ...wanted.flatMap(({ id, parts }) =>
        parts.some((part) => decided.get(part)) ? [[id, true] as const] : [],
      ),
    ]);
  return {
    ...input,
    codes: [
      ...input.codes,
      ...wanted.map((theme) => ({ ...theme, name: '', definition: '', include: '' })),
    ],
    answers: input.answers.map((answer) => ({
      ...answer,
      codes: withTheirs(answer.codes),
      ...(answer.lines && {
        lines: answer.lines.map((line) => ({ ...line, codes: withTheirs(line.codes) })),
      }),
      ...(answer.decided && { decided: accepted(answer.decided) }),
    })),
  };
}

/** Separates results for codes from those for themes. */
export function partThemes({ codes }: TrainingInput, results: readonly CodeResult[]) {
  const themeIds = new Set(codes.flatMap(({ id, parts }) => (parts ? [id] : [])));
  return {
    codes: results.filter(({ codeId }) => !themeIds.has(codeId)),
    isTheme: (id: string) => themeIds.has(id),
    themes: results.flatMap((result): LearntTheme[] => {
      if (!themeIds.has(result.codeId) || result.state === 'too_few') return [];
      const { codeId, examples, quality, threshold, suggestions } = result;
      const { answers, probabilities } = suggestions;
      const likely = [...answers.keys()]
        .filter((s) => probabilities[s]! >= threshold)
        .sort((x, y) => probabilities[y]! - probabilities[x]!)
        .slice(0, MOST_ANSWERS);
      return [{ themeId: codeId, examples, quality, answers: likely.map((s) => answers[s]!) }];
    }),
  };
}
