import { randomUUID } from 'node:crypto';
import type {
  Agreement,
  DifferingAnswer,
  ListedReading,
  MeasuredAgreement,
  Mention,
  SecondReadingAnswer,
  DisagreementResolution,
} from '@yellow-thread/contract';
import {
  alphaOfCode,
  alphaOfSets,
  compareCoders,
  stateOfAgreement,
  type CodesOf,
} from '@yellow-thread/core/agreement';
import type { EntityManager } from '@mikro-orm/postgresql';
import { findCode } from '../codebook/index.js';
import { findMentions, findReadingAnswers, inChange, makeChange, rows } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { findReading, findReadings } from './readings.js';
import { comparisonTexts } from '../wording/agreement.js';

interface NamedCode {
  name: string;
  themeId: string | null;
  archived: boolean;
  /** Questions whose answers it can be given to; null for all. */
  questions: number[] | null;
}
type Names = ReadonlyMap<string, NamedCode>;

/** A study's codes, by id and in the order of the codebook. */
async function readNames(em: EntityManager, studyId: number): Promise<Names> {
  const codes = await rows<NamedCode & { id: string }>(
    em,
    `select c.id, c.name, c.theme_id as "themeId", c.archived, c.questions
     from code c left join theme t on t.id = c.theme_id
     where c.study_id = :studyId order by t.position nulls last, c.position, c.id`,
    { studyId },
  );
  return new Map(codes.map(({ id, ...code }) => [id, code]));
}

/** What both gave an answer; codes that are no longer in the codebook are left out. */
function labelSetsOf(
  { firstCodes, secondCodes }: SecondReadingAnswer,
  names: Names,
): readonly [CodesOf, CodesOf] {
  const known = (codes: readonly string[]) => new Set(codes.filter((code) => names.has(code)));
  return [known(firstCodes), known(secondCodes ?? [])];
}

/**
 * How far a second reading agrees with the first, or with another reading of the same answers.
 *
 * @param against the other reading
 * @throws Problem not_found, reading_under_way
 */
export async function readAgreement(
  em: EntityManager,
  { studyId, questionId, id }: { studyId: number; questionId: number; id: string },
  against?: string,
): Promise<Agreement> {
  const done = await findDone(em, questionId, id);
  const names = await readNames(em, studyId);
  const own = await findReadingAnswers(em, 'd.id = :id', { id });
  const other = against === undefined ? null : await findDone(em, questionId, against);
  const answers = other ? await betweenReadings(em, own, other.id) : own;
  const reading = other ? { ...done, firstCoders: [other.reader] } : done;
  const { codes, overall, ...rest } = compare(answers, names, questionId);
  return {
    reading,
    ...rest,
    codes: codes.map((one) => ({ ...one, state: stateOfAgreement(one) })),
    themes: compareThemes(answers, names).map(({ codeId, ...one }) => ({
      themeId: codeId,
      ...one,
      state: stateOfAgreement(one),
    })),
    overall: { ...overall, state: stateOfAgreement(overall) },
    everybody: await readEverybody(em, questionId, reading, names),
    differing: await readDiffering(em, answers, names),
    others: await findOthers(em, questionId, id),
  };
}

/** @throws Problem not_found, reading_under_way */
async function findDone(em: EntityManager, questionId: number, id: string): Promise<ListedReading> {
  const reading = await findReading(em, questionId, id);
  const { read, size, reader } = reading;
  if (read < size) throw problems.readingUnderWay(size - read, reader);
  return reading;
}

/** The answers that two readings have in common, how the other one coded them in place of the first coding. */
async function betweenReadings(
  em: EntityManager,
  own: readonly SecondReadingAnswer[],
  otherId: string,
): Promise<SecondReadingAnswer[]> {
  const other = await findReadingAnswers(em, 'd.id = :otherId', { otherId });
  const codesOf = new Map(other.map(({ responseId, secondCodes }) => [responseId, secondCodes]));
  return own.flatMap((answer) => {
    const firstCodes = codesOf.get(answer.responseId);
    return firstCodes ? [{ ...answer, firstCodes, verdicts: {} }] : [];
  });
}

