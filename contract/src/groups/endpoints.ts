import { defineEndpoints } from '../endpoint.js';
import {
  groupFields,
  groupListSchema,
  groupParams,
  groupSizeQuery,
  groupSizeSchema,
} from './records.js';
import { doneSchema, studyParams } from '../ids.js';

export const groupsEndpoints = defineEndpoints({
  listGroups: {
    method: 'GET',
    path: '/api/studies/:study/groups',
    access: 'membership',
    params: studyParams,
    reply: groupListSchema,
    problems: [],
  },
  sizeOfGroup: {
    method: 'POST',
    path: '/api/studies/:study/groups/size',
    params: studyParams,
    body: groupSizeQuery,
    reply: groupSizeSchema,
    problems: ['group_circle', 'rule_too_deep'],
  },
  putGroup: {
    method: 'PUT',
    path: '/api/studies/:study/groups/:group',
    params: groupParams,
    body: groupFields,
    reply: doneSchema,
    problems: ['changed_meanwhile', 'group_circle', 'name_taken', 'rule_too_deep'],
  },
  removeGroup: {
    method: 'DELETE',
    path: '/api/studies/:study/groups/:group',
    params: groupParams,
    reply: doneSchema,
    problems: ['changed_meanwhile', 'group_needed'],
  },
});
