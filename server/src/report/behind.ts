import { ledgerQuery, type AnswersBehind, type BehindQuery } from '@yellow-thread/contract';
import { forEachIn, has, intersect, type Bitset } from '@yellow-thread/core/groups';
import type { CrosstabRow } from '@yellow-thread/core/report';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  answersHolding,
  chosenAnswers,
  readAnswersFor,
  readQuestionAnswers,
} from '../coding/index.js';
import type { QuestionRow } from '../database/index.js';
import { readPeople } from '../groups/index.js';
import { problems } from '../wording/problems.js';
import { chooseRule } from './chooseRule.js';
import { placeColumns } from './columns.js';
import { readTableRows, rowOf } from './tableRows.js';
import { asSet } from './report.js';

/** The answers that a number counts, each once; an answer that mentions it counts, whatever else its respondent wrote. */
export async function readBehind(
  em: EntityManager,
  {
    studyId,
    question,
    query,
    within,
    accountId,
  }: {
    studyId: number;
    question: QuestionRow;
    query: BehindQuery;
    within: readonly number[] | null;
    accountId: number;
  },
): Promise<AnswersBehind> {
  const people = await readPeople(em, studyId);
  const placed = await placeColumns(em, {
    studyId,
    people,
    question,
    query,
    within: asSet(people, within),
  });
  const column = placed.find((one) => one.key === query.column);
  const { lines: book } = await readTableRows(em, studyId, { rows: 'book', chosen: [] });
  const { lines: bundles } = await readTableRows(em, studyId, { rows: 'bundles', chosen: [] });
  const line = [...book, ...bundles].find(({ id }) => id === query.row);
  if (!column || !line) throw problems.notFound('cell');
  const other = query.with && book.find(({ id }) => id === query.with);
  if (query.with && !other) throw problems.notFound('code');
  const { material } = column;
  const { counts } = await chooseRule(em, people, {
    query,
    columns: placed,
    codeIds: [],
    parts: [...new Set(placed.flatMap((one) => one.material.parts))],
    restriction: asSet(people, within),
  });
  const countedBy = (row: CrosstabRow): Bitset =>
    intersect(intersect(row.mentioned, row.decided), material.answered);
  let counted = intersect(countedBy(rowOf(material, line, counts)), column.members);
  if (other) counted = intersect(counted, countedBy(rowOf(material, other, counts)));

  const inLine =
    other && query.inOne === 'line'
      ? await meetingInLine(em, studyId, question.id, [line.id, other.id])
      : null;
  const questionOf = new Map<number, number>();
  const found = new Set<number>();
  for (const part of material.parts) {
    const mentions = (codeIds: readonly string[]) =>
      codeIds.map((id) => part.rowOf(id, counts).mentioned);
    const both = other
      ? [mentions(line.codeIds), mentions(other.codeIds)]
      : [mentions(line.codeIds)];
    forEachIn(intersect(counted, part.answered), (i) => {
      const id = part.responseOf[i]!;
      if (inLine && !inLine.has(id)) return;
      if (!both.every((sets) => sets.some((set) => has(set, i)))) return;
      questionOf.set(id, part.questionId);
      found.add(i);
    });
  }
  const holding = await holdingWords(em, studyId, questionOf, query.words);
  const sorted = holding.sort((x, y) => x - y);
  const page = sorted.filter((id) => id > (query.after ?? 0)).slice(0, query.limit);
  const answers = await readAnswersFor(em, accountId, page);
  return {
    total: holding.length,
    people: found.size,
    answers: answers.map((answer) => ({ ...answer, questionId: questionOf.get(answer.id)! })),
    next: page.length > 0 && page.at(-1) !== sorted.at(-1) ? String(page.at(-1)) : null,
  };
}

/** Ids of the settled answers that have all of some codes in one line. */
async function meetingInLine(
  em: EntityManager,
  studyId: number,
  questionId: number,
  codeIds: readonly string[],
): Promise<Set<number>> {
  const met = ledgerQuery.parse({ show: 'settled', together: 'line', all: codeIds.join(',') });
  return new Set(await chosenAnswers(em, studyId, questionId, met));
}

async function holdingWords(
  em: EntityManager,
  studyId: number,
  questionOf: ReadonlyMap<number, number>,
  words: string,
): Promise<number[]> {
  if (words.trim() === '') return [...questionOf.keys()];
  const holding: number[] = [];
  for (const questionId of new Set(questionOf.values())) {
    const answers = await readQuestionAnswers(em, questionId);
    const own = [...questionOf].filter(([, its]) => its === questionId);
    const chosen = Int32Array.from(own, ([id]) => answers.indexOf(id));
    const found = await answersHolding(em, {
      studyId,
      answers,
      chosen,
      query: { words, match: 'plain' },
    });
    for (const i of found) holding.push(answers.ids[i]!);
  }
  return holding;
}
