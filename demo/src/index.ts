export { codebook } from './codebook.js';
export { readDemoPeople, type DemoAnswer, type DemoPerson } from './people.js';
