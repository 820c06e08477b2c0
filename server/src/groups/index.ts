export { describeRule } from './describe.js';
export { groupRoutes } from './routes.js';
export {
  readColumns,
  readMaterial,
  readPeople,
  totalColumn,
  type Column,
  type People,
  type QuestionMaterial,
} from './material.js';
export { readMembers, respondentsOf } from './members.js';
export { findGroup, readGroups } from './stored.js';
export { readWithin } from './within.js';
