import type { Rule } from '@yellow-thread/contract';
import {
  addTo,
  conditionsIn,
  emptyBitset,
  forEachIn,
  membersOf,
  type Bitset,
  type RuleMaterial,
} from '@yellow-thread/core/groups';
import type { EntityManager } from '@mikro-orm/postgresql';
import { QuestionEntity, rows } from '../database/index.js';
import { readVariable } from '../study/index.js';
import { findGroup, readGroups } from './stored.js';
import { readColumns, readMaterial, readPeople, type People } from './material.js';

/** Who belongs to each of some rules now; everything that they ask of the study is read once. */
export async function readMembers(
  em: EntityManager,
  studyId: number,
  people: People,
  rules: readonly Rule[],
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
  for (const condition of asked)
    switch (condition.is) {
      case 'value':
      case 'stated':
        labelled.set(
          condition.variableId,
          await readLabelled(em, studyId, people, condition.variableId),
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
  const codes = await rows<{ id: string; themeId: string | null }>(
    em,
    'select id, theme_id as "themeId" from code where study_id = ?',
    [studyId],
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
  const [members] = await readMembers(em, studyId, people, [rule]);
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

const asMentioned = ({ answered, codes, emptyRow }: Awaited<ReturnType<typeof readMaterial>>) => {
  const rowOf = (codeId: string) => codes.get(codeId) ?? emptyRow(codeId);
  return {
    answered,
    mentioned: (codeId: string) => rowOf(codeId).mentioned,
    decided: (codeId: string) => rowOf(codeId).decided,
  };
};

async function readLabelled(
  em: EntityManager,
  studyId: number,
  people: People,
  variableId: number,
): Promise<Map<string, Bitset>> {
  const columns = await readColumns(em, people, studyId, variableId);
  return new Map(
    columns.filter(({ key }) => key !== 'missing').map(({ label, members }) => [label, members]),
  );
}

async function readValues(
  em: EntityManager,
  studyId: number,
  people: People,
  { variableId }: { variableId: number },
): Promise<(number | string | null)[]> {
  const { valueId } = await readVariable(em, studyId, variableId);
  const [stored] = await rows<{ values: (number | string | null)[] | null }>(
    em,
    'select json_agg(background->? order by id) as values from respondent where study_id = ?',
    [String(valueId), studyId],
  );
  return stored?.values?.slice(0, people.ids.length) ?? [];
}

async function readCame(em: EntityManager, people: People, importId: number): Promise<Bitset> {
  const members = emptyBitset(people.ids.length);
  const came = await rows<{ id: number }>(em, 'select id from respondent where import_id = ?', [
    importId,
  ]);
  for (const { id } of came) {
    const i = people.indexOf(id);
    if (i >= 0) addTo(members, i);
  }
  return members;
}
