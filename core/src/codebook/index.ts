export { changeCodeMap, type MapContent } from './changeCodeMap.js';
export { findCodeNamed, findCodes, type FindableCode } from './findCodes.js';
export {
  inkOn,
  INKS,
  lookAssigner,
  nextLook,
  STITCHES,
  type Ink,
  type Look,
  type Stitch,
} from './looks.js';
export { mergeMentions, type PlacedMention } from './mergeMentions.js';
export { parseCodeName } from './parseCodeName.js';
export { placeBefore } from './placeBefore.js';
export {
  chao1,
  newCodesOf,
  RARE_NEW_CODES,
  SATURATION_BASE,
  SATURATION_RUN,
  SATURATION_UNIT,
  saturationRuns,
  type SaturationRun,
} from './saturation.js';
