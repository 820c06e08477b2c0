export { readToneLexicon, type ToneLexicon } from './lexicon.js';
export { scoreTone, TONES, type ScoredTone, type Tone } from './scoreTone.js';
export {
  FEWEST_SPOKEN,
  toneShares,
  type SpokenOf,
  type ToneMaterial,
  type ToneShares,
} from './toneShares.js';
