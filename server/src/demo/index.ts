export { loadDemoStudy } from './loadDemoStudy.js';
