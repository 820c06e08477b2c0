export { draftCode, draftTheme } from './codebook.js';
export { readBundles, readCodebook } from './readCodebook.js';
export { asCode, codesOf, findCode, mentionsOf, themesOf } from './records.js';
export { codebookRoutes } from './routes.js';
