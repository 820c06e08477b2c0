import type { CodeAgreement } from '@yellow-thread/contract';
import { asShare } from '../lib/numbers.js';

/** A coefficient with its interval: "0.78 (0.70 to 0.86)"; a dash where it is not defined. */
export const coefficient = (
  value: number | null,
  interval: CodeAgreement['interval'] = null,
): string => {
  if (value === null) return '–';
  if (interval === null) return asShare(value);
  return `${asShare(value)} (${interval.map(asShare).join(' to ')})`;
};
