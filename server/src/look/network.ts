import type { NetworkQuery, WordNetwork } from '@yellow-thread/contract';
import { has } from '@yellow-thread/core/groups';
import { topicName } from '@yellow-thread/core/look';
import type { EntityManager } from '@mikro-orm/postgresql';
import { MISSING, readColumns, readPeople } from '../groups/index.js';
import type { Threads } from '../jobs/index.js';
import { countOf, placesOf, quoteAt, type Looked } from './looked.js';
import { resultsOf } from './results.js';

/** The words that keep company in the answers that are looked at, and their topics. */
export async function readNetwork(
  em: EntityManager,
  threads: Threads,
  looked: Looked,
  { hidden, by }: NetworkQuery,
): Promise<WordNetwork> {
  const { material, leftOut, included } = looked;
  const { labels, columnOf } = await readColumnsOf(em, looked, by);
  const asked = { leftOut, included, hidden, columnOf, columns: labels.length };
  const figures = await resultsOf(em).get('network', material, asked, async () =>
    threads.run('network', { lines: await material.lines(), ...asked }),
  );
  const places = included && placesOf(looked);
  const quoted = (indices: readonly number[]) =>
    indices.map((index) => quoteAt(material, places ? places[index]! : index));
  const topicOf = new Map(
    figures.topics.flatMap(({ words }, topic) => words.map((word) => [word, topic])),
  );
  return {
    answered: countOf(looked),
    lines: figures.lines,
    words: figures.words.map(({ word, answers }, i) => ({
      ...{ word, answers },
      topic: topicOf.get(i) ?? null,
    })),
    links: figures.links,
    modularity: figures.modularity,
    columns: labels.map((label, column) => ({
      label,
      answers: countColumn(columnOf!, column, included),
    })),
    topics: figures.topics.map((topic) => ({
      ...topic,
      name: topicName(topic.words.map((word) => figures.words[word]!.word)),
      typical: quoted(topic.typical),
    })),
    gaps: figures.gaps.map((gap) => ({ ...gap, joined: quoted(gap.joined) })),
  };
}

function countColumn(columnOf: Int16Array, column: number, included: Uint8Array | null): number {
  let count = 0;
  for (let a = 0; a < columnOf.length; a++)
    if (columnOf[a] === column && (!included || included[a])) count += 1;
  return count;
}

/** The values of a variable, without those who have none, and which one each answer's respondent has. */
async function readColumnsOf(
  em: EntityManager,
  { studyId, material: { respondents } }: Looked,
  variableId: number | undefined,
): Promise<{ labels: string[]; columnOf: Int16Array | null }> {
  if (variableId === undefined) return { labels: [], columnOf: null };
  const people = await readPeople(em, studyId);
  const columns = await readColumns(em, { people, studyId, variableId });
  const stated = columns.filter(({ key }) => key !== MISSING);
  const columnOf = Int16Array.from(respondents, (id) => {
    const i = people.indexOf(id);
    return i < 0 ? -1 : stated.findIndex(({ members }) => has(members, i));
  });
  return { labels: stated.map(({ label }) => label), columnOf };
}
