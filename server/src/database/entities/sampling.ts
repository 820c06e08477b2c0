import { defineEntity, p } from '@mikro-orm/core';

export const SampleEntity = defineEntity({
  name: 'Sample',
  tableName: 'sample',
  properties: {
    id: p.integer().primary().autoincrement(),
    questionId: p.integer(),
    kind: p.text(),
    seed: p.integer(),
    drawnAt: p.datetime().defaultRaw('now()'),
    variableId: p.integer().nullable(),
  },
});

export const AssignmentEntity = defineEntity({
  name: 'Assignment',
  tableName: 'assignment',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    questionId: p.integer(),
    coderId: p.integer(),
    responseIds: p.json<number[]>(),
    assignedBy: p.integer(),
    assignedAt: p.datetime(),
  },
});

export const SampleMemberEntity = defineEntity({
  name: 'SampleMember',
  tableName: 'sample_member',
  properties: {
    sampleId: p.integer().primary(),
    responseId: p.integer().primary(),
  },
});
