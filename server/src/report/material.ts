import type { Origin } from '@yellow-thread/contract';
import {
  addTo,
  emptyBitset,
  fullBitset,
  has,
  unite,
  type Bitset,
} from '@yellow-thread/core/groups';
import type { ClothRow } from '@yellow-thread/core/report';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, type QuestionRow } from '../database/index.js';
import { runInForce } from '../learning/index.js';

/** The respondents of a study; respondent i stands at position i of every set. */
export interface People {
  ids: number[];
  indexOf: Map<number, number>;
  /** Null when the study has no weights. */
  weights: Float64Array | null;
}

/** The coding of one question as sets of respondents. */
export interface QuestionMaterial {
  question: QuestionRow;
  asked: Bitset;
  answered: Bitset;
  settled: Bitset;
  /** By code id; a code without mentions is missing. */
  codes: Map<string, ClothRow>;
  /** Codes of which every suggestion of the run in force is decided. */
  decidedForAll: Set<string>;
  /** The row of a code that nobody mentions. */
  emptyRow: (codeId: string) => ClothRow;
  /** Where counted mentions come from; `waiting` are those on answers that are still open for their code. */
  origins: Record<Origin | 'waiting', number>;
  responseOf: Map<number, number>;
}

export async function readPeople(em: EntityManager, studyId: number): Promise<People> {
  const people = await rows<{ id: number; weight: number | null }>(
    em,
    'select id, weight from respondent where study_id = ? order by id',
    [studyId],
  );
  const ids = people.map((one) => one.id);
  const weighted = people.some((one) => one.weight !== null);
  return {
    ids,
    indexOf: new Map(ids.map((id, i) => [id, i])),
    weights: weighted ? Float64Array.from(people, (one) => one.weight ?? 1) : null,
  };
}

export async function readMaterial(
  em: EntityManager,
  people: People,
  question: QuestionRow,
): Promise<QuestionMaterial> {
  const size = people.ids.length;
  const [asked, answered, settled] = [emptyBitset(size), emptyBitset(size), emptyBitset(size)];
  const responseOf = new Map<number, number>();
  const responses = await rows<{ id: number; person: number; noAnswer: boolean; settled: boolean }>(
    em,
    `select r.id, r.respondent_id as person, r.no_answer as "noAnswer",
       exists (select 1 from settlement t where t.response_id = r.id) as settled
     from response r where r.question_id = ?`,
    [question.id],
  );
  const run = await runInForce(em, question.id);
  const knownToRun = emptyBitset(size);
  for (const one of responses) {
    const i = people.indexOf.get(one.person)!;
    responseOf.set(i, one.id);
    addTo(asked, i);
    if (one.noAnswer) continue;
    addTo(answered, i);
    if (one.settled) addTo(settled, i);
    if (run && one.id <= run.lastResponseId) addTo(knownToRun, i);
  }

  const open = await rows<{ codeId: string }>(
    em,
    `select distinct o.code_id as "codeId" from open_suggestion o
     join response r on r.id = o.response_id where r.question_id = ?`,
    [question.id],
  );
  const stillOpen = new Set(open.map((one) => one.codeId));
  const decidedForAll = new Set(
    (run?.codes ?? [])
      .filter((code) => code.state !== 'too_few' && !stillOpen.has(code.codeId))
      .map((code) => code.codeId),
  );

  const settledOrReviewed = unite(settled, knownToRun);
  const decidedFor = (codeId: string) => (decidedForAll.has(codeId) ? settledOrReviewed : settled);

  const mentions = await rows<{ codeId: string; person: number; origin: Origin }>(
    em,
    `select m.code_id as "codeId", r.respondent_id as person, m.origin
     from mention m join response r on r.id = m.response_id where r.question_id = ?`,
    [question.id],
  );
  const origins = { hand: 0, accepted: 0, bulk: 0, waiting: 0 };
  const peopleOf = new Map<string, number[]>();
  for (const { codeId, person, origin } of mentions) {
    const i = people.indexOf.get(person)!;
    origins[has(decidedFor(codeId), i) ? origin : 'waiting'] += 1;
    const list = peopleOf.get(codeId);
    if (list) list.push(i);
    else peopleOf.set(codeId, [i]);
  }
  const rowOf = (codeId: string, members: number[]): ClothRow => {
    const mentioned = emptyBitset(size);
    for (const i of members) addTo(mentioned, i);
    return {
      key: codeId,
      mentioned,
      decided: decidedFor(codeId),
      mentions: Int32Array.from(members),
    };
  };
  return {
    question,
    asked,
    answered,
    settled,
    decidedForAll,
    codes: new Map([...peopleOf].map(([id, members]) => [id, rowOf(id, members)])),
    emptyRow: (codeId) => rowOf(codeId, []),
    origins,
    responseOf,
  };
}

/** A column of the report: a group of respondents. */
export interface Column {
  key: string;
  label: string;
  members: Bitset;
}

export const totalColumn = (people: People): Column => ({
  key: 'total',
  label: 'Total',
  members: fullBitset(people.ids.length),
});

const numerically = new Intl.Collator('en', { numeric: true });

/** The categories of a background variable as columns, those without a value last. */
export async function readColumns(
  em: EntityManager,
  people: People,
  studyId: number,
  variableId: number,
): Promise<Column[]> {
  const values = await rows<{ id: number; value: string | number | boolean | null }>(
    em,
    'select id, background->? as value from respondent where study_id = ?',
    [String(variableId), studyId],
  );
  const columns = new Map<string, Column>();
  for (const { id, value } of values) {
    const key = value === null ? 'missing' : `=${String(value)}`;
    let column = columns.get(key);
    if (!column) {
      column = { key, label: labelOf(value), members: emptyBitset(people.ids.length) };
      columns.set(key, column);
    }
    addTo(column.members, people.indexOf.get(id)!);
  }
  return [...columns.values()].sort(
    (x, y) =>
      Number(x.key === 'missing') - Number(y.key === 'missing') ||
      numerically.compare(x.label, y.label),
  );
}

function labelOf(value: string | number | boolean | null): string {
  if (value === null) return 'Not stated';
  if (typeof value === 'boolean') return value ? 'Yes' : 'No';
  return String(value);
}