/** Other readings that are done and have some of the answers of one. */
const findOthers = (
  em: EntityManager,
  questionId: number,
  id: string,
): Promise<Agreement['others']> =>
  rows(
    em,
    `select d.id, b.name as reader, count(*)::int as answers
     from second_reading d join account b on b.id = d.reader_id
     join second_reading_answer a on a.reading_id = d.id
     where d.question_id = :questionId and d.id <> :id
       and a.response_id in (select response_id from second_reading_answer where reading_id = :id)
       and not exists (select 1 from second_reading_answer u
         where u.reading_id = d.id and u.second_codes is null)
     group by d.id, b.name order by b.name, d.id`,
    { questionId, id },
  );

/** Over the codes that could be given to answers of the question, and those that were. */
function compare(answers: SecondReadingAnswer[], names: Names, questionId: number) {
  const sets = answers.map((answer) => labelSetsOf(answer, names));
  const used = new Set(sets.flat().flatMap((codes) => [...codes]));
  const isOffered = ({ archived, questions }: NamedCode) =>
    !archived && (questions === null || questions.includes(questionId));
  const offered = [...names].filter(([id, code]) => used.has(id) || isOffered(code));
  return compareCoders(
    sets,
    offered.map(([id]) => id),
  );
}

/** The same of themes, each as if it were one code: whether any code of it was given. */
function compareThemes(answers: SecondReadingAnswer[], names: Names) {
  const themesOf = (codes: CodesOf) =>
    new Set([...codes].flatMap((code) => names.get(code)?.themeId ?? []));
  const themes = new Set([...names.values()].flatMap(({ themeId }) => themeId ?? []));
  return compareCoders(
    answers.map((answer) => {
      const [first, second] = labelSetsOf(answer, names);
      return [themesOf(first), themesOf(second)] as const;
    }),
    [...themes],
  ).codes;
}

/** Agreement of all who coded the answers of a reading, where others than its reader read some of them too. */
async function readEverybody(
  em: EntityManager,
  questionId: number,
  { id, readerId }: ListedReading,
  names: Names,
): Promise<Agreement['everybody']> {
  const found = await rows<{ readerId: number; responseId: number }>(
    em,
    `select d.reader_id as "readerId", a.response_id as "responseId"
     from second_reading_answer a join second_reading d on d.id = a.reading_id
     where d.question_id = :questionId and a.second_codes is not null and d.reader_id <> :readerId
       and a.response_id in (select response_id from second_reading_answer where reading_id = :id)
       and not exists (select 1 from second_reading_answer u
         where u.reading_id = d.id and u.second_codes is null)`,
    { questionId, readerId, id },
  );
  if (found.length === 0) return null;
  const wanted = found.map(({ responseId }) => responseId);
  const all = await findReadingAnswers(
    em,
    `d.question_id = :questionId and a.second_codes is not null and (d.id = :id or a.response_id = any(:wanted::int[]))`,
    { questionId, id, wanted },
  );
  const units = new Map<number, CodesOf[]>();
  for (const answer of all) {
    const [first, second] = labelSetsOf(answer, names);
    units.set(answer.responseId, [...(units.get(answer.responseId) ?? [first]), second]);
  }
  const sets = [...units.values()];
  const used = new Set(sets.flat().flatMap((codes) => [...codes]));
  return {
    coders: new Set(found.map((one) => one.readerId)).size + 2,
    alphaOfSets: alphaOfSets(sets),
    codes: Object.fromEntries([...used].map((code) => [code, alphaOfCode(sets, code)])),
  };
}

