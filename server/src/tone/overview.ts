import type { ProposedTone, ToneOverview } from '@yellow-thread/contract';
import { likelyTone, scoreTone, TONES, type Tone } from '@yellow-thread/core/tone';
import type { EntityManager } from '@mikro-orm/postgresql';
import { row } from '../database/index.js';
import { newestJob, type Threads } from '../jobs/index.js';
import { answersOf } from '../look/index.js';
import { toneLexicon } from './lexicon.js';
import { lineAt, linesToRead, readLines, readOfSample, type ReadLines } from './lines.js';
import { readLikely, readToneModel, type ToneLikely } from './runs.js';

/** How the tone of a question's lines stands, with the next few to be checked. */
export async function readTone(
  em: EntityManager,
  threads: Threads,
  of: { studyId: number; questionId: number },
  { limit, within }: { limit: number; within: readonly number[] | null },
): Promise<ToneOverview> {
  const lines = await readLines(em, threads, of);
  const trained = await readToneModel(em, of.studyId);
  const likely =
    trained && (await readLikely(em, { runId: trained.runId, questionId: of.questionId }, lines));
  const source = likely?.positive || likely?.negative ? 'models' : 'lexicon';
  const proposed = source === 'models' ? proposedByModels(likely!) : lines;
  const included = answersOf(lines.material, within);
  const isAsked = (line: number) => !included || included[lines.answerOf[line]!] === 1;
  const counts = { proposed: noCounts(), checked: noCounts() };
  const agreed = { right: 0, of: 0 };
  const open: number[] = [];
  let count = 0;
  for (let line = 0; line < lines.starts.length; line++) {
    if (!isAsked(line)) continue;
    count += 1;
    const found = lines.checked[line]!;
    if (found < 0) {
      const tone = TONES[proposed.tones[line]!]!;
      counts.proposed[tone] += 1;
      // the sample is read without a proposal
      if (tone !== 'none' && !lines.sampled[lines.answerOf[line]!]) open.push(line);
      continue;
    }
    counts.checked[TONES[found]!] += 1;
    const said = TONES[lines.tones[line]!]!;
    if (said === 'none') continue;
    agreed.of += 1;
    if (TONES[found] === said) agreed.right += 1;
  }
  const strongest = strongestOf(open, proposed.strengths, limit);
  const lexicon = await toneLexicon();
  return {
    lines: count,
    ...counts,
    agreed,
    proposals: strongest.map((line): ProposedTone => {
      const shown = lineAt(lines, line);
      const { words } = scoreTone(shown.text.slice(shown.start, shown.end), lexicon);
      return {
        ...shown,
        tone: TONES[proposed.tones[line]!]!,
        strength: proposed.strengths[line]!,
        words: words.map(({ start, end, rating }) => ({
          ...{ start: shown.start + start, end: shown.start + end, rating },
        })),
      };
    }),
    source,
    model: trained?.model ?? null,
    checkedSince: await countCheckedSince(em, of.studyId, trained?.model.checked ?? 0),
    job: await newestJob(em, 'train_tone', { studyId: of.studyId }),
    sample: readOfSample(lines),
    toRead: linesToRead(lines)
      .slice(0, limit)
      .map((line) => lineAt(lines, line)),
  };
}

const noCounts = (): Record<Tone, number> => ({ positive: 0, negative: 0, mixed: 0, none: 0 });

/** What models hold lines to be, as the lexicon says it. */
function proposedByModels({
  positive,
  negative,
}: ToneLikely): Pick<ReadLines, 'tones' | 'strengths'> {
  const count = (positive ?? negative)!.length;
  const tones = new Uint8Array(count);
  const strengths = new Float32Array(count);
  for (let line = 0; line < count; line++) {
    const { tone, strength } = likelyTone(positive?.[line] ?? 0, negative?.[line] ?? 0);
    tones[line] = TONES.indexOf(tone);
    strengths[line] = strength;
  }
  return { tones, strengths };
}

/** The few strongest, strongest first, without sorting all. */
function strongestOf(lines: readonly number[], strengths: Float32Array, limit: number): number[] {
  const before = (x: number, y: number) => strengths[y]! - strengths[x]! || x - y;
  let kept: number[] = [];
  for (const line of lines) {
    kept.push(line);
    if (kept.length >= 8 * limit) kept = kept.sort(before).slice(0, limit);
  }
  return kept.sort(before).slice(0, limit);
}

async function countCheckedSince(
  em: EntityManager,
  studyId: number,
  learntFrom: number,
): Promise<number> {
  const { checked } = await row<{ checked: number }>(
    em,
    'select count(*)::int as checked from tone_check where study_id = :studyId',
    { studyId },
  );
  return Math.max(0, checked - learntFrom);
}
