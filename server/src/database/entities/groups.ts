import type { Rule } from '@yellow-thread/contract';
import { defineEntity, p } from '@mikro-orm/core';

export const GroupEntity = defineEntity({
  name: 'Group',
  tableName: 'saved_group',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    name: p.text(),
    description: p.text(),
    rule: p.json<Rule>(),
    position: p.integer(),
  },
});
