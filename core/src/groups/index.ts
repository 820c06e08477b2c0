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
export { assignCategories, labelsByRule, type ByRule } from './assignCategories.js';
export { valueName, type ValueNames } from './valueName.js';
export { membersOf, type Mentioned, type RuleMaterial } from './members.js';
export { conditionsIn, depthOf, findCycle, type Rule, type RuleReference } from './rule.js';
export { ruleSentence, ruleSubject, type RuleNames } from './sentence.js';
