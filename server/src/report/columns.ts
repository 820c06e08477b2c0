import type { ReportQuery, Rule } from '@yellow-thread/contract';
import {
  countOf,
  countOfBoth,
  fullBitset,
  intersect,
  type Bitset,
} from '@yellow-thread/core/groups';
import type { EntityManager } from '@mikro-orm/postgresql';
import { QuestionEntity, rows, type QuestionRow } from '../database/index.js';
import {
  MISSING,
  readColumns,
  readGroups,
  readMaterial,
  readMembers,
  setOf,
  totalColumn,
  type Column,
  type People,
} from '../groups/index.js';
import { problems } from '../wording/problems.js';
import { ofAllQuestions, ofOneQuestion, restricted, type TableMaterial } from './tableMaterial.js';

/** A column of the report: a group of respondents and what their figures are counted from. */
export interface PlacedColumn extends Column {
  /** The value of the first variable that it stands under, where there are two. */
  under: string | null;
  material: TableMaterial;
  /** Who stands in it as a rule; null for everybody, and for what is no group of respondents. */
  rule: Rule | null;
  /** Columns of one set are compared with each other; null for one that never is. */
  comparedIn: string | null;
}

/** What chooses columns. */
export type ColumnQuery = Pick<ReportQuery, 'by' | 'groups' | 'questions'>;

const MOST_COLUMNS = 60;
const MOST_RESPONDENTS = 30;

/**
 * The columns of a table, the total first where there is one.
 *
 * @param within restricts every column to a group; null for everybody
 * @throws Problem not_found, too_many_columns
 */
export async function placeColumns(
  em: EntityManager,
  {
    studyId,
    people,
    question,
    query,
    within,
  }: {
    studyId: number;
    people: People;
    question: QuestionRow;
    query: ColumnQuery;
    within: Bitset | null;
  },
): Promise<PlacedColumn[]> {
  const read = async (questionId: number, coderId?: number) =>
    ofOneQuestion(await readMaterial(em, people, questionId, coderId), within);
  const everybody = restricted(fullBitset(people.ids.length), within);
  const total = {
    ...totalColumn(people),
    under: null,
    members: everybody,
    comparedIn: null,
    rule: null,
  };

  if (query.by === 'question') {
    const placed: PlacedColumn[] = [];
    for (const one of await questionsOf(em, studyId))
      placed.push({
        ...total,
        key: `question-${one.id}`,
        label: one.label,
        material: await read(one.id),
      });
    return placed;
  }
  if (query.by === 'coder') {
    const placed: PlacedColumn[] = [];
    for (const coder of await codersOf(em, question.id))
      placed.push({
        ...total,
        key: `coder-${coder.id}`,
        label: coder.name,
        material: await read(question.id, coder.id),
      });
    return placed;
  }
  const [material, groups] = await Promise.all([
    query.questions === 'all' ? allQuestions(em, studyId, people, within) : read(question.id),
    readGroupsAcross(em, studyId, people, query),
  ]);
  const columns = groups
    .map((column) => ({ ...column, members: restricted(column.members, within), material }))
    .filter(({ members }) => within === null || countOf(members) > 0);
  if (columns.length > MOST_COLUMNS) throw problems.tooManyColumns(columns.length, MOST_COLUMNS);
  return [{ ...total, material }, ...columns];
}

const questionsOf = (em: EntityManager, studyId: number) =>
  em.find(QuestionEntity, { studyId }, { orderBy: { position: 'asc' } });

/** The coding of all questions as one. */
export async function allQuestions(
  em: EntityManager,
  studyId: number,
  people: People,
  within: Bitset | null,
): Promise<TableMaterial> {
  const parts = [];
  for (const { id } of await questionsOf(em, studyId))
    parts.push(await readMaterial(em, people, id));
  return ofAllQuestions(parts, within);
}

type GroupColumn = Omit<PlacedColumn, 'material'>;

