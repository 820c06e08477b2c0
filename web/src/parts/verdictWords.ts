import type { ModelVerdict } from '@yellow-thread/core/review';
import { asShare } from './numbers.js';

/** What a code's model is good for, in words. */
export function verdictWords(verdict: ModelVerdict, line: number): string {
  switch (verdict) {
    case 'good':
      return 'good';
    case 'usable':
      return `usable above ${asShare(line)}`;
    case 'little_evidence':
      return 'little evidence';
    case 'unreliable':
      return 'not to be relied on';
  }
}
