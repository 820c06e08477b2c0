import type { ExcludeWord, ExcludedWord } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { findCode } from '../codebook/index.js';
import { inChange, makeChange, rows } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { excludedWordsTexts } from '../wording/learning.js';

/** Takes a word's effect away, from the next training on; for one code or for all. Twice is once. */
export async function excludeWord(em: EntityManager, maker: Maker, strike: ExcludeWord) {
  const { studyId } = maker;
  await inChange(em, async (tx) => {
    const of =
      strike.codeId === null
        ? excludedWordsTexts.everyCode
        : `“${(await findCode(tx, studyId, strike.codeId)).name}”`;
    const known = await rows(
      tx,
      `select 1 from struck_word where id = :id
         or (study_id = :studyId and word = :word and code_id is not distinct from :codeId::uuid)`,
      { id: strike.id, studyId, word: strike.word, codeId: strike.codeId },
    );
    if (known.length > 0) return;
    await makeChange(tx, {
      ...maker,
      summary: excludedWordsTexts.strikingOut(strike.word, of),
      diff: { struck_word: { added: [{ ...strike, studyId }], updated: [], removed: [] } },
    });
  });
}

/** Gives a word its effect back. */
export async function includeWord(em: EntityManager, maker: Maker, id: string) {
  await inChange(em, async (tx) => {
    const [struck] = await rows<ExcludedWord>(
      tx,
      `select id, study_id as "studyId", code_id as "codeId", word from struck_word
       where id = :id and study_id = :studyId`,
      { id, studyId: maker.studyId },
    );
    if (!struck) return;
    await makeChange(tx, {
      ...maker,
      summary: excludedWordsTexts.bringingBack(struck.word),
      diff: { struck_word: { added: [], updated: [], removed: [struck] } },
    });
  });
}
