import type { ModelVerdict } from '@yellow-thread/core/review';
import { verdictWordsTexts } from './texts.js';

/** What a code's model is good for, in words. */
export function verdictWords(verdict: ModelVerdict, line: number): string {
  switch (verdict) {
    case 'good':
      return 'good';
    case 'usable':
      return verdictWordsTexts.usableAbove(line);
    case 'little_evidence':
      return verdictWordsTexts.littleEvidence;
    case 'unreliable':
      return verdictWordsTexts.relied;
  }
}
