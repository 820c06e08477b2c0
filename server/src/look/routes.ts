import {
  api,
  FILE_TYPES,
  GRAPHML,
  type Look,
  type NetworkQuery,
  type WordNetwork,
} from '@yellow-thread/contract';
import { conditionsIn, has } from '@yellow-thread/core/groups';
import { topicName, type LeftOut } from '@yellow-thread/core/look';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { App } from '../app.types.js';
import { findWithheld } from '../coding/index.js';
import { StudyEntity } from '../database/index.js';
import { nameFile } from '../exchange/index.js';
import { MISSING, readColumns, readPeople, respondentsOfRule } from '../groups/index.js';
import type { Threads } from '../jobs/index.js';
import { makerOf, requireAccount } from '../people/index.js';
import { DONE, route } from '../route.js';
import { findQuestion } from '../study/index.js';
import { bringClusterBack, decideCluster, readClusters, readRepresentatives } from './clusters.js';
import { answersOf, readLookMaterial, type LookMaterial } from './material.js';
import { networkFile } from './networkFile.js';
import { resultsOf } from './results.js';

/** Reads what is looked at of a question, by some respondents or all. */
type ReadAsked = (
  em: EntityManager,
  studyId: number,
  questionId: number,
  within: readonly number[] | null,
) => Promise<{
  question: { label: string; wording: string };
  material: LookMaterial;
  leftOut: LeftOut;
  included: Uint8Array | null;
}>;

export function lookRoutes(app: App, threads: Threads): void {
  /** What is looked at of a question. */
  const readAsked: ReadAsked = async (em, studyId, questionId, within) => {
    const question = await findQuestion(em, studyId, questionId);
    const material = await readLookMaterial(em, threads, { studyId, questionId });
    const { setAside } = await em.findOneOrFail(StudyEntity, studyId);
    const leftOut = { question: question.wording, setAside: setAside ?? [] };
    return { question, material, leftOut, included: answersOf(material, within) };
  };

  clusterRoutes(app, threads, readAsked);
  route(app, api.lookAtQuestion, async (request): Promise<Look> => {
    const { em, params } = request;
    const asked = await readAsked(em, params.study, params.question, await request.within());
    const { material, leftOut, included } = asked;
    const counted = await resultsOf(em).get('look', material, { leftOut, included }, async () =>
      threads.run('look', { terms: await material.terms(), leftOut, included }),
    );
    return { answered: countOf(material, included), ...counted };
  });

  route(app, api.contrastWords, async (request) => {
    const { em, params, query } = request;
    const asked = await readAsked(em, params.study, params.question, await request.within());
    const { material, leftOut, included } = asked;
    const inGroup = answersOf(material, await respondentsOfRule(em, params.study, query.of))!;
    return resultsOf(em).get('contrast', material, { leftOut, included, inGroup }, async () =>
      threads.run('contrast', { terms: await material.terms(), leftOut, included, inGroup }),
    );
  });

  const readNetwork = async (
    em: EntityManager,
    { study, question: questionId }: { study: number; question: number },
    query: NetworkQuery,
    within: readonly number[] | null,
  ): Promise<{ label: string; network: WordNetwork }> => {
    const { question, ...asked } = await readAsked(em, study, questionId, within);
    const { material, leftOut, included } = asked;
    const { labels, columnOf } = await readColumnsOf(em, study, material, query.by);
    const { hidden } = query;
    const columns = labels.length;
    const figures = await resultsOf(em).get(
      'network',
      material,
      { leftOut, included, hidden, columnOf, columns },
      async () =>
        threads.run('network', {
          lines: await material.lines(),
          ...{ leftOut, included, hidden, columnOf, columns },
        }),
    );
    const places = included ? [...included.keys()].filter((a) => included[a]) : null;
    const quoted = (indices: readonly number[]) =>
      indices.map((index) => {
        const a = places ? places[index]! : index;
        return { id: material.ids[a]!, text: material.texts[a]! };
      });
    const topicOf = new Map(
      figures.topics.flatMap(({ words }, topic) => words.map((word) => [word, topic])),
    );
    return {
      label: question.label,
      network: {
        answered: countOf(material, included),
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
      },
    };
  };
  route(app, api.getWordNetwork, async (request) => {
    const { em, params, query } = request;
    return (await readNetwork(em, params, query, await request.within())).network;
  });
  route(app, api.downloadWordNetwork, async (request, reply) => {
    const { em, params, query } = request;
    const { label, network } = await readNetwork(em, params, query, await request.within());
    const { name } = await em.findOneOrFail(StudyEntity, params.study);
    const isGraph = params.format === 'graphml';
    const [what] = params.format.split('.');
    nameFile(
      reply.type(isGraph ? GRAPHML : FILE_TYPES.csv),
      [name, 'words-together', label, ...(isGraph ? [] : [what!])],
      isGraph ? 'graphml' : 'csv',
    );
    return reply.send(networkFile(network, params.format));
  });
}

/** What people say, laid out: answers gathered by likeness, and the few that stand for most. */
function clusterRoutes(app: App, threads: Threads, readAsked: ReadAsked): void {
  route(app, api.getAnswerClusters, async (request) => {
    const { em, params, query } = request;
    const asked = await readAsked(em, params.study, params.question, await request.within());
    const of = { ...asked, studyId: params.study, questionId: params.question };
    return readClusters(em, threads, of, query.k ?? null);
  });
  route(app, api.getRepresentatives, async (request) => {
    const { em, params, query } = request;
    const asked = await readAsked(em, params.study, params.question, await request.within());
    const { material, included } = asked;
    const chosen =
      query.of && answersOf(material, await respondentsOfRule(em, params.study, query.of));
    if (chosen && query.of && conditionsIn(query.of).some(({ is }) => is === 'mentions')) {
      // that an answer is chosen by its codes would say how it was coded
      const reader = requireAccount(request).id;
      const ids = material.ids.filter((_, a) => chosen[a]);
      const withheld = await findWithheld(em, reader, [...ids]);
      for (const [a, id] of material.ids.entries()) if (withheld.has(id)) chosen[a] = 0;
    }
    const both = chosen && included ? chosen.map((one, a) => one & included[a]!) : null;
    return readRepresentatives(
      em,
      threads,
      {
        ...asked,
        studyId: params.study,
        questionId: params.question,
        included: both ?? chosen ?? included,
      },
      query.count,
    );
  });
  route(app, api.decideCluster, async (request) => {
    const { em, params, body } = request;
    const { id: questionId } = await findQuestion(em, params.study, params.question);
    await decideCluster(
      em,
      makerOf(request, params.study),
      { id: params.cluster, questionId },
      body,
    );
    return DONE;
  });
  route(app, api.bringClusterBack, async (request) => {
    const { em, params } = request;
    const { id: questionId } = await findQuestion(em, params.study, params.question);
    await bringClusterBack(em, makerOf(request, params.study), { id: params.cluster, questionId });
    return DONE;
  });
}

const countOf = ({ ids }: LookMaterial, included: Uint8Array | null): number =>
  included ? included.reduce((sum, one) => sum + one, 0) : ids.length;

function countColumn(columnOf: Int16Array, column: number, included: Uint8Array | null): number {
  let count = 0;
  for (let a = 0; a < columnOf.length; a++)
    if (columnOf[a] === column && (!included || included[a])) count += 1;
  return count;
}

/** The values of a variable, without those who have none, and which one each answer's respondent has. */
async function readColumnsOf(
  em: EntityManager,
  studyId: number,
  { respondents }: LookMaterial,
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
