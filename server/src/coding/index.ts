export {
  currentThresholds,
  findWithheld,
  notesAsJson,
  readAnswers,
  readAnswersFor,
} from './answers.js';
export { chosenAnswers } from './ledger.js';
export { codingRoutes } from './routes.js';
export { readFilter } from './readFilter.js';
export { refusePassage } from './mentions.js';
export { clearChanged, findResponse, sameAs } from './responses.js';
export { orderOf } from './orderOf.js';
export { readQuestionAnswers } from './answerCache.js';
export { answersHolding } from './wordsInAnswers.js';
