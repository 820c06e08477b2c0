import type { ByRule, Rule } from '@yellow-thread/contract';
import {
  addTo,
  conditionsIn,
  countOf,
  assignCategories,
  emptyBitset,
  forEachIn,
  fullBitset,
  has,
  membersOf,
  subtract,
  unite,
  type Bitset,
  type RuleMaterial,
} from '@yellow-thread/core/groups';
import type { EntityManager } from '@mikro-orm/postgresql';
import { QuestionEntity, rows, unpackInts, VariableEntity } from '../database/index.js';
import { readMaterial } from './material.js';
import { readOnce, readPeople, type People, type ReadOf } from './people.js';
import { findGroup, readGroups } from './stored.js';
import { readVariable, type StoredValues } from './variables.js';
import { membersTexts } from '../wording/groups.js';

/**
 * Who belongs to each of some rules now; everything that they ask of the study is read once.
 *
 * @param within variables that are being computed by these rules: in a circle they have no values
 */
export async function readMembers(
  em: EntityManager,
  {
    studyId,
    people,
    rules,
    within = [],
  }: {
    studyId: number;
    people: People;
    rules: readonly Rule[];
    within?: readonly number[] | undefined;
  },
): Promise<Bitset[]> {
  const groups = await readGroups(em, studyId);
  const ruleOf = (id: string) => groups.find((group) => group.id === id)?.rule;
  const asked = allConditions(rules, ruleOf);
  const size = people.ids.length;
  const nobody = emptyBitset(size);

  const labelled = new Map<number, Map<string, Bitset>>();
  const values = new Map<number, (number | string | null)[]>();
  const imports = new Map<number, Bitset>();
  const questions: RuleMaterial['questions'] = await readQuestions(em, studyId, people, asked);
  const variables = await em.find(VariableEntity, { studyId }, { fields: ['id'] });
  const isGone = (id: number) => !variables.some((variable) => variable.id === id);
  for (const condition of asked) {
    // a variable that is gone has no values: the rule can still be seen and corrected
    if ('variableId' in condition && isGone(condition.variableId)) continue;
    switch (condition.is) {
      case 'value':
      case 'stated':
        labelled.set(
          condition.variableId,
          labelledBy(
            await readColumns(em, { people, studyId, variableId: condition.variableId, within }),
          ),
        );
        break;
      case 'range':
        values.set(condition.variableId, await readValues(em, studyId, people, condition));
        break;
      case 'came_with':
        for (const id of condition.importIds) imports.set(id, await readCame(em, people, id));
        break;
      default:
        break;
    }
  }
  const codes = await rows<{ id: string; themeId: string | null }>(
    em,
    'select id, theme_id as "themeId" from code where study_id = :studyId',
    { studyId },
  );
  const material: RuleMaterial = {
    size,
    labelled: (id) => labelled.get(id) ?? new Map(),
    values: (id) => values.get(id) ?? [],
    questions,
    codesOf: (themeId) => codes.filter((code) => code.themeId === themeId).map(({ id }) => id),
    cameWith: (id) => imports.get(id) ?? nobody,
    ruleOf,
  };
  return rules.map((rule) => membersOf(rule, material));
}

/** Ids of the respondents who belong to a group now. @throws Problem not_found */
export const respondentsOf = async (em: EntityManager, studyId: number, groupId: string) =>
  respondentsOfRule(em, studyId, (await findGroup(em, studyId, groupId)).rule);

/** Ids of the respondents whom a rule picks now. */
export async function respondentsOfRule(
  em: EntityManager,
  studyId: number,
  rule: Rule,
): Promise<number[]> {
  const people = await readPeople(em, studyId);
  const [members] = await readMembers(em, { studyId, people, rules: [rule] });
  const ids: number[] = [];
  forEachIn(members!, (i) => ids.push(people.ids[i]!));
  return ids;
}

/** What some rules ask for, and the groups that they stand on. */
function allConditions(
  rules: readonly Rule[],
  ruleOf: (id: string) => Rule | undefined,
): ReturnType<typeof conditionsIn> {
  const found: ReturnType<typeof conditionsIn> = [];
  const seen = new Set<string>();
  const visit = (rule: Rule) => {
    for (const condition of conditionsIn(rule)) {
      found.push(condition);
      if (condition.is !== 'in_group' || seen.has(condition.groupId)) continue;
      seen.add(condition.groupId);
      const further = ruleOf(condition.groupId);
      if (further) visit(further);
    }
  };
  rules.forEach(visit);
  return found;
}

/** The coding of the questions that are asked about: all of them where a condition asks of any. */
async function readQuestions(
  em: EntityManager,
  studyId: number,
  people: People,
  asked: ReturnType<typeof conditionsIn>,
): Promise<RuleMaterial['questions']> {
  const of = new Set(asked.flatMap((one) => ('questionId' in one ? [one.questionId] : [])));
  if (of.size === 0) return new Map();
  const stored = await em.find(QuestionEntity, { studyId }, { orderBy: { position: 'asc' } });
  const questions = new Map<number, ReturnType<typeof asMentioned>>();
  for (const { id } of stored)
    if (of.has(null) || of.has(id))
      questions.set(id, asMentioned(await readMaterial(em, people, id)));
  return questions;
}

/** Whoever is known to mention a code, and of whom that is decided. */
const asMentioned = ({ answered, rowOf }: Awaited<ReturnType<typeof readMaterial>>) => ({
  answered,
  mentioned: (codeId: string) => rowOf(codeId, 'decided').mentioned,
  decided: (codeId: string) => {
    const { undecided } = rowOf(codeId, 'decided');
    return undecided ? subtract(answered, undecided) : answered;
  },
});

