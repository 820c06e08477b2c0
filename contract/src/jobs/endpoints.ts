import { defineEndpoints } from '../endpoint.js';
import { jobParams, jobSchema } from './records.js';

export const jobsEndpoints = defineEndpoints({
  getJob: {
    method: 'GET',
    path: '/api/studies/:study/jobs/:job',
    access: 'membership',
    params: jobParams,
    reply: jobSchema,
    problems: [],
  },
  cancelJob: {
    method: 'DELETE',
    path: '/api/studies/:study/jobs/:job',
    params: jobParams,
    reply: jobSchema,
    problems: [],
  },
});
