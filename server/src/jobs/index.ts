export { cancelJob, enqueueJob, JOB_CHANNEL, newestJob, newestSheetJob } from './jobs.js';
export { jobRoutes } from './routes.js';
export { startJobRunner, type JobContext, type JobHandler, type JobRunner } from './runner.js';
export { createThreads, type Threads } from './threads/pool.js';
