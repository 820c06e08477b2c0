import { defineEntity, p } from '@mikro-orm/core';

export const GlossaryTermEntity = defineEntity({
  name: 'GlossaryTerm',
  tableName: 'glossary_term',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    term: p.text(),
    meaning: p.text(),
  },
});
