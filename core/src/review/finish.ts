/** Seconds that an answer and a decision take somebody whose own pace is not known yet (common practice, no source). */
export const USUAL_PACE = { answer: 8, decision: 3 };
/** Where reading the rest takes no longer than this, that comes first. */
const SOON_SECONDS = 3600;

/** A way to the end of a question. */
export type Way = 'read' | 'codes' | 'hand' | 'estimates' | 'models';

/** What is left of a question. */
export interface Left {
  /** Open answers of different words, and suggestions that are open: all, and those that the models are unsure of. */
  openWordings: number;
  suggestions: number;
  unsureSuggestions: number;
  /** Codes without a model that are not decided for everybody. */
  withoutModel: number;
  hasModels: boolean;
  canEstimate: boolean;
  /** Answers that a check of the models' decisions would be read of. */
  check: number;
  /** Seconds an answer and a decision; null until known. */
  pace: { answer: number | null; decision: number | null };
}

/** A way with the work that it takes. */
export interface WayToFinish {
  way: Way;
  /** Answers to be read or decisions to be made. */
  work: number;
  seconds: number;
  /** Whether it can be gone now. */
  isOpen: boolean;
}

/**
 * The ways to the end of a question, the one to be reported first in front: reading the rest where that takes less than an
 * hour, and estimates otherwise.
 */
export function waysToFinish(left: Left): WayToFinish[] {
  const answer = left.pace.answer ?? USUAL_PACE.answer;
  const decision = left.pace.decision ?? USUAL_PACE.decision;
  const ways: Record<Way, WayToFinish> = {
    read: {
      way: 'read',
      work: left.openWordings,
      seconds: left.openWordings * answer,
      isOpen: left.hasModels && left.openWordings > 0,
    },
    codes: {
      way: 'codes',
      work: left.unsureSuggestions,
      seconds: left.unsureSuggestions * decision,
      isOpen: left.hasModels,
    },
    hand: {
      way: 'hand',
      work: left.openWordings,
      seconds: left.openWordings * answer,
      isOpen: left.openWordings > 0,
    },
    estimates: { way: 'estimates', work: 0, seconds: 0, isOpen: left.canEstimate },
    models: {
      way: 'models',
      work: left.check,
      seconds: left.check * answer,
      isOpen: left.hasModels && left.openWordings > 0,
    },
  };
  const order: Way[] =
    ways.read.seconds < SOON_SECONDS
      ? ['read', 'codes', 'hand', 'estimates', 'models']
      : ['estimates', 'codes', 'models', 'read', 'hand'];
  return order.map((way) => ways[way]);
}

/** Between two decisions of one person, less is the same stroke and more is a pause, in seconds. */
const SHORTEST_STEP = 0.2;
const LONGEST_STEP = 120;
const FEWEST_STEPS = 5;

/**
 * How long one of several things takes somebody: the median of the time between them, pauses and what was done in one
 * stroke left out.
 *
 * @param times when each was done, in milliseconds, in any order
 * @returns seconds; null where too few are known
 */
export function medianPace(times: readonly number[]): number | null {
  const inOrder = times.toSorted((x, y) => x - y);
  const steps = inOrder
    .slice(1)
    .map((time, i) => (time - inOrder[i]!) / 1000)
    .filter((step) => step >= SHORTEST_STEP && step <= LONGEST_STEP)
    .sort((x, y) => x - y);
  if (steps.length < FEWEST_STEPS) return null;
  const middle = steps.length >>> 1;
  return steps.length % 2 === 1 ? steps[middle]! : (steps[middle - 1]! + steps[middle]!) / 2;
}
