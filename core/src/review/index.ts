export { countAbove, expectAbove, outlookOf, type Expectation, type Outlook } from './expected.js';
export { redecide, type Decision, type ReviewCounts } from './redecide.js';
