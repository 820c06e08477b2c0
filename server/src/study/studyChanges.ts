import type { StudyChange } from '@yellow-thread/contract';
import { isNoAnswer, longestNoAnswer, noAnswerKeys } from '@yellow-thread/core/sheet';
import { blankAsides } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  makeChange,
  QuestionEntity,
  rows,
  StudyEntity,
  type QuestionRecord,
} from '../database/index.js';
import type { Maker } from '../people/index.js';
import { countAnswers } from './studies.js';
import { problems } from '../wording/problems.js';
import { studyChangesTexts } from '../wording/study.js';

/** Changes what a study is called, what it is for, how the interviewer's words are marked, or which words are set aside. */
export async function changeStudy(em: EntityManager, maker: Maker, change: StudyChange) {
  await em.transactional(async (tx) => {
    const { id, name, purpose, asides, setAside } = await tx.findOneOrFail(
      StudyEntity,
      maker.studyId,
    );
    const from = { id, name, purpose, asides, setAside: setAside ?? null };
    const to = {
      id,
      name: change.name ?? name,
      purpose: change.purpose ?? purpose,
      asides: change.asides ?? asides,
      setAside: change.setAside ?? setAside ?? null,
    };
    await makeChange(tx, {
      ...maker,
      summary: change.setAside
        ? studyChangesTexts.settingWordsAside
        : studyChangesTexts.changingStudy,
      diff: { study: { added: [], removed: [], updated: [{ from, to }] } },
    });
  });
  if (change.asides) await sortResponses(em, maker.studyId);
}

const recordOf = ({ id, studyId, position, label, wording }: QuestionRecord): QuestionRecord => ({
  id,
  studyId,
  position,
  label,
  wording,
});

export async function changeQuestion(
  em: EntityManager,
  maker: Maker,
  id: number,
  change: { label?: string | undefined; wording?: string | undefined },
) {
  await em.transactional(async (tx) => {
    const found = await tx.findOne(QuestionEntity, { id, studyId: maker.studyId });
    if (!found) throw problems.notFound('question');
    const from = recordOf(found);
    const wording = change.wording ?? from.wording;
    const taken = await tx.count(QuestionEntity, {
      studyId: maker.studyId,
      wording,
      id: { $ne: id },
    });
    if (taken > 0) throw problems.nameTaken('question', wording);
    await makeChange(tx, {
      ...maker,
      summary: studyChangesTexts.changingQuestion(from.label),
      diff: {
        question: {
          added: [],
          removed: [],
          updated: [{ from, to: { ...from, wording, label: change.label ?? from.label } }],
        },
      },
    });
  });
}

/** Puts the questions of a study into this order. */
export async function orderQuestions(em: EntityManager, maker: Maker, ids: readonly number[]) {
  await em.transactional(async (tx) => {
    const found = await tx.find(QuestionEntity, { studyId: maker.studyId });
    const places = new Map(ids.map((id, position) => [id, position]));
    if (places.size !== found.length || found.some(({ id }) => !places.has(id)))
      throw problems.changedMeanwhile();
    const updated = found.map(recordOf).flatMap((from) => {
      const to = { ...from, position: places.get(from.id)! };
      return to.position === from.position ? [] : [{ from, to }];
    });
    await makeChange(tx, {
      ...maker,
      summary: studyChangesTexts.orderingQuestions,
      diff: { question: { added: [], removed: [], updated } },
    });
  });
}

/** Changes the study's list of what says nothing, and sorts its responses again by it. */
export async function changeNoAnswers(em: EntityManager, studyId: number, noAnswers: string[]) {
  await em.nativeUpdate(StudyEntity, { id: studyId }, { noAnswers });
  return sortResponses(em, studyId);
}

/**
 * Decides again which responses say nothing. What is coded or settled stays an answer: that somebody read
 * and decided.
 */
async function sortResponses(em: EntityManager, studyId: number) {
  return em.transactional(async (tx) => {
    const { noAnswers, asides } = await tx.findOneOrFail(
      StudyEntity,
      { id: studyId },
      { refresh: true },
    );
    const questions = await tx.find(QuestionEntity, { studyId });
    const result = { becameAnswers: 0, becameNoAnswers: 0, keptCoded: 0 };
    for (const { id, answersDespite } of questions) {
      const all = noAnswerKeys(noAnswers);
      const despite = noAnswerKeys(answersDespite);
      const keys = {
        ...all,
        keys: new Set([...all.keys].filter((key) => !despite.keys.has(key))),
      };
      const marked = asides.brackets.length + asides.leading.length > 0;
      const responses = await rows<{ id: number; text: string; noAnswer: boolean }>(
        tx,
        // what is too long to be on the list says something, unless some of it is the interviewer's
        `select id, text, no_answer as "noAnswer" from response
         where question_id = :id and (no_answer or :marked or length(text) <= :keys or text !~ '[[:alnum:]]')`,
        { id, marked, keys: longestNoAnswer(keys) },
      );
      const turned = responses.flatMap(({ id, text, noAnswer }) => {
        const now = isNoAnswer(blankAsides(text, asides), keys);
        return now === noAnswer ? [] : [{ id, noAnswer: now }];
      });
      const coded = await codedAmong(
        tx,
        turned.filter((one) => one.noAnswer).map((one) => one.id),
      );
      const changed = turned.filter((one) => !coded.has(one.id));
      const became = changed.filter((one) => one.noAnswer).length;
      result.keptCoded += coded.size;
      result.becameNoAnswers += became;
      result.becameAnswers += changed.length - became;
      await rows(
        tx,
        `update response r set no_answer = c."noAnswer"
         from jsonb_to_recordset(:changed::jsonb) as c (id int, "noAnswer" boolean) where r.id = c.id`,
        { changed: JSON.stringify(changed) },
      );
    }
    await countAnswers(tx, studyId);
    return result;
  });
}

/** Which of these responses are coded or settled. */
async function codedAmong(em: EntityManager, ids: readonly number[]): Promise<Set<number>> {
  const coded = await rows<{ id: number }>(
    em,
    `select response_id as id from mention where response_id = any(:ids::int[])
     union select response_id from settlement where response_id = any(:ids::int[])`,
    { ids },
  );
  return new Set(coded.map((one) => one.id));
}