const labelledBy = (columns: readonly Column[]): Map<string, Bitset> =>
  new Map(
    columns.filter(({ key }) => key !== MISSING).map(({ label, members }) => [label, members]),
  );

async function readValues(
  em: EntityManager,
  studyId: number,
  people: People,
  { variableId }: { variableId: number },
): Promise<(number | string | null)[]> {
  const variable = await readVariable(em, studyId, variableId);
  if (!('stored' in variable)) return [];
  const [stored] = await rows<{ values: (number | string | null)[] | null }>(
    em,
    'select json_agg(background->:valueId order by id) as values from respondent where study_id = :studyId',
    { valueId: String(variable.stored.valueId), studyId },
  );
  return stored?.values?.slice(0, people.ids.length) ?? [];
}

async function readCame(em: EntityManager, people: People, importId: number): Promise<Bitset> {
  const members = emptyBitset(people.ids.length);
  const came = await rows<{ id: number }>(
    em,
    'select id from respondent where import_id = :importId',
    { importId },
  );
  for (const { id } of came) {
    const i = people.indexOf(id);
    if (i >= 0) addTo(members, i);
  }
  return members;
}

/** The key of the column of those without a value. */
export const MISSING = 'missing';
const NOT_STATED = membersTexts.stated;

/** A column of the report: a group of respondents. */
export interface Column {
  key: string;
  label: string;
  members: Bitset;
}

export const totalColumn = (people: People): Column => ({
  key: 'total',
  label: membersTexts.total,
  members: fullBitset(people.ids.length),
});

/** What was read of people's background: of every variable, and of what is stored of it. */
const columnsRead: ReadOf<number, Column[]> = new WeakMap();
const storedRead: ReadOf<number, Column[]> = new WeakMap();
const numerically = new Intl.Collator('en', { numeric: true });

/**
 * The values of a background variable as columns, called and ordered as the study has them, those without a
 * value last.
 */
export const readColumns = (
  em: EntityManager,
  {
    people,
    studyId,
    variableId,
    within = [],
  }: {
    people: People;
    studyId: number;
    variableId: number;
    within?: readonly number[] | undefined;
  },
): Promise<Column[]> => {
  const query = async () => {
    const variable = await readVariable(em, studyId, variableId);
    if ('stored' in variable) {
      const { stored } = variable;
      return readOnce(storedRead, people.asWritten, variableId, () =>
        storedColumns(em, people, studyId, stored),
      );
    }
    const { byRule } = variable;
    const rules = byRule.rules.map(({ rule }) => rule);
    // undoing older changes can close a circle
    const picked = within.includes(variableId)
      ? rules.map(() => emptyBitset(people.ids.length))
      : await readMembers(em, { studyId, people, rules, within: [...within, variableId] });
    return columnsByRule(byRule, picked, people.ids.length);
  };
  // what stands in a circle is not the same seen from without
  return within.length > 0 ? query() : readOnce(columnsRead, people, variableId, query);
};

function columnsByRule(by: ByRule, picked: readonly Bitset[], size: number): Column[] {
  const assigned = assignCategories(by, picked, size);
  const somewhere = [...assigned.values()].reduce(unite, emptyBitset(size));
  const columns = [...assigned].map(([label, members]) => ({ key: `=${label}`, label, members }));
  const nowhere = subtract(fullBitset(size), somewhere);
  return [...columns, { key: MISSING, label: NOT_STATED, members: nowhere }].filter(
    ({ members }) => countOf(members) > 0,
  );
}

async function storedColumns(
  em: EntityManager,
  people: People,
  studyId: number,
  { valueId, labelOf, placeOf }: StoredValues,
): Promise<Column[]> {
  const values = await rows<{ value: string | number | boolean | null; packed: Buffer }>(
    em,
    `select background->:valueId as value, string_agg(int4send(id), '') as packed from respondent
     where study_id = :studyId group by 1`,
    { valueId: String(valueId), studyId },
  );
  const columns = new Map<string, Column>();
  for (const group of values) {
    const label = labelOf(group.value);
    const key = label === null ? MISSING : `=${label}`;
    let column = columns.get(key);
    if (!column) {
      const members = emptyBitset(people.ids.length);
      column = { key, label: label ?? NOT_STATED, members };
      columns.set(key, column);
    }
    for (const id of unpackInts(group.packed)) addTo(column.members, people.indexOf(id));
  }
  return [...columns.values()].sort(
    (x, y) =>
      Number(x.key === MISSING) - Number(y.key === MISSING) ||
      placeOf(x.label) - placeOf(y.label) ||
      numerically.compare(x.label, y.label),
  );
}

/** What the values of a variable are called, in their order, and which each respondent has, by their id; null for none. */
export async function readLabels(
  em: EntityManager,
  studyId: number,
  variableId: number,
): Promise<{ labels: string[]; labelOf: (respondentId: number) => string | null }> {
  const people = await readPeople(em, studyId);
  const columns = await readColumns(em, { people, studyId, variableId });
  const stated = columns.filter(({ key }) => key !== MISSING);
  return {
    labels: stated.map(({ label }) => label),
    labelOf: (respondentId) => {
      const i = people.indexOf(respondentId);
      if (i < 0) return null;
      return stated.find(({ members }) => has(members, i))?.label ?? null;
    },
  };
}
