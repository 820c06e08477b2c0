import type { AnswerHelp } from '@yellow-thread/contract';
import type { CodedUnit } from '@yellow-thread/core/assistant';
import { linesOf, linesOfPassage, type Cut } from '@yellow-thread/core/coding';
import { blankAsides, type AsideMarks } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { findResponse, findWithheld } from '../coding/index.js';
import {
  cutsAsJson,
  GlossaryTermEntity,
  QuestionEntity,
  row,
  rows,
  StudyEntity,
} from '../database/index.js';
import { vectorsOfTexts } from '../sentences/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { problems } from '../wording/problems.js';
import type { Assistant } from './assistant.js';

/** Answers coded last that are compared: similar answers seldom come alone. */
const MOST_CODED = 1000;

interface StoredAnswer {
  id: number;
  text: string;
  cuts: Cut[] | null;
  mentions: { codeId: string; start: number | null; end: number | null }[];
}

/**
 * Help with an answer that is hard to code.
 *
 * @throws Problem not_found, no_answer_to_code, and sample_is_blind for an answer that is read without anybody's word:
 *   one that is drawn for coding by hand, or that waits for a second reading by this person
 */
export async function readHelp(
  em: EntityManager,
  assistant: Assistant,
  of: { studyId: number; responseId: number; accountId: number },
): Promise<AnswerHelp> {
  const { studyId, responseId, accountId } = of;
  const response = await findResponse(em, studyId, responseId);
  if (response.noAnswer) throw problems.noAnswerToCode();
  const { isDrawn } = await row<{ isDrawn: boolean }>(
    em,
    'select exists (select 1 from sample_member where response_id = :responseId) as "isDrawn"',
    { responseId },
  );
  const withheld = await findWithheld(em, accountId, [responseId]);
  if (isDrawn || withheld.has(responseId)) throw problems.sampleIsBlind();
  const { asides, purpose } = await em.findOneOrFail(StudyEntity, studyId);
  const { wording } = await em.findOneOrFail(QuestionEntity, response.questionId);
  const glossary = await em.find(GlossaryTermEntity, { studyId }, { orderBy: { term: 'asc' } });
  const { cuts } = await row<{ cuts: Cut[] }>(
    em,
    `select ${cutsAsJson} as cuts from response r where r.id = :responseId`,
    { responseId },
  );
  const text = blankAsides(response.text, asides);
  const lines = linesOf(response.text, asides, cuts)
    .filter((line) => !line.isAside)
    .map(({ start, end }) => ({ start, end }));
  const coded = await readCoded(em, { asides, accountId }, response);
  const texts = [
    text,
    ...lines.map(({ start, end }) => text.slice(start, end)),
    ...coded.map((unit) => unit.text),
  ];
  const help = await assistant.help({
    ...{ text, lines, purpose, wording, coded },
    glossary: glossary.map(({ term, meaning }) => ({ term, meaning })),
    vectors: await vectorsOfTexts(em, studyId, texts),
  });
  return { assistant: assistant.name, ...help };
}

/** What was coded by hand of other answers to the question, by line; nothing of an answer that is withheld. */
async function readCoded(
  em: EntityManager,
  { asides, accountId }: { asides: AsideMarks; accountId: number },
  { id, questionId }: { id: number; questionId: number },
): Promise<CodedUnit[]> {
  const answers = await rows<StoredAnswer>(
    em,
    `select r.id, r.text, ${cutsAsJson} as cuts, m.mentions from (
       select m.response_id, max(m.created_at) as at, jsonb_agg(jsonb_build_object(
         'codeId', m.code_id, 'start', m.start, 'end', m."end") order by m.id) as mentions
       from mention m join response r on r.id = m.response_id join code c on c.id = m.code_id
       where r.question_id = :questionId and m.response_id <> :id and not c.archived
         and m.origin in ('hand', 'import', 'accepted')
       group by m.response_id order by at desc limit ${MOST_CODED}) m
     join response r on r.id = m.response_id order by m.at desc, r.id`,
    { questionId, id },
  );
  const withheld = await findWithheld(
    em,
    accountId,
    answers.map((one) => one.id),
  );
  const units: CodedUnit[] = [];
  const slice = startTimeSlice();
  for (const answer of answers) {
    if (!withheld.has(answer.id)) units.push(...unitsOf(answer, asides));
    if (slice.isOver()) await slice.next();
  }
  return units;
}

/** The coded lines of an answer, and the whole of it where a code is on no line of its own. */
function unitsOf(
  { id: responseId, text, cuts, mentions }: StoredAnswer,
  asides: AsideMarks,
): CodedUnit[] {
  const said = blankAsides(text, asides);
  const lines = linesOf(text, asides, cuts ?? []).filter((line) => !line.isAside);
  const byUnit = new Map<string, CodedUnit>();
  const add = (unit: string, codeId: string) => {
    const known = byUnit.get(unit) ?? { responseId, text: unit, codeIds: [] };
    if (!known.codeIds.includes(codeId)) known.codeIds.push(codeId);
    byUnit.set(unit, known);
  };
  for (const { codeId, start, end } of mentions) {
    if (start === null || end === null || lines.length < 2) add(said, codeId);
    else
      for (const l of linesOfPassage(lines, { start, end }))
        add(said.slice(lines[l]!.start, lines[l]!.end), codeId);
  }
  return [...byUnit.values()];
}
