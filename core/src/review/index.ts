export { countAbove, expectAbove, outlookOf, type Expectation, type Outlook } from './expected.js';
export { redecide } from './redecide.js';
