import type { CodesTogether, TogetherQuery } from '@yellow-thread/contract';
import { linesOf, linesOfPassage, type Cut } from '@yellow-thread/core/coding';
import {
  addTo,
  countOf,
  emptyBitset,
  fullBitset,
  has,
  intersect,
  type Bitset,
} from '@yellow-thread/core/groups';
import { countTogether } from '@yellow-thread/core/report';
import type { EntityManager } from '@mikro-orm/postgresql';
import { asCode } from '../codebook/index.js';
import { CodeEntity, cutsAsJson, rows, StudyEntity, type QuestionRow } from '../database/index.js';
import { readMaterial, readPeople } from '../groups/index.js';
import { asSet } from './report.js';
import { isFinished, ofOneQuestion } from './tableMaterial.js';

/** Codes with nobody are left out, and no more are shown than fit on a page. */
const MOST_CODES = 60;

/** How often every two codes stand in one answer, or in one line of it. */
export async function readTogether(
  em: EntityManager,
  {
    studyId,
    question,
    query: { inOne, counts: asked },
    within,
  }: {
    studyId: number;
    question: QuestionRow;
    query: TogetherQuery;
    within: readonly number[] | null;
  },
): Promise<CodesTogether> {
  const people = await readPeople(em, studyId);
  const material = await readMaterial(em, people, question.id);
  const stored = await em.find(CodeEntity, { studyId }, { orderBy: { position: 'asc' } });
  const restriction = asSet(people, within) ?? fullBitset(people.ids.length);
  const finished = isFinished(ofOneQuestion(material, null), restriction);
  // lines are read whole, and so only where somebody settled the answer
  const usual = finished && inOne === 'answer' ? 'decided' : 'settled';
  const counts = asked && (asked !== 'decided' || usual === 'decided') ? asked : usual;
  const members = intersect(restriction, material.countedBy(counts));
  const known = stored
    .map(asCode)
    .flatMap(({ id, name }) => {
      if (!material.codes.has(id)) return [];
      const { mentioned, decided } = material.rowOf(id, counts);
      return [{ id, name, mentioned, decided }];
    })
    .map((code) => ({
      ...code,
      people: countOf(intersect(intersect(code.mentioned, code.decided), members)),
    }))
    .filter((code) => code.people > 0)
    .sort((x, y) => y.people - x.people)
    .slice(0, MOST_CODES);
  const counted =
    inOne === 'answer'
      ? countTogether(known, members, people.weights)
      : await togetherInLines(em, {
          studyId,
          questionId: question.id,
          codes: known,
          asked: {
            chosen: weightByAnswer(material.responseOf, members, people.weights),
            isWeighted: people.weights !== null,
          },
        });
  return {
    counts,
    weighted: people.weights !== null,
    codes: known.map(({ id, name }, c) => {
      const { n, people: found, unweighted, cells } = counted[c]!;
      return {
        id,
        name,
        n,
        found,
        unweighted: { n: unweighted.n, found: unweighted.people },
        cells,
      };
    }),
  };
}

/** The weights of some people by the answer that each gave. */
function weightByAnswer(responseOf: Int32Array, members: Bitset, weights: Float64Array | null) {
  const byAnswer = new Map<number, number>();
  responseOf.forEach((id, i) => {
    if (has(members, i)) byAnswer.set(id, weights?.[i] ?? 1);
  });
  return byAnswer;
}

/**
 * Lines take the place of respondents: those of settled answers, whose every line is read.
 *
 * @param chosen the answers that count, with their weights
 */
async function togetherInLines(
  em: EntityManager,
  {
    studyId,
    questionId,
    codes,
    asked: { chosen, isWeighted },
  }: {
    studyId: number;
    questionId: number;
    codes: readonly { id: string }[];
    asked: { chosen: ReadonlyMap<number, number>; isWeighted: boolean };
  },
) {
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const answers = await rows<{
    id: number;
    text: string;
    cuts: Cut[] | null;
    mentions: { codeId: string; start: number | null; end: number | null }[] | null;
  }>(
    em,
    `select r.id, r.text, ${cutsAsJson} as cuts,
       (select jsonb_agg(jsonb_build_object('codeId', m.code_id, 'start', m.start, 'end', m."end"))
        from mention m where m.response_id = r.id) as mentions
     from response r where r.question_id = :questionId and not r.no_answer
       and exists (select 1 from settlement s where s.response_id = r.id)`,
    { questionId },
  );
  const place = new Map(codes.map(({ id }, c) => [id, c]));
  const mentionedIn: number[][] = codes.map(() => []);
  const weights: number[] = [];
  let lines = 0;
  for (const { id, text, cuts, mentions } of answers) {
    const weight = chosen.get(id);
    if (weight === undefined) continue;
    const own = linesOf(text, asides, cuts ?? []).filter((line) => !line.isAside);
    for (const { codeId, start, end } of mentions ?? []) {
      const c = place.get(codeId);
      if (c === undefined) continue;
      const passage = start === null || end === null ? null : { start, end };
      // a code of the whole answer applies to each of its lines
      for (const l of linesOfPassage(own, passage)) mentionedIn[c]!.push(lines + l);
    }
    lines += own.length;
    weights.push(...own.map(() => weight));
  }
  const all = fullBitset(lines);
  const setOf = (members: readonly number[]): Bitset => {
    const set = emptyBitset(lines);
    for (const i of members) addTo(set, i);
    return set;
  };
  return countTogether(
    mentionedIn.map((members) => ({ mentioned: setOf(members), decided: all })),
    all,
    isWeighted ? Float64Array.from(weights) : null,
  );
}
