/** The stops of the job, in order. */
export type Stop = 'import' | 'look' | 'code' | 'train' | 'review' | 'report';

/** How far a study is with a question. */
export interface StudyProgress {
  /** How many respondents were imported. */
  respondents: number;
  /** Null while there is no open question. */
  question: {
    answered: number;
    /** Answers settled by hand. */
    settled: number;
    /** Answers drawn for coding by hand, and how many of them are settled; null for none. */
    sample: { size: number; settled: number } | null;
    /** Suggestions of the training run in use; null before any training. */
    suggestions: { open: number; decided: number } | null;
    isFinished: boolean;
  } | null;
}

/** What to do next, and at which stop. */
export type NextStep =
  | { do: 'look'; at: 'look' }
  | { do: 'draw sample'; at: 'code' }
  | { do: 'code sample'; at: 'code'; left: number }
  | { do: 'train'; at: 'train' }
  | { do: 'review'; at: 'review'; open: number }
  | { do: 'report'; at: 'report' };

/** Settled answers that suffice for training without a sample. */
const ENOUGH_SETTLED = 50;

/**
 * What somebody who is new to a study would do next at a stop: import, look, draw a sample, code it, train, review,
 * report.
 *
 * @returns null where there is nothing to say: nothing was imported yet (the page says so itself), or one is at it
 */
export function nextStep(
  { respondents, question }: StudyProgress,
  stop: Stop | null,
): NextStep | null {
  const step = respondents === 0 || !question ? null : stepOf(question, stop);
  // what is drawn is drawn at a button of the stop, anything else is done by being there
  return step && step.at === stop && step.do !== 'draw sample' ? null : step;
}

function stepOf(question: NonNullable<StudyProgress['question']>, stop: Stop | null): NextStep {
  const { sample, suggestions, settled, isFinished } = question;
  if (isFinished) return { do: 'report', at: 'report' };
  if (suggestions)
    return suggestions.open > 0
      ? { do: 'review', at: 'review', open: suggestions.open }
      : { do: 'report', at: 'report' };
  if (sample && sample.settled < sample.size)
    return { do: 'code sample', at: 'code', left: sample.size - sample.settled };
  if (sample || settled >= ENOUGH_SETTLED) return { do: 'train', at: 'train' };
  if (settled === 0 && stop === 'import') return { do: 'look', at: 'look' };
  return { do: 'draw sample', at: 'code' };
}
