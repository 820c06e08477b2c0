import type { Job } from '@yellow-thread/contract';
import { Button } from './button.js';
import { ProgressLine } from './progressLine.js';
import { jobProgressTexts } from './texts.js';

/** A job that is under way, and a way to cancel it. */
export function JobProgress({
  label,
  job,
  onCancel,
}: {
  label: string;
  /** Not known yet when it has just begun. */
  job: Job | undefined;
  onCancel: () => void;
}) {
  const progress = job?.progress;
  return (
    <span className="flex w-full items-center gap-3">
      <ProgressLine label={label} share={progress ? progress.done / progress.of : null} />
      <Button onClick={onCancel}>{jobProgressTexts.cancel}</Button>
    </span>
  );
}

/** What a job failed of, where it did. */
export function JobProblem({ job }: { job: Job | undefined }) {
  if (job?.state !== 'failed' || !job.problem) return null;
  return (
    <p role="alert" className="text-brick">
      {job.problem.sentence}
    </p>
  );
}
