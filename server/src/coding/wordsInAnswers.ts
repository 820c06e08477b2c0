import type { LedgerQuery } from '@yellow-thread/contract';
import { blankAsides, hitMustHold, hitTester, isAscii } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { StudyEntity } from '../database/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { textsInLots, type AnswerTexts, type QuestionAnswers } from './answerCache.js';

/**
 * Which of some answers hold the words asked for. What the interviewer said is not what was answered.
 *
 * @param chosen where the answers stand among those of their question
 */
export async function answersHolding(
  em: EntityManager,
  {
    studyId,
    answers,
    chosen,
    query: { words, match },
  }: {
    studyId: number;
    answers: QuestionAnswers;
    chosen: Int32Array;
    query: Pick<LedgerQuery, 'words' | 'match'>;
  },
): Promise<Int32Array> {
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const isIn = hitTester(words, match);
  const mustHold = hitMustHold(words, match).toLowerCase();
  const isChosen = new Uint8Array(answers.ids.length);
  for (const i of chosen) isChosen[i] = 1;
  const holding = new Uint8Array(answers.ids.length);
  const slice = startTimeSlice();
  const look = async (texts: AnswerTexts) => {
    for (const t of mayHold(texts, mustHold)) {
      if (slice.isOver()) await slice.next();
      const i = texts.indices[t]!;
      if (!isChosen[i]) continue;
      const text = texts.bytes.toString('utf8', texts.starts[t], texts.starts[t + 1]);
      holding[i] = isIn(blankAsides(text, asides)) ? 1 : 0;
    }
  };
  const kept = await answers.texts(em);
  if (kept) await look(kept);
  else for await (const lot of textsInLots(em, answers, chosen)) await look(lot);
  return chosen.filter((i) => holding[i]);
}

/** Texts that can hold some characters: those of ASCII that have them, and all in which a letter may be another's case. */
function* mayHold({ bytes, starts, isAscii: plain }: AnswerTexts, characters: string) {
  const needle = isAscii(characters) ? Buffer.from(characters) : null;
  let found = needle ? bytes.indexOf(needle) : -1;
  for (let t = 0; t < plain.length; t++) {
    if (needle && found >= 0 && found < starts[t]!) found = bytes.indexOf(needle, starts[t]);
    const isHere = needle !== null && found >= 0 && found + needle.length <= starts[t + 1]!;
    if (isHere || !plain[t]) yield t;
  }
}
