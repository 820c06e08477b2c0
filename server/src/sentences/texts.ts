import { linesOf, type Cut } from '@yellow-thread/core/coding';
import { codebookTexts } from '@yellow-thread/core/learning';
import { blankAsides, withoutWords } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { CodeEntity, cutsAsJson, rows, StudyEntity } from '../database/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { hashOf, readable } from './storedVectors.js';

/** A text that is read for meaning, and what its vector is kept under. */
export interface TextToRead {
  text: string;
  hash: Buffer;
  /** Whether it is an answer as a whole, and not a line or what the codebook says. */
  isAnswer: boolean;
}

/**
 * What is read for meaning in a study, each different text once: answers, their lines where they have several, both
 * without excluded words, and what the codebook says of codes.
 *
 * @param questionId of whose answers alone; of all questions where there is none
 */
export async function textsToRead(
  em: EntityManager,
  studyId: number,
  questionId: number | null = null,
): Promise<TextToRead[]> {
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const stored = await rows<{ text: string; cuts: Cut[] | null }>(
    em,
    `select r.text, ${cutsAsJson} as cuts from response r join question q on q.id = r.question_id
     where q.study_id = :studyId and not r.no_answer and (:questionId::int is null or q.id = :questionId)
     order by r.id`,
    { studyId, questionId },
  );
  const excluded = await excludedSets(em, studyId);
  const found = new Map<string, TextToRead>();
  const add = (from: string, isAnswer: boolean) => {
    const text = readable(from);
    if (text === '' || (found.has(text) && !isAnswer)) return;
    found.set(text, found.get(text) ?? { text, hash: hashOf(text), isAnswer });
    if (isAnswer) found.get(text)!.isAnswer = true;
  };
  const addWithout = (text: string) => {
    for (const words of excluded) add(withoutWords(text, words), false);
  };
  const slice = startTimeSlice();
  for (const { text, cuts } of stored) {
    const whole = blankAsides(text, asides);
    add(whole, true);
    addWithout(whole);
    const lines = linesOf(text, asides, cuts ?? []).filter((line) => !line.isAside);
    if (lines.length > 1)
      for (const { start, end } of lines) {
        add(whole.slice(start, end), false);
        addWithout(whole.slice(start, end));
      }
    if (slice.isOver()) await slice.next();
  }
  for (const code of await em.find(CodeEntity, { studyId, archived: false }))
    for (const text of codebookTexts(code)) {
      add(text, false);
      addWithout(text);
    }
  return [...found.values()];
}

/** The sets of words that models of some code read texts without. */
async function excludedSets(em: EntityManager, studyId: number): Promise<Set<string>[]> {
  const words = await rows<{ word: string; codeId: string | null }>(
    em,
    'select word, code_id as "codeId" from excluded_word where study_id = :studyId',
    { studyId },
  );
  const everywhere = words.flatMap(({ word, codeId }) => (codeId === null ? [word] : []));
  const codeIds = new Set(words.map(({ codeId }) => codeId));
  return [...codeIds].map(
    (code) =>
      new Set([
        ...everywhere,
        ...words.flatMap(({ word, codeId }) => (codeId === code ? [word] : [])),
      ]),
  );
}
