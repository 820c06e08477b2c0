import { z } from 'zod';
import { defineEndpoints } from '../endpoint.js';
import { TABLE_FILE_TYPES } from '../fileTypes.js';
import { doneSchema, studyParams } from '../ids.js';
import {
  freezeSchema,
  pictureKeepSchema,
  pictureParams,
  writeUpFileParams,
  writeUpListSchema,
  writeUpParams,
  writeUpSaveSchema,
  writeUpSavedSchema,
  writeUpSchema,
} from './records.js';

export const writeUpsEndpoints = defineEndpoints({
  listWriteUps: {
    method: 'GET',
    path: '/api/studies/:study/write-ups',
    access: 'reading',
    params: studyParams,
    reply: writeUpListSchema,
    problems: [],
  },
  getWriteUp: {
    method: 'GET',
    path: '/api/studies/:study/write-ups/:writeUp',
    access: 'reading',
    params: writeUpParams,
    reply: writeUpSchema,
    problems: ['no_such_difference', 'too_many_columns', 'wrong_table'],
  },
  saveWriteUp: {
    method: 'PUT',
    path: '/api/studies/:study/write-ups/:writeUp',
    params: writeUpParams,
    body: writeUpSaveSchema,
    reply: writeUpSavedSchema,
    problems: ['changed_meanwhile', 'write_up_frozen', 'wrong_table'],
  },
  removeWriteUp: {
    method: 'DELETE',
    path: '/api/studies/:study/write-ups/:writeUp',
    params: writeUpParams,
    reply: doneSchema,
    problems: [],
  },
  restoreWriteUp: {
    method: 'POST',
    path: '/api/studies/:study/write-ups/:writeUp/restore',
    params: writeUpParams,
    reply: doneSchema,
    problems: [],
  },
  freezeWriteUp: {
    method: 'POST',
    path: '/api/studies/:study/write-ups/:writeUp/freeze',
    params: writeUpParams,
    body: freezeSchema,
    reply: doneSchema,
    problems: ['no_such_difference', 'table_lost', 'too_many_columns', 'wrong_table'],
  },
  keepPicture: {
    method: 'PUT',
    path: '/api/studies/:study/pictures/:picture',
    params: pictureParams,
    body: pictureKeepSchema,
    reply: doneSchema,
    problems: ['not_a_picture'],
  },
  readPicture: {
    method: 'GET',
    path: '/api/studies/:study/pictures/:picture',
    access: 'reading',
    params: pictureParams,
    reply: z.unknown(),
    produces: ['image/png'],
    problems: [],
  },
  downloadWriteUp: {
    method: 'GET',
    path: '/api/studies/:study/write-ups/:writeUp/files/:format',
    access: 'reading',
    params: writeUpFileParams,
    reply: z.unknown(),
    produces: Object.values(TABLE_FILE_TYPES),
    problems: ['no_such_difference', 'too_many_columns', 'wrong_table'],
  },
});
