export { refuseTooDeep } from './groups.js';
export { describeRule } from './describe.js';
export { groupRoutes } from './routes.js';
export { DRAWN_AT_RANDOM, readMaterial, type Origins, type QuestionMaterial } from './material.js';
export { readPeople, setOf, type People } from './people.js';
export {
  MISSING,
  readColumns,
  readLabels,
  readMembers,
  respondentsOf,
  respondentsOfRule,
  totalColumn,
  type Column,
} from './members.js';
export { findGroup, readGroups } from './stored.js';
export { readByRule, readVariable } from './variables.js';
export { readWithin } from './within.js';
