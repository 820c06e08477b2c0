export { cutsAsJson, readAnswers } from './answers.js';
export { chosenAnswers } from './ledger.js';
export { openStudyEvents } from './events.js';
export { historyRoutes } from './historyRoutes.js';
export { streamRoutes } from './streamRoutes.js';
export { codingRoutes } from './routes.js';
export { refusePassage } from './mentions.js';
export { findResponse, sameAs } from './responses.js';
export { readQuestionAnswers } from './keptAnswers.js';
