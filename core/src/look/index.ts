export { lookAt, type FirstLook, type LeftOut } from './look.js';
export { contrastTerms, tellingWords, type Contrast, type TermContrast } from './contrast.js';
export {
  linesOfSome,
  readTermLines,
  readTerms,
  termsOf,
  type TermLines,
  type TermTexts,
} from './readTerms.js';
export { linkWords, type LinkedWords, type WordLink } from './wordNetwork.js';
export { bestCommunities, findTopics, topicName, type Topics } from './topics.js';
export { countTopics, type TopicCount, type TopicGap } from './topicCounts.js';
