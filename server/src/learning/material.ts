import { createHash } from 'node:crypto';
import type { Train } from '@yellow-thread/contract';
import { linesOf, type Cut } from '@yellow-thread/core/coding';
import { withThemes, type Theme, type TrainingInput } from '@yellow-thread/core/learning';
import { blankAsides } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { chosenAnswers, readFilter } from '../coding/index.js';
import { CodeEntity, cutsAsJson, rows, StudyEntity } from '../database/index.js';
import { DRAWN_AT_RANDOM } from '../groups/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { problems } from '../wording/problems.js';

/**
 * Random samples of a question that are settled by hand to the last of them, without suggestions in view. One drawn
 * within groups is among them: each group has its proportion, so that every answer was as likely to be drawn.
 */
export const wholeRandomSamples = (questionId: number) =>
  `select s.id from sample s where s.question_id = ${questionId} and ${DRAWN_AT_RANDOM}
     and not exists (select 1 from sample_member m join response r on r.id = m.response_id
       where m.sample_id = s.id and not r.no_answer and not exists (
         select 1 from settlement t where t.response_id = m.response_id and not t.assisted))`;

/** Whether there is one, with answers in it. */
export const canEstimate = (questionId: number) =>
  `exists (select 1 from sample_member m where m.sample_id in (${wholeRandomSamples(questionId)}))`;

interface StoredAnswer {
  id: number;
  respondentId: number;
  text: string;
  settled: boolean;
  random: boolean;
  mentions: { codeId: string; start: number | null; end: number | null }[] | null;
  decided: { codeId: string; accepted: boolean }[] | null;
  cuts: Cut[] | null;
}

/** Everything that the models of a question learn from, and a fingerprint of it. */
export async function readTrainingInput(
  em: EntityManager,
  studyId: number,
  questionId: number,
  { seed, scope, learnFromBulk }: Train & { seed: number },
) {
  const stored = await rows<StoredAnswer>(
    em,
    `select r.id, r.respondent_id as "respondentId", r.text,
       exists (select 1 from settlement t where t.response_id = r.id) as settled,
       exists (select 1 from sample_member m
         where m.response_id = r.id and m.sample_id in (${wholeRandomSamples(questionId)})) as random,
       (select jsonb_agg(jsonb_build_object('codeId', m.code_id, 'start', m.start, 'end', m."end") order by m.id)
         from mention m where m.response_id = r.id) as mentions,
       (select jsonb_agg(jsonb_build_object('codeId', s.code_id, 'accepted', s.state = 'accepted') order by s.code_id)
         from suggestion s where s.response_id = r.id and s.state <> 'open' and (:learnFromBulk or not s.bulk)) as decided,
       ${cutsAsJson} as cuts
     from response r where r.question_id = :questionId and not r.no_answer order by r.id`,
    { learnFromBulk, questionId },
  );
  if (!stored.some(({ settled }) => settled)) throw problems.nothingSettled();
  const inScope = await answersInScope(em, studyId, questionId, scope);
  const codes = await em.find(CodeEntity, { studyId }, { orderBy: { id: 'asc' } });
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const excluded = await rows<{ word: string; codeId: string | null }>(
    em,
    `select s.word, s.code_id as "codeId" from excluded_word s left join code c on c.id = s.code_id
     where s.study_id = :studyId and (s.code_id is null or c.id is not null) order by s.word, s.code_id`,
    { studyId },
  );
  const answers: TrainingInput['answers'] = [];
  const slice = startTimeSlice();
  for (const answer of stored) {
    answers.push({
      // of the same length, so that evidence stands where it stands in the answer
      text: blankAsides(answer.text, asides),
      settled: answer.settled,
      random: answer.random,
      inScope: inScope?.has(answer.id) ?? true,
      codes: new Set(answer.mentions?.map((mention) => mention.codeId)),
      lines: linesOf(answer.text, asides, answer.cuts ?? [])
        .filter((line) => !line.isAside)
        .map(({ start, end }) => ({ start, end, codes: codesAt(answer, start, end) })),
      ...(answer.decided && {
        decided: new Map(answer.decided.map((one) => [one.codeId, one.accepted])),
      }),
    });
    if (slice.isOver()) await slice.next();
  }
  const input = withThemes(
    {
      seed,
      excluded,
      codes: codes
        // what was put away is not suggested
        .filter(({ archived }) => !archived)
        .filter(({ questions }) => questions?.includes(questionId) ?? true)
        .map(({ id, name, definition, include }) => ({ id, name, definition, include })),
      answers,
    },
    await themesOf(em, studyId),
  );
  return {
    input,
    responseIds: stored.map(({ id }) => id),
    respondentIds: stored.map(({ respondentId }) => respondentId),
    fingerprint: await fingerprintOf(input),
  };
}

const themesOf = (em: EntityManager, studyId: number) =>
  rows<Theme>(
    em,
    `select theme_id as id, jsonb_agg(id order by id) as parts from code
     where study_id = :studyId and theme_id is not null and not archived group by 1 order by 1`,
    { studyId },
  );

const codesAt = ({ mentions }: StoredAnswer, start: number, end: number): Set<string> =>
  new Set(
    mentions
      ?.filter((one) => one.start !== null && one.start < end && one.end! > start)
      .map((one) => one.codeId),
  );

async function answersInScope(
  em: EntityManager,
  studyId: number,
  questionId: number,
  scope: string,
): Promise<Set<number> | null> {
  const query = readFilter(scope);
  return query && new Set(await chosenAnswers(em, studyId, questionId, query));
}

/** What decides the models: texts, codes, lines, decisions, the codebook's words, excluded words. */
async function fingerprintOf({ answers, codes, excluded }: TrainingInput): Promise<string> {
  const hash = createHash('sha256');
  hash.update(JSON.stringify([codes, excluded]));
  const slice = startTimeSlice();
  for (const { text, settled, random, codes, lines, decided } of answers) {
    hash.update(
      JSON.stringify([
        text,
        settled,
        random,
        [...codes].sort(),
        [...(decided ?? [])],
        lines?.map((line) => [line.start, line.end, [...line.codes].sort()]),
      ]),
    );
    if (slice.isOver()) await slice.next();
  }
  return hash.digest('hex').slice(0, 16);
}
