import { defineEntity, p } from '@mikro-orm/core';

export const SentenceVectorEntity = defineEntity({
  name: 'SentenceVector',
  tableName: 'sentence_vector',
  properties: {
    studyId: p.integer().primary().autoincrement(false),
    /** Which encoder, and which of its versions. */
    encoder: p.text().primary(),
    /** Of the text as it is read: see `hashOf`. */
    textHash: p.blob().$type<Buffer>().primary(),
    /** As `packVector` makes it; null for a text that the encoder does not read. */
    vector: p.blob().$type<Buffer>().nullable(),
  },
});
