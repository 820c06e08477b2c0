export { readToneLexicon, type ToneLexicon } from './lexicon.js';
export { scoreTone, type ScoredTone } from './scoreTone.js';
export {
  FEWEST_SPOKEN,
  toneShares,
  type SpokenOf,
  type ToneMaterial,
  type ToneShares,
} from './toneShares.js';
export { isNegative, isPositive, likelyTone, TONES, type Tone } from './tones.js';