/** The answers on which the two differ, with what was decided since. */
async function readDiffering(
  em: EntityManager,
  answers: SecondReadingAnswer[],
  names: Names,
): Promise<DifferingAnswer[]> {
  const differing = answers.flatMap((answer) => {
    const [first, second] = labelSetsOf(answer, names);
    const either = [...names.keys()].filter((code) => first.has(code) || second.has(code));
    const codes = either
      .filter((code) => first.has(code) !== second.has(code))
      .map((codeId) => ({
        codeId,
        by: first.has(codeId) ? ('first' as const) : ('second' as const),
        applies: answer.verdicts[codeId] ?? null,
      }));
    const both = either.filter((code) => first.has(code) && second.has(code));
    return codes.length === 0 ? [] : [{ responseId: answer.responseId, both, codes }];
  });
  const texts = await rows<Omit<DifferingAnswer, 'both' | 'codes'>>(
    em,
    `select r.id as "responseId", p.external_id as "externalId", p.background, r.text
     from response r join respondent p on p.id = r.respondent_id where r.id = any(:differing::int[])`,
    { differing: differing.map(({ responseId }) => responseId) },
  );
  const byId = new Map(texts.map((text) => [text.responseId, text]));
  return differing.flatMap((one) => {
    const text = byId.get(one.responseId);
    return text ? [{ ...text, ...one }] : [];
  });
}

/**
 * Settles a disagreement as it was discussed: the code stands in the answer afterwards, or it does not.
 *
 * @throws Problem reading_under_way, not_found when the two do not differ on that code
 */
export async function settleDisagreement(
  em: EntityManager,
  {
    maker,
    questionId,
    id,
    resolution: { responseId, codeId, applies },
  }: { maker: Maker; questionId: number; id: string; resolution: DisagreementResolution },
): Promise<void> {
  await inChange(em, async (tx) => {
    const { read, size, reader } = await findReading(tx, questionId, id);
    if (read < size) throw problems.readingUnderWay(size - read, reader);
    const code = await findCode(tx, maker.studyId, codeId);
    const [from] = await findReadingAnswers(tx, 'd.id = :id and a.response_id = :responseId', {
      id,
      responseId,
    });
    const isDisputed = from?.firstCodes.includes(codeId) !== from?.secondCodes?.includes(codeId);
    if (!from || !isDisputed) throw problems.notFound('disagreement');
    const standing = await findMentions(tx, 'm.code_id = :codeId and m.response_id = :responseId', {
      codeId,
      responseId,
    });
    const mention: Mention = {
      id: randomUUID(),
      responseId,
      codeId,
      coderId: maker.accountId,
      start: null,
      end: null,
      origin: 'hand',
      typical: false,
      createdAt: new Date().toISOString(),
    };
    const to = { ...from, verdicts: { ...from.verdicts, [codeId]: applies } };
    await makeChange(tx, {
      ...maker,
      summary: applies
        ? comparisonTexts.decidingApplies(code.name)
        : comparisonTexts.decidingApply(code.name),
      diff: {
        mention: {
          added: applies && standing.length === 0 ? [mention] : [],
          updated: [],
          removed: applies ? [] : standing,
        },
        ...(from.verdicts[codeId] !== applies && {
          second_reading_answer: { added: [], updated: [{ from, to }], removed: [] },
        }),
      },
    });
  });
}

/** What the second readings of a study that are done have shown, oldest first. */
export async function measuredAgreement(
  em: EntityManager,
  studyId: number,
): Promise<MeasuredAgreement[]> {
  const readings = (await findReadings(em, 'd.study_id = :studyId', { studyId })).toReversed();
  const done = readings.filter(({ read, size }) => read === size);
  if (done.length === 0) return [];
  const names = await readNames(em, studyId);
  const answers = await findReadingAnswers(em, 'd.study_id = :studyId', { studyId });
  const questions = await rows<{ id: string; questionId: number; label: string }>(
    em,
    `select d.id, q.id as "questionId", q.label from second_reading d
     join question q on q.id = d.question_id where d.study_id = :studyId`,
    { studyId },
  );
  const questionOf = new Map(questions.map(({ id, ...question }) => [id, question]));
  return done.map(({ id, reader, firstCoders, drawnFrom, drawn }) => {
    const own = answers.filter(({ readingId }) => readingId === id);
    const { overall, codes, sameSets, alphaOfSets } = compare(
      own,
      names,
      questionOf.get(id)!.questionId,
    );
    return {
      reader,
      firstCoders,
      drawnFrom,
      drawn,
      ...questionOf.get(id)!,
      sameSets,
      alphaOfSets,
      kappa: overall.kappa,
      interval: overall.interval,
      low: codes
        .filter((one) => stateOfAgreement(one) === 'low')
        .map(({ codeId }) => names.get(codeId)!.name),
    };
  });
}
