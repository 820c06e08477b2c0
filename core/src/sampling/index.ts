export { simpleRandomSample } from './simpleRandom.js';
