import type { AnswersBehind, Role, WriteUp, WriteUpNode } from '@yellow-thread/contract';
import { maskDetails } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, StudyEntity } from '../database/index.js';

/** Makes a text what a reader may see of it. */
type ReaderMask = (text: string) => string;

/**
 * How texts are masked for whoever asks: contact details, and the names that any write-up of the study lists. Null where
 * they see them as they are.
 */
export async function readerMask(
  em: EntityManager,
  studyId: number,
  role: Role | null,
): Promise<ReaderMask | null> {
  if (role !== 'reader') return null;
  const { masksForReaders } = await em.findOneOrFail(StudyEntity, studyId);
  if (!masksForReaders) return null;
  const listed = await rows<{ name: string }>(
    em,
    `select distinct jsonb_array_elements_text(content->'names') as name from write_up
     where study_id = :studyId and jsonb_typeof(content->'names') = 'array'`,
    { studyId },
  );
  const names = listed.map(({ name }) => name);
  return (text) => maskDetails(text, names);
}

/** A write-up as a reader may see it: its text masked, without quotes to choose from and the names that are masked. */
export function maskWriteUp(writeUp: WriteUp, mask: ReaderMask): WriteUp {
  const masked = (node: WriteUpNode): WriteUpNode => ({
    ...node,
    ...(node.text !== undefined && { text: mask(node.text) }),
    ...(node.content && { content: node.content.map(masked) }),
  });
  const { body } = writeUp.content;
  return {
    ...writeUp,
    name: mask(writeUp.name),
    quotes: [],
    content: { ...writeUp.content, names: [], drafted: [], body: body && masked(body) },
  };
}

/** Answers behind a number as readers see them: without what coders note for each other, masked where that is asked for. */
export const behindForReaders = (
  behind: AnswersBehind,
  mask: ReaderMask | null,
): AnswersBehind => ({
  ...behind,
  answers: behind.answers.map((answer) => ({
    ...answer,
    notes: [],
    ...(mask && {
      text: mask(answer.text),
      externalId: '',
      // their places are those of the text before it was masked
      mentions: answer.mentions.map((mention) => ({ ...mention, start: null, end: null })),
    }),
  })),
});
