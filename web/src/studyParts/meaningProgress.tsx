import { useMeaning, useReadForMeaning, useStopReading } from '../data/meaning.js';
import { isUnderWay } from '../data/sheets.js';
import { Button } from '../parts/button.js';
import { ProgressLine } from '../parts/progressLine.js';
import { meaningProgressTexts } from './texts.js';

/** How far the answers of a study are read for meaning; nothing where no encoder reads them. */
export function MeaningProgress({ study }: { study: number }) {
  const { data } = useMeaning(study);
  const { mutate: read, isPending } = useReadForMeaning(study);
  const { mutate: stop } = useStopReading(study);
  if (!data?.encoder) return null;
  const { job } = data;
  const progress = job?.progress ?? null;
  if (job && isUnderWay(job))
    return (
      <p className="flex max-w-md items-center gap-3" role="status">
        <ProgressLine
          label={
            progress
              ? meaningProgressTexts.read(progress.done, progress.of)
              : meaningProgressTexts.begins
          }
          share={progress && progress.of > 0 ? progress.done / progress.of : null}
        />
        <Button look="bare" onClick={() => stop(job.id)}>
          {meaningProgressTexts.stop}
        </Button>
      </p>
    );
  if (job?.state === 'done')
    return (
      <p className="text-soft" title={meaningProgressTexts.whatItIsFor}>
        {meaningProgressTexts.allRead}
      </p>
    );
  return (
    <p className="flex flex-wrap items-center gap-3 text-soft">
      <span>
        {progress
          ? meaningProgressTexts.stopped(progress.done, progress.of)
          : meaningProgressTexts.notRead}
        {job?.problem && ` ${job.problem.sentence}`}
      </span>
      <Button look="bare" disabled={isPending} onClick={() => read()}>
        {progress ? meaningProgressTexts.goOn : meaningProgressTexts.begin}
      </Button>
    </p>
  );
}
