import type { ListedNote, Note, NoteCreate, ShownNote } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { findCode } from '../codebook/index.js';
import { findNotes, inChange, makeChange, rows, RespondentEntity } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { findResponse, notesAsJson } from '../coding/index.js';
import { notesTexts } from '../wording/coding.js';

/** All notes of a study, newest first, with what they are on. */
export async function readNotes(em: EntityManager, studyId: number) {
  const notes = await rows<{ note: ShownNote; on: ListedNote['on'] }>(
    em,
    `select (${notesAsJson('n.id = one.id')})->0 as note,
       case when one.code_id is null then jsonb_build_object(
         'externalId', p.external_id, 'questionId', r.question_id,
         'words', case when one.start is null then r.text
           else substr(r.text, one.start + 1, one."end" - one.start) end) end as on
     from note one left join response r on r.id = one.response_id
     left join respondent p on p.id = coalesce(one.respondent_id, r.respondent_id)
     where one.study_id = :studyId order by one.created_at desc, one.id`,
    { studyId },
  );
  return { notes: notes.map(({ note, on }) => ({ ...note, on })) };
}

/** Writes a note, a mark or an "unsure"; a request that comes twice does so once. */
export async function addNote(em: EntityManager, maker: Maker, create: NoteCreate) {
  await inChange(em, async (tx) => {
    if (await findNote(tx, maker.studyId, create.id)) return;
    if (create.responseId !== null) {
      const response = await findResponse(tx, maker.studyId, create.responseId);
      if (create.end !== null && create.end > response.text.length) throw problems.passageOutside();
    }
    if (create.codeId !== null) await findCode(tx, maker.studyId, create.codeId);
    if (create.respondentId !== null) {
      const known = await tx.count(RespondentEntity, {
        id: create.respondentId,
        studyId: maker.studyId,
      });
      if (!known) throw problems.notFound('respondent');
    }
    const note: Note = {
      ...create,
      studyId: maker.studyId,
      authorId: maker.accountId,
      createdAt: new Date().toISOString(),
    };
    await makeChange(tx, {
      ...maker,
      summary: summaryOf('', note),
      diff: { note: { added: [note], updated: [], removed: [] } },
    });
  });
}

/** Changes the text of a note that is still as its editor saw it. */
export async function editNote(
  em: EntityManager,
  maker: Maker,
  id: string,
  edit: { from: Pick<Note, 'text' | 'unsure'>; to: Pick<Note, 'text' | 'unsure'> },
) {
  await inChange(em, async (tx) => {
    const stored = await findNote(tx, maker.studyId, id);
    if (!stored) throw problems.notFound('note');
    // sent twice: the first time did it
    if (stored.text === edit.to.text && stored.unsure === edit.to.unsure) return;
    const updated = [{ from: { ...stored, ...edit.from }, to: { ...stored, ...edit.to } }];
    await makeChange(tx, {
      ...maker,
      summary: summaryOf(notesTexts.edit, stored),
      diff: { note: { added: [], updated, removed: [] } },
    });
  });
}

export async function removeNote(em: EntityManager, maker: Maker, id: string) {
  await inChange(em, async (tx) => {
    const note = await findNote(tx, maker.studyId, id);
    if (!note) return;
    await makeChange(tx, {
      ...maker,
      summary: summaryOf(notesTexts.removal, note),
      diff: { note: { added: [], updated: [], removed: [note] } },
    });
  });
}

const summaryOf = (what: string, { text, unsure }: Note) =>
  what + (unsure ? notesTexts.unsure : text === '' ? 'a mark' : 'a note');

async function findNote(em: EntityManager, studyId: number, id: string): Promise<Note | null> {
  const [note] = await findNotes(em, 'n.id = :id and n.study_id = :studyId', { id, studyId });
  return note ?? null;
}
