import { ledgerQuery, type AnswersBehind, type BehindQuery } from '@yellow-thread/contract';
import { countOf, forEachIn, has, intersect, type Bitset } from '@yellow-thread/core/groups';
import type { ClothRow } from '@yellow-thread/core/report';
import type { EntityManager } from '@mikro-orm/postgresql';
import { chosenAnswers, readAnswers } from '../coding/index.js';
import { rows, type QuestionRow } from '../database/index.js';
import { readPeople } from '../groups/index.js';
import { problems } from '../problems.js';
import { placeColumns } from './columns.js';
import { readLines, rowOf } from './lines.js';
import { asSet } from './report.js';

/** The answers that a number counts, each once; an answer that mentions it counts, whatever else its respondent wrote. */
export async function readBehind(
  em: EntityManager,
  studyId: number,
  question: QuestionRow,
  query: BehindQuery,
  within: readonly number[] | null,
): Promise<AnswersBehind> {
  const people = await readPeople(em, studyId);
  const placed = await placeColumns(em, studyId, people, question, query, asSet(people, within));
  const column = placed.find((one) => one.key === query.column);
  const line =
    (await findLine(em, studyId, 'book', query.row)) ??
    (await findLine(em, studyId, 'bundles', query.row));
  if (!column || !line) throw problems.notFound('cell');
  const other = query.with ? await findLine(em, studyId, 'book', query.with) : null;
  if (query.with && !other) throw problems.notFound('code');
  const { material } = column;
  const countedBy = (row: ClothRow): Bitset =>
    intersect(intersect(row.mentioned, row.decided), material.answered);
  let counted = intersect(countedBy(rowOf(material, line)), column.members);
  if (other) counted = intersect(counted, countedBy(rowOf(material, other)));

  const questionOf = new Map<number, number>();
  for (const part of material.parts) {
    const mentions = (codeIds: readonly string[]) =>
      codeIds.map((id) => part.codes.get(id)?.mentioned).filter((set) => set !== undefined);
    const both = other
      ? [mentions(line.codeIds), mentions(other.codeIds)]
      : [mentions(line.codeIds)];
    forEachIn(intersect(counted, part.answered), (i) => {
      if (both.every((sets) => sets.some((set) => has(set, i))))
        questionOf.set(part.responseOf[i]!, part.questionId);
    });
  }
  if (other && query.inOne === 'line') {
    const all = [line.id, other.id].join(',');
    const met = ledgerQuery.parse({ show: 'settled', together: 'line', all });
    const inLine = new Set(await chosenAnswers(em, studyId, question.id, met));
    for (const id of [...questionOf.keys()]) if (!inLine.has(id)) questionOf.delete(id);
  }
  const found = await holdingWords(em, [...questionOf.keys()], query.words);
  const sorted = found.sort((x, y) => x - y);
  const page = sorted.filter((id) => id > (query.after ?? 0)).slice(0, query.limit);
  const answers = await readAnswers(em, page);
  return {
    total: found.length,
    // one answer a person, in one question
    people: query.inOne === 'line' ? questionOf.size : countOf(counted),
    answers: answers.map((answer) => ({ ...answer, questionId: questionOf.get(answer.id)! })),
    next: page.length > 0 && page.at(-1) !== sorted.at(-1) ? String(page.at(-1)) : null,
  };
}

async function findLine(em: EntityManager, studyId: number, kind: 'book' | 'bundles', id: string) {
  const { lines } = await readLines(em, studyId, { rows: kind, chosen: [] });
  return lines.find((one) => one.id === id) ?? null;
}

async function holdingWords(
  em: EntityManager,
  ids: readonly number[],
  words: string,
): Promise<number[]> {
  if (words.trim() === '') return [...ids];
  const found = await rows<{ id: number }>(
    em,
    'select id from response where id = any(?::int[]) and lower(text) like lower(?)',
    [ids, `%${words.trim().replaceAll(/[\\%_]/g, '\\$&')}%`],
  );
  return found.map(({ id }) => id);
}
