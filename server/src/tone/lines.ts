import type { Cut } from '@yellow-thread/core/coding';
import { TONES, type Tone } from '@yellow-thread/core/tone';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  indexIds,
  rows,
  StudyEntity,
  ToneCheckEntity,
  ToneSampleEntity,
} from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { readLookMaterial, resultsOf, type LookMaterial } from '../look/index.js';
import type { ToneLines } from './toneWork.js';

/** The lines of all answers to a question, and what people found their tone to be. */
export interface ReadLines extends ToneLines {
  material: LookMaterial;
  /** By line: the answer's place, and a place in TONES for one that a person checked, or else −1. */
  answerOf: Int32Array;
  checked: Int8Array;
  /** 1 for a line that was checked without a proposal in view. */
  atRandom: Uint8Array;
  /** By answer, 1 for one of the random sample. */
  sampled: Uint8Array;
}

/** The lines of a question: read again only after answers were written or lines were cut. */
export async function readLines(
  em: EntityManager,
  threads: Threads,
  of: { studyId: number; questionId: number },
): Promise<ReadLines> {
  const material = await readLookMaterial(em, threads, of);
  const { asides } = await em.findOneOrFail(StudyEntity, of.studyId);
  const indexOf = indexIds(material.ids);
  const stored = await rows<{ responseId: number } & Cut>(
    em,
    `select c.response_id as "responseId", c.at, c.joined from line_cut c
     join response r on r.id = c.response_id where r.question_id = :questionId
     order by c.response_id, c.at`,
    { questionId: of.questionId },
  );
  const cuts = new Map<number, Cut[]>();
  for (const { responseId, at, joined } of stored) {
    const place = indexOf(responseId);
    if (place >= 0) cuts.set(place, [...(cuts.get(place) ?? []), { at, joined }]);
  }
  const lines = await resultsOf(em).get(
    'toneLines',
    material,
    { cuts: [...cuts] },
    () => threads.run('toneLines', { texts: material.written, asides, cuts }),
    bytesOf,
  );
  return { ...lines, material, ...(await readChecked(em, of, material, lines)) };
}

const bytesOf = (lines: ToneLines): number =>
  [lines.first, lines.starts, lines.ends, lines.tones, lines.strengths].reduce(
    (sum, { byteLength }) => sum + byteLength,
    0,
  );

async function readChecked(
  em: EntityManager,
  { studyId, questionId }: { studyId: number; questionId: number },
  { ids }: LookMaterial,
  { first, starts, ends }: ToneLines,
): Promise<Pick<ReadLines, 'answerOf' | 'checked' | 'atRandom' | 'sampled'>> {
  const count = starts.length;
  const indexOf = indexIds(ids);
  const answerOf = new Int32Array(count);
  for (let a = 0; a < ids.length; a++) answerOf.fill(a, first[a], first[a + 1]);
  const checked = new Int8Array(count).fill(-1);
  const atRandom = new Uint8Array(count);
  const checks = await em.find(
    ToneCheckEntity,
    { studyId },
    { fields: ['responseId', 'start', 'end', 'tone', 'atRandom'] },
  );
  for (const { responseId, start, end, tone, atRandom: isBlind } of checks) {
    const a = indexOf(responseId);
    if (a < 0) continue;
    for (let line = first[a]!; line < first[a + 1]!; line++)
      // of a line that was cut otherwise since nothing is known
      if (starts[line] === start && ends[line] === end) {
        checked[line] = TONES.indexOf(tone as Tone);
        atRandom[line] = Number(isBlind);
      }
  }
  const sampled = new Uint8Array(ids.length);
  for (const { responseId } of await em.find(ToneSampleEntity, { questionId })) {
    const a = indexOf(responseId);
    if (a >= 0) sampled[a] = 1;
  }
  return { answerOf, checked, atRandom, sampled };
}

/** Lines of the sample that are still to be read without a proposal. */
export function linesToRead({ sampled, first, atRandom }: ReadLines): number[] {
  const lines: number[] = [];
  for (let a = 0; a < sampled.length; a++)
    if (sampled[a])
      for (let line = first[a]!; line < first[a + 1]!; line++)
        if (!atRandom[line]) lines.push(line);
  return lines;
}

/** How many answers are in the sample, and of how many every line is read. */
export function readOfSample(lines: ReadLines): { answers: number; read: number } {
  const open = new Set(linesToRead(lines).map((line) => lines.answerOf[line]!));
  const answers = lines.sampled.reduce((sum, one) => sum + one, 0);
  return { answers, read: answers - open.size };
}

/** A line as it is shown. */
export const lineAt = ({ material, answerOf, starts, ends }: ReadLines, line: number) => ({
  responseId: material.ids[answerOf[line]!]!,
  start: starts[line]!,
  end: ends[line]!,
  text: material.written[answerOf[line]!]!,
});
