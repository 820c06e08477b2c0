import type { GlossaryTerm } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { asRecord, GlossaryTermEntity, inChange, makeChange, rows } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { glossaryTexts } from '../wording/assistant.js';
import { problems } from '../wording/problems.js';

export async function readGlossary(em: EntityManager, studyId: number): Promise<GlossaryTerm[]> {
  const terms = await em.find(GlossaryTermEntity, { studyId }, { orderBy: { term: 'asc' } });
  return terms.map((term) => asRecord('glossary_term', term));
}

/** Explains a word or changes what was said of it; a request that comes twice does so once. @throws Problem name_taken */
export async function putTerm(
  em: EntityManager,
  maker: Maker,
  wanted: Omit<GlossaryTerm, 'studyId'>,
): Promise<void> {
  await inChange(em, async (tx) => {
    const { studyId } = maker;
    const { id, term } = wanted;
    const [taken] = await rows(
      tx,
      `select 1 from glossary_term
       where study_id = :studyId and lower(term) = lower(:term) and id <> :id`,
      { studyId, term, id },
    );
    if (taken) throw problems.nameTaken('term', term);
    const stored = await tx.findOne(GlossaryTermEntity, { id });
    if (stored && stored.studyId !== studyId) throw problems.notFound('term');
    const from = stored && asRecord('glossary_term', stored);
    const to = { ...wanted, studyId };
    if (from?.term === term && from.meaning === to.meaning) return;
    await makeChange(tx, {
      ...maker,
      summary: glossaryTexts.term(term),
      diff: {
        glossary_term: from
          ? { added: [], updated: [{ from, to }], removed: [] }
          : { added: [to], updated: [], removed: [] },
      },
    });
  });
}

export async function removeTerm(em: EntityManager, maker: Maker, id: string): Promise<void> {
  await inChange(em, async (tx) => {
    const stored = await tx.findOne(GlossaryTermEntity, { id, studyId: maker.studyId });
    if (!stored) throw problems.notFound('term');
    await makeChange(tx, {
      ...maker,
      summary: glossaryTexts.removal(stored.term),
      diff: {
        glossary_term: { added: [], updated: [], removed: [asRecord('glossary_term', stored)] },
      },
    });
  });
}
