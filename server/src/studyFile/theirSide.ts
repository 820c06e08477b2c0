import { createHash } from 'node:crypto';
import { originSchema } from '@yellow-thread/contract';
import {
  keyOfSettled,
  type Coding,
  type GivenCode,
  type SettledAnswer,
} from '@yellow-thread/core/merge';
import { z } from 'zod';
import { problems } from '../wording/problems.js';
import { studyFileTexts as texts } from '../wording/studyFile.js';
import type { Zip } from '../zip.js';
import { keyOfAnswer, type OurSide } from './ourSide.js';
import { linesOf } from './readCopy.js';

const int = z.number().int();
const time = z.string().refine((text) => !Number.isNaN(Date.parse(text)));
const text = z.string();
const uuid = z.uuid();

/** What is needed of each table's rows. */
const ROWS = {
  question: z.object({ id: int, label: text, wording: text }),
  respondent: z.object({ id: int, external_id: text }),
  response: z.object({ id: int, question_id: int, respondent_id: int, text }),
  theme: z.object({ id: uuid, name: text, ink: text, stitch: text, position: int }),
  code: z.object({
    ...{ id: uuid, theme_id: uuid.nullable(), name: text, definition: text, include: text },
    ...{ exclude: text, archived: z.boolean(), questions: z.array(int).nullable(), position: int },
  }),
  mention: z.object({
    ...{ id: uuid, response_id: int, code_id: uuid, coder_id: int, typical: z.boolean() },
    ...{ start: int.nullable(), end: int.nullable(), origin: originSchema, created_at: time },
  }),
  settlement: z.object({
    ...{ response_id: int, coder_id: int, settled_at: time, assisted: z.boolean() },
  }),
  note: z.object({
    ...{ id: uuid, response_id: int.nullable(), respondent_id: int.nullable(), text },
    ...{ code_id: uuid.nullable(), start: int.nullable(), end: int.nullable() },
    ...{ unsure: z.boolean(), author_id: int, created_at: time },
  }),
  change: z.object({ made_at: time, summary: text, undone_at: time.nullable(), diff: z.unknown() }),
} as const;
export type TheirRow<Table extends keyof typeof ROWS> = z.infer<(typeof ROWS)[Table]>;

/** The rows of a table. @throws Problem bad_study_file for one that is not what it should be */
export async function* rowsOf<Table extends keyof typeof ROWS>(
  zip: Zip,
  table: Table,
): AsyncGenerator<TheirRow<Table>> {
  for await (const line of linesOf(zip, table)) {
    const parsed = ROWS[table].safeParse(JSON.parse(line));
    if (!parsed.success) throw problems.badStudyFile(texts.doesNotFit);
    yield parsed.data as TheirRow<Table>;
  }
}

/** The coding that a study file holds, of the answers that are in our study too. */
export interface TheirSide {
  coding: Coding;
  records: {
    themes: Map<string, TheirRow<'theme'>>;
    codes: Map<string, TheirRow<'code'>>;
    mentions: Map<string, TheirRow<'mention'>>;
    settlements: Map<string, TheirRow<'settlement'>>;
    notes: Map<string, TheirRow<'note'>>;
  };
  /** Our questions, answers and respondents by their numbers in the file; null for what we have not. */
  questionHere: (id: number) => number | null;
  answerHere: (id: number | null) => number | null;
  respondentHere: (id: number | null) => number | null;
  coderOf: (id: number) => string;
  answers: { matched: number; notHere: number; otherText: number };
}

