import { agreementEndpoints } from './agreement/endpoints.js';
import { assistantEndpoints } from './assistant/endpoints.js';
import { codebookEndpoints } from './codebook/endpoints.js';
import { codeMapsEndpoints } from './codeMaps/endpoints.js';
import { codingEndpoints } from './coding/endpoints.js';
import { exchangeEndpoints } from './exchange/endpoints.js';
import { groupsEndpoints } from './groups/endpoints.js';
import { healthEndpoints } from './health/endpoints.js';
import { historyEndpoints } from './history/endpoints.js';
import { jobsEndpoints } from './jobs/endpoints.js';
import { learningEndpoints } from './learning/endpoints.js';
import { lookEndpoints } from './look/endpoints.js';
import { notesEndpoints } from './notes/endpoints.js';
import { peopleEndpoints } from './people/endpoints.js';
import { personalDataEndpoints } from './personalData/endpoints.js';
import { reportEndpoints } from './report/endpoints.js';
import { respondentsEndpoints } from './respondents/endpoints.js';
import { reviewEndpoints } from './review/endpoints.js';
import { samplingEndpoints } from './sampling/endpoints.js';
import { sentencesEndpoints } from './sentences/endpoints.js';
import { sheetEndpoints } from './sheet/endpoints.js';
import { studyEndpoints } from './study/endpoints.js';
import { studyFileEndpoints } from './studyFile/endpoints.js';
import { toneEndpoints } from './tone/endpoints.js';
import { writeUpsEndpoints } from './writeUps/endpoints.js';

/** Everything that can be asked of the server, by the name of the operation. */
export const api = {
  ...agreementEndpoints,
  ...assistantEndpoints,
  ...codebookEndpoints,
  ...codeMapsEndpoints,
  ...codingEndpoints,
  ...exchangeEndpoints,
  ...groupsEndpoints,
  ...healthEndpoints,
  ...historyEndpoints,
  ...jobsEndpoints,
  ...learningEndpoints,
  ...lookEndpoints,
  ...notesEndpoints,
  ...peopleEndpoints,
  ...personalDataEndpoints,
  ...reportEndpoints,
  ...respondentsEndpoints,
  ...reviewEndpoints,
  ...samplingEndpoints,
  ...sentencesEndpoints,
  ...sheetEndpoints,
  ...studyEndpoints,
  ...studyFileEndpoints,
  ...toneEndpoints,
  ...writeUpsEndpoints,
};
export type ApiEndpoint = (typeof api)[keyof typeof api];