async function readGroupsAcross(
  em: EntityManager,
  studyId: number,
  people: People,
  { by, groups }: ColumnQuery,
): Promise<GroupColumn[]> {
  if (by === 'none') return [];
  if (by === 'groups') return savedGroups(em, studyId, people, groups);
  if (by === 'wave') return waves(em, studyId, people);
  if (by === 'respondent') return respondents(em, people);
  const [first, second] = by.split(',').map(Number);
  const outer = await readColumns(em, { people, studyId, variableId: first! });
  const inner =
    second === undefined ? null : await readColumns(em, { people, studyId, variableId: second });
  if (!inner)
    return outer.map((column) => ({
      ...column,
      under: null,
      rule: ruleOfValue(first!, column),
      comparedIn: column.key === MISSING ? null : 'values',
    }));
  return outer.flatMap((one) =>
    inner.flatMap((other): GroupColumn[] => {
      const members = intersect(one.members, other.members);
      if (countOf(members) === 0) return [];
      return [
        {
          key: `${one.key}|${other.key}`,
          label: other.label,
          under: one.label,
          members,
          rule: {
            is: 'all_of',
            rules: [ruleOfValue(first!, one), ruleOfValue(second!, other)],
          },
          comparedIn: other.key === MISSING ? null : one.key,
        },
      ];
    }),
  );
}

/** A value of a background variable, or that there is none, as a condition. */
const ruleOfValue = (variableId: number, { key, label }: Column): Rule =>
  key === MISSING
    ? { is: 'stated', variableId, stated: false }
    : { is: 'value', variableId, test: 'any_of', labels: [label] };

async function savedGroups(
  em: EntityManager,
  studyId: number,
  people: People,
  chosen: readonly string[],
): Promise<GroupColumn[]> {
  const all = await readGroups(em, studyId);
  const wanted =
    chosen.length === 0
      ? all
      : chosen.map((id) => {
          const group = all.find((one) => one.id === id);
          if (!group) throw problems.notFound('group');
          return group;
        });
  const members = await readMembers(em, { studyId, people, rules: wanted.map(({ rule }) => rule) });
  return wanted.map(({ id, name }, g) => ({
    key: `group-${id}`,
    label: name,
    under: null,
    members: members[g]!,
    comparedIn: 'groups',
    rule: { is: 'in_group', groupId: id, member: true },
  }));
}

/** Who came with which wave; an import that belongs to none is a wave of its own. */
async function waves(em: EntityManager, studyId: number, people: People): Promise<GroupColumn[]> {
  const found = await rows<{ name: string; imports: number[]; people: number[] }>(
    em,
    `select coalesce(nullif(i.settings->>'wave', ''), i.file_name) as name, json_agg(distinct i.id) as imports,
       json_agg(r.id) as people
     from import i join respondent r on r.import_id = i.id
     where i.study_id = :studyId group by 1 order by min(i.id)`,
    { studyId },
  );
  return found.map(({ name, imports, people: ids }) => ({
    key: `wave-${imports[0]}`,
    label: name,
    under: null,
    members: setOf(people, ids),
    comparedIn: 'waves',
    rule: { is: 'came_with', importIds: imports },
  }));
}

async function respondents(em: EntityManager, people: People): Promise<GroupColumn[]> {
  if (people.ids.length > MOST_RESPONDENTS)
    throw problems.tooManyColumns(people.ids.length, MOST_RESPONDENTS);
  const found = await rows<{ id: number; name: string }>(
    em,
    'select id, external_id as name from respondent where id = any(:ids::int[]) order by id',
    { ids: [...people.ids] },
  );
  return found.map(({ id, name }) => ({
    key: `respondent-${id}`,
    label: name,
    under: null,
    members: setOf(people, [id]),
    comparedIn: null,
    rule: null,
  }));
}

/** Whoever settled answers to a question, or coded some. */
const codersOf = (em: EntityManager, questionId: number) =>
  rows<{ id: number; name: string }>(
    em,
    `select a.id, a.name from account a where exists (
       select 1 from settlement t join response r on r.id = t.response_id
       where t.coder_id = a.id and r.question_id = :questionId) order by a.name`,
    { questionId },
  );

/** Whether two columns are compared with each other: not where they have somebody in common. */
export const areComparable = (one: PlacedColumn, other: PlacedColumn): boolean =>
  one.comparedIn !== null &&
  one.comparedIn === other.comparedIn &&
  countOfBoth(one.members, other.members) === 0;
