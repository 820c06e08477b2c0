import type { CodesTogether, TogetherQuery } from '@yellow-thread/contract';
import { linesOf, lineOfPassage, type Cut } from '@yellow-thread/core/coding';
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
import { cutsAsJson } from '../coding/index.js';
import { CodeEntity, rows, StudyEntity, type QuestionRow } from '../database/index.js';
import { readMaterial, readPeople } from '../groups/index.js';
import { asSet } from './report.js';
import { isFinished, ofOneQuestion } from './tableMaterial.js';

/** Codes with nobody are left out, and no more are shown than fit on a page. */
const MOST_CODES = 60;

/** How often every two codes stand in one answer, or in one line of it. */
export async function readTogether(
  em: EntityManager,
  studyId: number,
  question: QuestionRow,
  { inOne, counts: asked }: TogetherQuery,
  within: readonly number[] | null,
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
      ? countTogether(known, members)
      : await togetherInLines(em, studyId, question.id, known, (responseIds) => {
          const ids = new Set<number>();
          material.responseOf.forEach((id, i) => {
            if (has(members, i)) ids.add(id);
          });
          return responseIds.filter((id) => ids.has(id));
        });
  return {
    counts,
    codes: known.map(({ id, name }, c) => ({
      ...{ id, name },
      ...{ n: counted[c]!.n, found: counted[c]!.people, cells: counted[c]!.cells },
    })),
  };
}

/** Lines take the place of respondents: those of settled answers, whose every line is read. */
async function togetherInLines(
  em: EntityManager,
  studyId: number,
  questionId: number,
  codes: readonly { id: string }[],
  among: (responseIds: number[]) => number[],
) {
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const answers = await rows<{
    id: number;
    text: string;
    cuts: Cut[] | null;
    mentions: { codeId: string; start: number | null }[] | null;
  }>(
    em,
    `select r.id, r.text, ${cutsAsJson} as cuts,
       (select jsonb_agg(jsonb_build_object('codeId', m.code_id, 'start', m.start))
        from mention m where m.response_id = r.id) as mentions
     from response r where r.question_id = ? and not r.no_answer
       and exists (select 1 from settlement s where s.response_id = r.id)`,
    [questionId],
  );
  const chosen = new Set(among(answers.map(({ id }) => id)));
  const place = new Map(codes.map(({ id }, c) => [id, c]));
  const mentionedIn: number[][] = codes.map(() => []);
  let lines = 0;
  for (const { id, text, cuts, mentions } of answers) {
    if (!chosen.has(id)) continue;
    const own = linesOf(text, asides, cuts ?? []).filter((line) => !line.isAside);
    for (const { codeId, start } of mentions ?? []) {
      const c = place.get(codeId);
      if (c === undefined) continue;
      // what is said of the whole answer is said of each of its lines
      const at = start === null ? null : lineOfPassage(own, { start, end: start });
      own.forEach((_, l) => {
        if (at === null || at === l) mentionedIn[c]!.push(lines + l);
      });
    }
    lines += own.length;
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
  );
}
