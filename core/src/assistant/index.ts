export {
  helpWithAnswer,
  type AnswerHelp,
  type CodedUnit,
  type HelpRequest,
  type Misspelling,
} from './helpWithAnswer.js';
