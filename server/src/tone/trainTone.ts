import { isNegative, isPositive, TONES } from '@yellow-thread/core/tone';
import { blankAsides } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { raw } from '@mikro-orm/postgresql';
import {
  notifyOfRun,
  QuestionEntity,
  rows,
  StudyEntity,
  ToneCheckEntity,
  TonePredictionEntity,
  ToneRunEntity,
} from '../database/index.js';
import type { JobHandler, Threads } from '../jobs/index.js';
import { vectorsOfTexts } from '../sentences/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { problems } from '../wording/problems.js';
import { linesToRead, readLines, type ReadLines } from './lines.js';
import type { ToneExample, ToneOutcome } from './toneWork.js';

/** What changes between two runs is what was checked, never the dice. */
const SEED = 1;

/** Trains the models of a study's tone on the lines that people checked. */
export const trainTone: JobHandler = async (job, { em, threads, signal, report }) => {
  const { studyId } = job;
  const checked = await em.count(ToneCheckEntity, { studyId });
  if (checked === 0) throw problems.nothingSettled();
  const read = await readStudyLines(em, threads, studyId);
  const examples = read.flatMap(({ examples: its }) => its);
  const vectors = await vectorsOfTexts(
    em,
    studyId,
    examples.map(({ text }) => text),
  );
  const outcome = await threads.run(
    'trainTone',
    { lines: examples, seed: SEED, vectors },
    { signal, onProgress: report },
  );
  return async (tx) => {
    await rows(tx, 'delete from tone_run where study_id = :studyId', { studyId });
    const runId = await tx.insert(ToneRunEntity, {
      ...{ studyId, checked, trainedBy: job.createdBy, finishedAt: raw('now()') },
      positive: outcome.positive.measured,
      negative: outcome.negative.measured,
    });
    let from = 0;
    for (const { questionId, lines } of read) {
      const to = from + lines.starts.length;
      await tx.insert(TonePredictionEntity, {
        runId,
        questionId,
        ...kept(lines, outcome, from, to),
      });
      from = to;
    }
    await notifyOfRun(tx, studyId);
  };
};

function kept(
  { material, answerOf, starts }: ReadLines,
  { positive, negative }: { positive: ToneOutcome; negative: ToneOutcome },
  from: number,
  to: number,
) {
  const part = (all: Float32Array | null) => all && packed(all.slice(from, to));
  return {
    responseIds: packed(Int32Array.from(answerOf, (a) => material.ids[a]!)),
    starts: packed(starts),
    positive: part(positive.likely),
    negative: part(negative.likely),
    unseenPositive: part(positive.unseen),
    unseenNegative: part(negative.unseen),
  };
}

const packed = ({ buffer, byteOffset, byteLength }: Int32Array | Float32Array): Buffer =>
  Buffer.from(buffer, byteOffset, byteLength);

/** The lines of all questions of a study as the models learn from them. */
async function readStudyLines(em: EntityManager, threads: Threads, studyId: number) {
  const questions = await em.find(
    QuestionEntity,
    { studyId },
    { fields: ['id'], orderBy: { id: 'asc' } },
  );
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const read: { questionId: number; lines: ReadLines; examples: ToneExample[] }[] = [];
  const slice = startTimeSlice();
  for (const { id: questionId } of questions) {
    const lines = await readLines(em, threads, { studyId, questionId });
    const { material, answerOf, starts, ends, checked, tones, sampled } = lines;
    // shares may rest on a sample only when it is read to its end
    const isWhole = linesToRead(lines).length === 0;
    const said = material.written.map((text) => blankAsides(text, asides));
    const examples: ToneExample[] = [];
    for (let line = 0; line < starts.length; line++) {
      const a = answerOf[line]!;
      const found = checked[line]! < 0 ? null : TONES[checked[line]!]!;
      examples.push({
        text: said[a]!.slice(starts[line], ends[line]),
        isPositive: found && isPositive(found),
        isNegative: found !== null && isNegative(found),
        random: isWhole && sampled[a] === 1,
        lexicon: TONES[tones[line]!]!,
      });
      if (slice.isOver()) await slice.next();
    }
    read.push({ questionId, lines, examples });
  }
  return read;
}
