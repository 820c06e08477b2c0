import type { ExcludeWord } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { findCode } from '../codebook/index.js';
import { asRecord, inChange, makeChange, ExcludedWordEntity } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { excludedWordsTexts } from '../wording/learning.js';

/** Takes a word's effect away, from the next training on; for one code or for all. Twice is once. */
export async function excludeWord(em: EntityManager, maker: Maker, word: ExcludeWord) {
  const { studyId } = maker;
  await inChange(em, async (tx) => {
    const of =
      word.codeId === null
        ? excludedWordsTexts.everyCode
        : `“${(await findCode(tx, studyId, word.codeId)).name}”`;
    const same = { studyId, word: word.word, codeId: word.codeId };
    if (await tx.count(ExcludedWordEntity, { $or: [{ id: word.id }, same] })) return;
    await makeChange(tx, {
      ...maker,
      summary: excludedWordsTexts.excluding(word.word, of),
      diff: { excluded_word: { added: [{ ...word, studyId }], updated: [], removed: [] } },
    });
  });
}

/** Gives a word its effect back. */
export async function includeWord(em: EntityManager, maker: Maker, id: string) {
  await inChange(em, async (tx) => {
    const excluded = await tx.findOne(ExcludedWordEntity, { id, studyId: maker.studyId });
    if (!excluded) return;
    await makeChange(tx, {
      ...maker,
      summary: excludedWordsTexts.bringingBack(excluded.word),
      diff: {
        excluded_word: { added: [], updated: [], removed: [asRecord('excluded_word', excluded)] },
      },
    });
  });
}
