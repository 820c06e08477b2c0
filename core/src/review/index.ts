export {
  countAbove,
  expectAbove,
  lineForShareRight,
  outlookOf,
  type Expectation,
  type Outlook,
} from './expected.js';
export { redecide } from './redecide.js';
