import {
  reportQuery,
  type CountedTable,
  type Quote,
  type ReportQuery,
  type WriteUp,
  type WriteUpContent,
} from '@yellow-thread/contract';
import { maskDetails } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { measuredAgreement } from '../agreement/index.js';
import { row, rows, VariableEntity } from '../database/index.js';
import { readLabels, respondentsOf } from '../groups/index.js';
import { Problem, problems } from '../wording/problems.js';
import { findQuestion } from '../study/index.js';
import { makeReport, readFacts } from '../report/index.js';
import type { Frozen, StoredWriteUp } from './stored.js';

/** Reads what chooses a table. @throws Problem wrong_table when it is no such choice */
export function readTableQuery(query: string): ReportQuery {
  const parsed = reportQuery.safeParse(Object.fromEntries(new URLSearchParams(query)));
  if (!parsed.success) throw problems.wrongTable();
  return parsed.data;
}

/** A write-up with its figures as they are now or, when it is frozen, as they were. */
export async function countWriteUp(
  em: EntityManager,
  studyId: number,
  stored: StoredWriteUp,
): Promise<WriteUp> {
  const { frozen, ...rest } = stored;
  if (frozen) return { ...rest, ...frozen, lost: [] };
  return { ...rest, ...(await countNow(em, studyId, stored.content)) };
}

export async function countNow(
  em: EntityManager,
  studyId: number,
  content: WriteUpContent,
): Promise<Frozen & Pick<WriteUp, 'lost'>> {
  const counted: CountedTable[] = [];
  const lost: WriteUp['lost'] = [];
  for (const table of content.tables)
    try {
      const query = readTableQuery(table.query);
      const question = await findQuestion(em, studyId, table.questionId);
      const within = query.group ? await respondentsOf(em, studyId, query.group) : null;
      const report = await makeReport(em, { studyId, question, query, within });
      counted.push({
        ...table,
        label: question.label,
        wording: question.wording,
        facts: await readFacts(em, { studyId, question, query, report }),
        report,
      });
    } catch (error) {
      // a table whose question, group or variable is gone must not take the rest with it
      if (!(error instanceof Problem)) throw error;
      lost.push({ id: table.id, why: error.message });
    }
  const { coders } = await row<{ coders: number }>(
    em,
    `select count(distinct s.coder_id)::int as coders from settlement s
     join response r on r.id = s.response_id join question q on q.id = r.question_id
     where q.study_id = :studyId`,
    { studyId },
  );
  return {
    counted,
    lost,
    coders,
    quotes: await readQuotes(em, studyId, content),
    agreement: await measuredAgreement(em, studyId),
  };
}

/** What was picked as examples of codes, with the chosen background of who said it. */
export async function readQuotes(
  em: EntityManager,
  studyId: number,
  { background, masked, names }: Pick<WriteUpContent, 'background' | 'masked' | 'names'>,
): Promise<Quote[]> {
  const found = await rows<{
    codeId: string;
    questionId: number;
    text: string;
    start: number | null;
    end: number | null;
    respondentId: number;
  }>(
    em,
    `select m.code_id as "codeId", r.question_id as "questionId", r.text, m.start, m."end",
       r.respondent_id as "respondentId"
     from mention m join response r on r.id = m.response_id join question q on q.id = r.question_id
     where q.study_id = :studyId and m.typical order by m.created_at, m.id`,
    { studyId },
  );
  const known = await em.find(VariableEntity, { studyId, id: { $in: [...background] } });
  const readers: Awaited<ReturnType<typeof readLabels>>['labelOf'][] = [];
  for (const id of background.filter((one) => known.some((variable) => variable.id === one)))
    readers.push((await readLabels(em, studyId, id)).labelOf);
  return found.map(({ codeId, questionId, text, start, end, respondentId }) => {
    const said = start === null || end === null ? text : text.slice(start, end);
    return {
      codeId,
      questionId,
      text: masked ? maskDetails(said, names) : said,
      who: readers
        .map((labelOf) => labelOf(respondentId))
        .filter((label) => label !== null)
        .join(', '),
    };
  });
}
