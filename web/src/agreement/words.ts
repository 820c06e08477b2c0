import type { CodeAgreement } from '@yellow-thread/contract';
import { asShare } from '../parts/numbers.js';

/** A coefficient with its interval: "0.78 (0.70 to 0.86)"; a dash where it is not defined. */
export const coefficient = (
  value: number | null,
  interval: CodeAgreement['interval'] = null,
): string => {
  if (value === null) return '–';
  if (interval === null) return asShare(value);
  // the error of large samples may reach beyond what a coefficient can be
  const ends = interval.map((end) => asShare(Math.max(-1, Math.min(1, end))));
  return `${asShare(value)} (${ends.join(' to ')})`;
};
