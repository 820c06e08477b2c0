export { findCodeNamed, findCodes, type FindableCode } from './findCodes.js';
export { inkOn, INKS, nextLook, STITCHES, type Ink, type Look, type Stitch } from './looks.js';
