import type { Code, Mention, Note, Theme } from '@yellow-thread/contract';
import type { Coding, GivenCode, SettledAnswer } from '@yellow-thread/core/merge';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  asRecord,
  CodeEntity,
  findNotes,
  rows,
  selectFields,
  ThemeEntity,
} from '../database/index.js';
import { eachPage } from './eachPage.js';
import { FROM_COPY } from './saveCopy.js';

/** The coding of the study that another's is brought into, with the records that it consists of. */
export interface OurSide {
  coding: Coding;
  /** The records, by the ids that they had when the copies parted. */
  records: {
    themes: Map<string, Theme>;
    codes: Map<string, Code>;
    mentions: Map<string, Mention>;
    notes: Map<string, Note>;
  };
  /** Which id a record has here, by the one that it had when the copies parted. */
  idHere: (origin: string) => string;
  /** Accounts by the name under which their work is known on both sides. */
  accounts: Map<string, number>;
  nameOf: (accountId: number) => string;
  /** Questions by number, in their order. */
  questions: { id: number; label: string; wording: string }[];
  /** Answers by their question's number and their respondent's id. */
  answers: Map<string, { id: number; respondentId: number; hash: string }>;
  /** Second readings that were done, as "answer coder". */
  read: Set<string>;
}

export const keyOfAnswer = (questionId: number, externalId: string): string =>
  `${questionId} ${externalId}`;

/** A person's name without what marks an account that was made for a copy. */
export const ownName = (name: string): string => name.replace(FROM_COPY, '');

/** Reads the coding of a study. @param origins what its ids were in the study that was copied first */
export async function readOurSide(
  em: EntityManager,
  studyId: number,
  origins: ReadonlyMap<string, string>,
): Promise<OurSide> {
  const here = new Map([...origins].map(([id, origin]) => [origin, id]));
  const originOf = (id: string): string => origins.get(id) ?? id;
  const byOrigin = <R extends { id: string }>(records: readonly R[]): Map<string, R> =>
    new Map(records.map((record) => [originOf(record.id), record]));
  const { accounts, nameOf } = await readPeopleOf(em, studyId);
  const themes = byOrigin(
    (await em.find(ThemeEntity, { studyId })).map((theme) => asRecord('theme', theme)),
  );
  const codes = byOrigin(
    (await em.find(CodeEntity, { studyId })).map((code) => asRecord('code', code)),
  );
  const mentions = new Map<string, Mention>();
  const given = new Map<string, GivenCode>();
  await eachPage<object>(
    em,
    `select ${selectFields('mention', 'm')} from mention m join code c on c.id = m.code_id
     where c.study_id = :studyId order by m.id`,
    { studyId },
    (page) => {
      for (const one of page) {
        const mention = asRecord('mention', one);
        const { id, responseId, codeId, coderId, start, end, typical } = mention;
        mentions.set(originOf(id), mention);
        given.set(originOf(id), {
          ...{ answer: responseId, codeId: originOf(codeId), coder: nameOf(coderId) },
          ...{ start, end, typical },
        });
      }
    },
  );
  const notes = byOrigin(await findNotes(em, 'n.study_id = :studyId', { studyId }));
  const settlements: SettledAnswer[] = [];
  await eachPage<{ answer: number; coderId: number }>(
    em,
    `select t.response_id as answer, t.coder_id as "coderId" from settlement t
     join response r on r.id = t.response_id join question q on q.id = r.question_id
     where q.study_id = :studyId order by t.response_id, t.coder_id`,
    { studyId },
    (page) => {
      for (const { answer, coderId } of page) settlements.push({ answer, coder: nameOf(coderId) });
    },
  );
  const coding: Coding = {
    themes,
    codes: new Map(
      [...codes].map(([id, code]) => [
        id,
        { ...fieldsOf(code), themeId: code.themeId && originOf(code.themeId) },
      ]),
    ),
    mentions: given,
    settlements,
    notes: new Map([...notes].map(([id, note]) => [id, { ...note }])),
  };
  return {
    ...{ coding, accounts, nameOf },
    records: { themes, codes, mentions, notes },
    idHere: (origin) => here.get(origin) ?? origin,
    ...(await readAnswersOf(em, studyId, nameOf)),
  };
}

export const fieldsOf = ({ name, themeId, definition, include, exclude, archived }: Code) => ({
  ...{ name, themeId, definition, include, exclude, archived },
});

/** Who worked on the study or may, by the name under which others know them. */
async function readPeopleOf(em: EntityManager, studyId: number) {
  const found = await rows<{ id: number; name: string; isHere: boolean }>(
    em,
    `select a.id, a.name, exists (
         select 1 from membership m where m.study_id = :studyId and m.account_id = a.id) as "isHere"
     from account a where a.id in (
       select account_id from membership where study_id = :studyId
       union select account_id from change where study_id = :studyId
       union select reader_id from second_reading where study_id = :studyId
       union select author_id from note where study_id = :studyId
       union select m.coder_id from mention m join code c on c.id = m.code_id where c.study_id = :studyId
       union select t.coder_id from settlement t join response r on r.id = t.response_id
         join question q on q.id = r.question_id where q.study_id = :studyId)
     order by "isHere", a.id`,
    { studyId },
  );
  const names = new Map(found.map(({ id, name }) => [id, ownName(name)]));
  return {
    // whoever is in the team stands for themselves, where a copy brought the same name
    accounts: new Map(found.map(({ id, name }) => [ownName(name), id])),
    nameOf: (id: number): string => names.get(id) ?? '',
  };
}

async function readAnswersOf(
  em: EntityManager,
  studyId: number,
  nameOf: (accountId: number) => string,
): Promise<Pick<OurSide, 'questions' | 'answers' | 'read'>> {
  const questions = await rows<OurSide['questions'][number]>(
    em,
    'select id, label, wording from question where study_id = :studyId order by position, id',
    { studyId },
  );
  const answers: OurSide['answers'] = new Map();
  await eachPage<{
    id: number;
    questionId: number;
    respondentId: number;
    externalId: string;
    hash: string;
  }>(
    em,
    `select r.id, r.question_id as "questionId", r.respondent_id as "respondentId",
       p.external_id as "externalId", md5(r.text) as hash
     from response r join respondent p on p.id = r.respondent_id
     where p.study_id = :studyId order by r.id`,
    { studyId },
    (page) => {
      for (const { questionId, externalId, ...answer } of page)
        answers.set(keyOfAnswer(questionId, externalId), answer);
    },
  );
  const read = await rows<{ responseId: number; readerId: number }>(
    em,
    `select a.response_id as "responseId", d.reader_id as "readerId"
     from second_reading_answer a join second_reading d on d.id = a.reading_id
     where d.study_id = :studyId and a.second_codes is not null`,
    { studyId },
  );
  return {
    questions,
    answers,
    read: new Set(read.map(({ responseId, readerId }) => `${responseId} ${nameOf(readerId)}`)),
  };
}
