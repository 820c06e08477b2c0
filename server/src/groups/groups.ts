import type { Group, GroupFields, GroupList, Rule } from '@yellow-thread/contract';
import {
  conditionsIn,
  countOf,
  depthOf,
  findCycle,
  type RuleReference,
} from '@yellow-thread/core/groups';
import type { EntityManager } from '@mikro-orm/postgresql';
import { inChange, makeChange, row, rows } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { readPeople } from './people.js';
import { readMembers } from './members.js';
import { findGroup, readGroups } from './stored.js';
import { readByRule } from './variables.js';
import { groupsTexts } from '../wording/groups.js';

/** The groups of a study with how many belong to each now. */
export async function listGroups(em: EntityManager, studyId: number): Promise<GroupList> {
  const groups = await readGroups(em, studyId);
  const people = await readPeople(em, studyId);
  const members = await readMembers(em, { studyId, people, rules: groups.map(({ rule }) => rule) });
  return {
    respondents: people.ids.length,
    groups: groups.map((group, g) => ({ ...group, people: countOf(members[g]!) })),
  };
}

/** How many a rule picks, while it is being built. @throws Problem group_circle, rule_too_deep */
export async function sizeOf(
  em: EntityManager,
  studyId: number,
  rule: Rule,
  groupId: string | undefined,
) {
  refuseTooDeep(rule);
  if (groupId !== undefined) await refuseCycle(em, studyId, groupId, rule);
  const people = await readPeople(em, studyId);
  const [members] = await readMembers(em, { studyId, people, rules: [rule] });
  return { people: countOf(members!), respondents: people.ids.length };
}

/**
 * Makes a group or changes it; a request that comes twice does so once.
 *
 * @throws Problem name_taken, group_circle, rule_too_deep
 */
export async function putGroup(em: EntityManager, maker: Maker, id: string, fields: GroupFields) {
  const { studyId } = maker;
  refuseTooDeep(fields.rule);
  await inChange(em, async (tx) => {
    // two who build a circle from both ends at once take turns
    await rows(tx, 'select id from study where id = :studyId for no key update', { studyId });
    const groups = await readGroups(tx, studyId);
    const alike = groups.find(
      (group) => group.id !== id && group.name.toLowerCase() === fields.name.toLowerCase(),
    );
    if (alike) throw problems.nameTaken('group', alike.name);
    await refuseCycle(tx, studyId, id, fields.rule);
    const from = groups.find((group) => group.id === id);
    const { position } = await row<{ position: number }>(
      tx,
      'select coalesce(max(position), 0) + 1 as position from saved_group where study_id = :studyId',
      { studyId },
    );
    const to: Group = { ...(from ?? { id, studyId, position }), ...fields };
    await makeChange(tx, {
      ...maker,
      summary: from ? groupsTexts.changeGroup(from.name) : groupsTexts.newGroup(to.name),
      diff: {
        saved_group: {
          added: from ? [] : [to],
          updated: from ? [{ from, to }] : [],
          removed: [],
        },
      },
    });
  });
}

/** @throws Problem not_found, group_needed when other groups stand on it */
export async function removeGroup(em: EntityManager, maker: Maker, id: string) {
  await inChange(em, async (tx) => {
    const group = await findGroup(tx, maker.studyId, id);
    const groups = await readGroups(tx, maker.studyId);
    const variables = await readByRule(tx, maker.studyId);
    const standing = [
      ...groups.map(({ name, rule }) => ({ name, rules: [rule] })),
      ...variables.values(),
    ].filter(({ rules }) =>
      rules.flatMap(conditionsIn).some((one) => one.is === 'in_group' && one.groupId === id),
    );
    if (standing.length > 0)
      throw problems.groupNeeded(
        group.name,
        standing.map(({ name }) => name),
      );
    await makeChange(tx, {
      ...maker,
      summary: groupsTexts.removalGroup(group.name),
      diff: { saved_group: { added: [], updated: [], removed: [group] } },
    });
  });
}

/** Deeper than anybody could read. */
const DEEPEST = 12;
/** @throws Problem rule_too_deep */
export function refuseTooDeep(rule: Rule): void {
  if (depthOf(rule) > DEEPEST) throw problems.ruleTooDeep(DEEPEST);
}

async function refuseCycle(em: EntityManager, studyId: number, id: string, rule: Rule) {
  const groups = await readGroups(em, studyId);
  const variables = await readByRule(em, studyId);
  const circle = findCycle(id, rule, (ground) =>
    'groupId' in ground
      ? groups.filter((one) => one.id === ground.groupId).map((one) => one.rule)
      : (variables.get(ground.variableId)?.rules ?? []),
  );
  if (!circle) return;
  const nameOf = (ground: RuleReference) =>
    'groupId' in ground
      ? groups.find((group) => group.id === ground.groupId)?.name
      : variables.get(ground.variableId)?.name;
  throw problems.groupCircle(circle.map((ground) => nameOf(ground) ?? groupsTexts.group));
}
