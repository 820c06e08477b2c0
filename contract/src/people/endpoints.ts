import { defineEndpoints } from '../endpoint.js';
import { doneSchema, studyParams } from '../ids.js';
import {
  auditQuery,
  auditSchema,
  choosePasswordSchema,
  memberCreateSchema,
  memberParams,
  membersSchema,
  oneTimePasswordSchema,
  sessionSchema,
  signInSchema,
} from './records.js';

export const peopleEndpoints = defineEndpoints({
  getAudit: {
    method: 'GET',
    path: '/api/audit',
    query: auditQuery,
    reply: auditSchema,
    problems: [],
  },
  listMembers: {
    method: 'GET',
    path: '/api/studies/:study/members',
    params: studyParams,
    reply: membersSchema,
    problems: [],
  },
  addMember: {
    method: 'POST',
    path: '/api/studies/:study/members',
    params: studyParams,
    body: memberCreateSchema,
    reply: oneTimePasswordSchema,
    problems: ['already_member', 'not_entered_yet'],
  },
  givePassword: {
    method: 'POST',
    path: '/api/studies/:study/members/:member/password',
    params: memberParams,
    reply: oneTimePasswordSchema,
    problems: ['password_of_their_own'],
  },
  removeMember: {
    method: 'DELETE',
    path: '/api/studies/:study/members/:member',
    params: memberParams,
    reply: doneSchema,
    problems: ['last_member', 'not_the_owner'],
  },
  getSession: {
    method: 'GET',
    path: '/api/session',
    reply: sessionSchema,
    problems: [],
  },
  signIn: {
    method: 'POST',
    path: '/api/session',
    body: signInSchema,
    reply: sessionSchema,
    problems: ['wrong_sign_in'],
  },
  enterDemo: {
    method: 'POST',
    path: '/api/session/demo',
    reply: sessionSchema,
    problems: ['demo_not_offered'],
  },
  signOut: {
    method: 'DELETE',
    path: '/api/session',
    reply: doneSchema,
    problems: [],
  },
  choosePassword: {
    method: 'PUT',
    path: '/api/password',
    body: choosePasswordSchema,
    reply: sessionSchema,
    problems: ['weak_password', 'wrong_old_password'],
  },
});
