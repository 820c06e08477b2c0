export { bandOf, bandsFrom, parseLimits, type Band } from './bands.js';
export {
  addTo,
  countOf,
  countOfBoth,
  emptyBitset,
  forEachIn,
  forEachInBoth,
  fullBitset,
  has,
  intersect,
  isEmpty,
  subtract,
  unite,
  type Bitset,
} from './bitset.js';
export { dealOut, labelsByRule, type ByRule } from './dealOut.js';
export { valueName, type ValueNames } from './valueName.js';
export { membersOf, type Mentioned, type RuleMaterial } from './members.js';
export { conditionsIn, depthOf, findCircle, type Rule, type RuleGround } from './rule.js';
export { ruleSentence, ruleSubject, type RuleNames } from './sentence.js';