/** Reads the coding of a file. */
export async function readTheirSide(
  zip: Zip,
  people: readonly string[],
  our: OurSide,
): Promise<TheirSide> {
  const coderOf = (id: number): string => people[id - 1] ?? '';
  const matched = await matchAnswers(zip, our);
  const { answerHere, respondentHere, lengthOf } = matched;
  const themes = await inOrder(rowsOf(zip, 'theme'));
  const codes = await inOrder(rowsOf(zip, 'code'));
  const mentions = new Map<string, TheirRow<'mention'>>();
  const given = new Map<string, GivenCode>();
  for await (const mention of rowsOf(zip, 'mention')) {
    const length = lengthOf(mention.response_id);
    if (length === null) continue;
    const { start, end } = mention;
    const fits =
      start === null ? end === null : end !== null && 0 <= start && start < end && end <= length;
    if (!fits || !codes.has(mention.code_id)) throw problems.badStudyFile(texts.doesNotFit);
    mentions.set(mention.id, mention);
    given.set(mention.id, {
      ...{ answer: answerHere(mention.response_id)!, codeId: mention.code_id },
      ...{ coder: coderOf(mention.coder_id), start, end, typical: mention.typical },
    });
  }
  const settlements = new Map<string, TheirRow<'settlement'>>();
  const settled: SettledAnswer[] = [];
  for await (const settlement of rowsOf(zip, 'settlement')) {
    const answer = answerHere(settlement.response_id);
    if (answer === null) continue;
    const one = { answer, coder: coderOf(settlement.coder_id) };
    settled.push(one);
    settlements.set(keyOfSettled(one), settlement);
  }
  const notes = new Map<string, TheirRow<'note'>>();
  for await (const note of rowsOf(zip, 'note')) {
    const isOn =
      note.code_id !== null
        ? codes.has(note.code_id)
        : (answerHere(note.response_id) ?? respondentHere(note.respondent_id)) !== null;
    if (isOn) notes.set(note.id, note);
  }
  return {
    coding: {
      themes,
      codes: new Map(
        [...codes].map(([id, { theme_id, name, definition, include, exclude, archived }]) => [
          id,
          { themeId: theme_id, name, definition, include, exclude, archived },
        ]),
      ),
      mentions: given,
      settlements: settled,
      notes: new Map(
        [...notes].map(([id, { code_id, text, unsure }]) => [
          id,
          { codeId: code_id, text, unsure },
        ]),
      ),
    },
    records: { themes, codes, mentions, settlements, notes },
    ...{ answerHere, respondentHere, questionHere: matched.questionHere, coderOf },
    answers: matched.counts,
  };
}

/** Rows by their ids, as they stand in the codebook. */
async function inOrder<Row extends { id: string; position: number }>(
  rows: AsyncIterable<Row>,
): Promise<Map<string, Row>> {
  const found: Row[] = [];
  for await (const row of rows) found.push(row);
  return new Map(
    found.toSorted((a, b) => a.position - b.position).map((row) => [row.id, row] as const),
  );
}

/**
 * Which answer of ours each of theirs is: to a question of the same wording, else of the same label, by the respondent of
 * the same id, in the same words.
 */
async function matchAnswers(zip: Zip, { questions, answers }: OurSide) {
  const questionOf = new Map<number, number>();
  for await (const { id, label, wording } of rowsOf(zip, 'question')) {
    const found =
      questions.find((one) => one.wording === wording) ??
      questions.find((one) => one.label === label);
    if (found) questionOf.set(id, found.id);
  }
  const externalIds = new Map<number, string>();
  for await (const { id, external_id } of rowsOf(zip, 'respondent'))
    externalIds.set(id, external_id);
  const here = new Map<number, { id: number; length: number }>();
  const respondents = new Map<number, number>();
  const counts = { matched: 0, notHere: 0, otherText: 0 };
  for await (const { id, question_id, respondent_id, text: said } of rowsOf(zip, 'response')) {
    const question = questionOf.get(question_id);
    const externalId = externalIds.get(respondent_id);
    const own =
      question === undefined || externalId === undefined
        ? undefined
        : answers.get(keyOfAnswer(question, externalId));
    if (!own) {
      counts.notHere += 1;
      continue;
    }
    respondents.set(respondent_id, own.respondentId);
    if (createHash('md5').update(said).digest('hex') === own.hash) {
      counts.matched += 1;
      here.set(id, { id: own.id, length: said.length });
    } else counts.otherText += 1;
  }
  return {
    counts,
    questionHere: (id: number) => questionOf.get(id) ?? null,
    answerHere: (id: number | null) => (id === null ? null : (here.get(id)?.id ?? null)),
    lengthOf: (id: number) => here.get(id)?.length ?? null,
    respondentHere: (id: number | null) => (id === null ? null : (respondents.get(id) ?? null)),
  };
}
