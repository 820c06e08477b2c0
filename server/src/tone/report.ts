import type { ToneReport } from '@yellow-thread/contract';
import { linesOfPassage } from '@yellow-thread/core/coding';
import { countOf, fullBitset, has, intersect } from '@yellow-thread/core/groups';
import {
  FEWEST_SPOKEN,
  isNegative,
  isPositive,
  TONES,
  toneShares,
  type SpokenOf,
  type Tone,
} from '@yellow-thread/core/tone';
import type { EntityManager } from '@mikro-orm/postgresql';
import { codesOf, themesOf } from '../codebook/index.js';
import { rows } from '../database/index.js';
import {
  MISSING,
  readColumns,
  readMaterial,
  readPeople,
  setOf,
  type People,
  type QuestionMaterial,
} from '../groups/index.js';
import type { Threads } from '../jobs/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { toneFileTexts } from '../wording/tone.js';
import { linesToRead, readLines, readOfSample, type ReadLines } from './lines.js';
import { readLikely, readToneModel } from './runs.js';

/** Who speaks of something, and in which of their lines. */
type Spoken = Map<number, number[]>;
interface SpokenRow {
  themeId: string | null;
  codeId: string | null;
  name: string;
  spoken: Spoken;
}

/** How people speak of each theme and code, in all and by a background variable. */
export async function readToneReport(
  em: EntityManager,
  threads: Threads,
  of: { studyId: number; questionId: number },
  { by, within }: { by: number | null; within: readonly number[] | null },
): Promise<ToneReport> {
  const { studyId, questionId } = of;
  const lines = await readLines(em, threads, of);
  const people = await readPeople(em, studyId);
  const material = await readMaterial(em, people, questionId);
  const restriction = within ? setOf(people, within) : fullBitset(people.ids.length);
  const groups = by === null ? [] : await readColumns(em, { people, studyId, variableId: by });
  const columns = [
    { label: toneFileTexts.everybody, members: restriction },
    ...groups
      .filter(({ key }) => key !== MISSING)
      .map(({ label, members }) => ({ label, members: intersect(members, restriction) })),
  ];
  const sample = readOfSample(lines);
  // the sample speaks for everybody only when it is read to its end
  const isWhole = sample.answers > 0 && linesToRead(lines).length === 0;
  const trained = isWhole ? await readToneModel(em, studyId) : null;
  const likely = trained && (await readLikely(em, { runId: trained.runId, questionId }, lines));
  const tones = toneMaterial(lines, likely);
  const cellsOf = (spoken: Spoken) =>
    columns.map(({ members }) => {
      const its: SpokenOf[] = [];
      for (const [i, spokenIn] of spoken)
        if (has(members, i))
          its.push({
            lines: spokenIn,
            isSampled: isWhole && lines.sampled[lines.answerOf[spokenIn[0]!]!] === 1,
            weight: people.weights?.[i] ?? 1,
          });
      return toneShares(its, tones);
    });
  const asked = await readRows(em, { studyId, lines, people, material, questionId });
  const found: ToneReport['rows'] = [];
  const slice = startTimeSlice();
  for (const { spoken, ...row } of asked) {
    found.push({ ...row, cells: cellsOf(spoken) });
    if (slice.isOver()) await slice.next();
  }
  return {
    sample,
    fewest: FEWEST_SPOKEN,
    withModels: tones.positive !== null || tones.negative !== null,
    columns: columns.map(({ label, members }) => ({
      label,
      answered: countOf(intersect(members, material.answered)),
    })),
    rows: found,
  };
}

/** A row for all answers, and one for each theme and code that is in use. */
async function readRows(
  em: EntityManager,
  { studyId, ...of }: Parameters<typeof readSpoken>[1] & { studyId: number },
): Promise<SpokenRow[]> {
  const { all, byCode } = await readSpoken(em, of);
  const codes = (await codesOf(em, studyId)).filter(
    ({ id, archived }) => !archived && byCode.has(id),
  );
  const found: SpokenRow[] = [
    { themeId: null, codeId: null, name: toneFileTexts.all, spoken: all },
  ];
  for (const theme of [...(await themesOf(em, studyId)), null]) {
    const its = codes.filter(({ themeId }) => themeId === (theme?.id ?? null));
    if (theme && its.length > 0) {
      const spoken = merged(its.map(({ id }) => byCode.get(id)!));
      found.push({ themeId: theme.id, codeId: null, name: theme.name, spoken });
    }
    for (const { id, themeId, name } of its)
      found.push({ themeId, codeId: id, name, spoken: byCode.get(id)! });
  }
  return found;
}

function toneMaterial(
  { checked, atRandom }: ReadLines,
  likely: Awaited<ReturnType<typeof readLikely>> | null,
) {
  const isOf = (is: (tone: Tone) => boolean) =>
    Uint8Array.from(checked, (found, line) =>
      Number(atRandom[line] === 1 && found >= 0 && is(TONES[found]!)),
    );
  return {
    isPositive: isOf(isPositive),
    isNegative: isOf(isNegative),
    positive: likely?.unseenPositive ?? null,
    negative: likely?.unseenNegative ?? null,
  };
}

function merged(all: readonly Spoken[]): Spoken {
  const together: Spoken = new Map();
  for (const spoken of all)
    for (const [i, lines] of spoken)
      together.set(i, [...new Set([...(together.get(i) ?? []), ...lines])]);
  return together;
}

/** By code, who mentions it and in which lines, where its answers count; and the lines of everybody. */
async function readSpoken(
  em: EntityManager,
  {
    lines,
    people,
    material,
    questionId,
  }: { lines: ReadLines; people: People; material: QuestionMaterial; questionId: number },
): Promise<{ all: Spoken; byCode: Map<string, Spoken> }> {
  const { first, starts, ends } = lines;
  const { ids, respondents } = lines.material;
  const linesOfAnswer = (a: number) =>
    Array.from({ length: first[a + 1]! - first[a]! }, (_, l) => first[a]! + l);
  const all: Spoken = new Map();
  const placeOf = new Map<number, number>();
  for (let a = 0; a < ids.length; a++) {
    const i = people.indexOf(respondents[a]!);
    if (i < 0 || first[a + 1] === first[a]) continue;
    all.set(i, linesOfAnswer(a));
    placeOf.set(ids[a]!, a);
  }
  const mentions = await rows<{
    responseId: number;
    codeId: string;
    start: number | null;
    end: number | null;
  }>(
    em,
    `select m.response_id as "responseId", m.code_id as "codeId", m.start, m."end" from mention m
     join response r on r.id = m.response_id where r.question_id = :questionId order by m.id`,
    { questionId },
  );
  const counted = intersect(material.decided, material.answered);
  const byCode = new Map<string, Spoken>();
  const slice = startTimeSlice();
  for (const { responseId, codeId, start, end } of mentions) {
    if (slice.isOver()) await slice.next();
    const a = placeOf.get(responseId);
    if (a === undefined) continue;
    const i = people.indexOf(respondents[a]!);
    if (!has(counted, i)) continue;
    const its = linesOfAnswer(a);
    const passage = start === null || end === null ? null : { start, end };
    const spans = its.map((line) => ({ start: starts[line]!, end: ends[line]! }));
    const spoken = byCode.get(codeId) ?? new Map<number, number[]>();
    const known = spoken.get(i) ?? [];
    spoken.set(i, [...new Set([...known, ...linesOfPassage(spans, passage).map((l) => its[l]!)])]);
    byCode.set(codeId, spoken);
  }
  return { all, byCode };
}
