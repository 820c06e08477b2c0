import { defineEntity, p } from '@mikro-orm/core';

export const AnswerClusterEntity = defineEntity({
  name: 'AnswerCluster',
  tableName: 'answer_cluster',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    questionId: p.integer(),
    state: p.text(),
    name: p.text(),
    responseIds: p.json<number[]>(),
  },
});

export const GatheredAnswersEntity = defineEntity({
  name: 'GatheredAnswers',
  tableName: 'gathered_answers',
  properties: {
    questionId: p.integer().primary().autoincrement(false),
    asked: p.text(),
    clusters: p.json<unknown>(),
  },
});
