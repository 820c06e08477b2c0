import { z } from 'zod';
import { defineEndpoints } from '../endpoint.js';
import { healthSchema } from './records.js';

export const healthEndpoints = defineEndpoints({
  getHealth: {
    method: 'GET',
    path: '/api/health',
    reply: healthSchema,
    503: healthSchema,
    problems: [],
  },
  getMetrics: {
    method: 'GET',
    path: '/api/metrics',
    reply: z.string(),
    produces: ['text/plain'],
    problems: [],
  },
});
