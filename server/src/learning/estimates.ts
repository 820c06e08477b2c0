import type { TrainingInput } from '@yellow-thread/core/learning';
import type { EntityManager } from '@mikro-orm/postgresql';
import { isoTime, rows, RunPredictionEntity, RunSampleEntity } from '../database/index.js';

/** What shares are estimated from: a run's answers, the random sample of them, and what is known of each code. */
export interface RunEstimates {
  trainedAt: string;
  /** By answer: the id of who gave it. */
  respondents: Int32Array;
  /** Positions of the random sample among the answers. */
  sampled: Int32Array;
  codes: Map<string, CodeEstimates>;
}

export interface CodeEstimates {
  /** 0 or 1 for each of the sample. */
  mentioned: Uint8Array;
  /** By answer, by models that did not see it; null where too few of the sample mention the code. */
  predicted: Float32Array | null;
}

/** Keeps with a run what shares can be estimated from; nothing where no random sample is settled to the last. */
export async function keepEstimates(
  em: EntityManager,
  {
    runId,
    input: { answers, codes },
    respondents,
    crossFitted,
  }: {
    runId: number;
    input: TrainingInput;
    respondents: readonly number[];
    crossFitted: ReadonlyMap<string, Float32Array>;
  },
): Promise<void> {
  const sampled = answers.flatMap(({ settled, random }, i) => (settled && random ? [i] : []));
  if (sampled.length === 0) return;
  await em.insert(RunSampleEntity, {
    runId,
    respondents: packed(Int32Array.from(respondents)),
    sampled: packed(Int32Array.from(sampled)),
  });
  for (const { id, parts } of codes) {
    // a theme's predictions are made of those of its codes, whatever these are by then
    if (parts) continue;
    const predicted = crossFitted.get(id);
    await em.insert(RunPredictionEntity, {
      runId,
      codeId: id,
      mentioned: packed(Uint8Array.from(sampled, (i) => Number(answers[i]!.codes.has(id)))),
      predicted: predicted ? packed(predicted) : null,
    });
  }
}

/** What shares of a question can be estimated from by the current run; null where that has no random sample. */
export async function readEstimates(
  em: EntityManager,
  runId: number,
  codeIds: readonly string[],
): Promise<RunEstimates | null> {
  const [sample] = await rows<{ trainedAt: string; respondents: Buffer; sampled: Buffer }>(
    em,
    `select ${isoTime('t.finished_at')} as "trainedAt", s.respondents, s.sampled
     from run_sample s join training_run t on t.id = s.run_id where s.run_id = :runId`,
    { runId },
  );
  if (!sample) return null;
  const found = await rows<{ codeId: string; mentioned: Buffer; predicted: Buffer | null }>(
    em,
    `select code_id as "codeId", mentioned, predicted from run_prediction
     where run_id = :runId and code_id = any(:codeIds::uuid[])`,
    { runId, codeIds },
  );
  return {
    trainedAt: sample.trainedAt,
    respondents: new Int32Array(unpacked(sample.respondents)),
    sampled: new Int32Array(unpacked(sample.sampled)),
    codes: new Map(
      found.map(({ codeId, mentioned, predicted }) => [
        codeId,
        {
          mentioned: new Uint8Array(unpacked(mentioned)),
          predicted: predicted && new Float32Array(unpacked(predicted)),
        },
      ]),
    ),
  };
}

const packed = ({ buffer, byteOffset, byteLength }: Int32Array | Uint8Array | Float32Array) =>
  Buffer.from(buffer, byteOffset, byteLength);

/** A copy of its own: what comes from the database need not begin where a number may. */
const unpacked = (bytes: Buffer): ArrayBuffer => new Uint8Array(bytes).buffer;
