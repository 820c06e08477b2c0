import type { LeftOutOfCopy } from '@yellow-thread/contract';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { useSaveCopy } from '../data/studyFiles.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { ProgressLine } from '../parts/progressLine.js';
import { saveCopyTexts as texts } from './texts.js';

const parts: readonly LeftOutOfCopy[] = ['background', 'names_in_notes', 'history'];

/** The whole study as one file, or without what the file is to do without. */
export function SaveCopy({ study }: { study: number }) {
  const [without, setWithout] = useState<readonly LeftOutOfCopy[]>([]);
  const save = useSaveCopy(study);
  return (
    <section aria-labelledby="save-copy" className="flex flex-col items-start gap-2">
      <h2 id="save-copy">{texts.title}</h2>
      <p className="max-w-prose text-soft">{texts.why}</p>
      <fieldset className="flex flex-wrap gap-x-6 gap-y-1" disabled={save.isPending}>
        <legend className="mb-1 font-medium">{texts.exclude}</legend>
        {parts.map((part) => (
          <label key={part} className="inline-flex items-center gap-2">
            <input
              type="checkbox"
              checked={without.includes(part)}
              onChange={({ target }) =>
                setWithout(
                  target.checked ? [...without, part] : without.filter((one) => one !== part),
                )
              }
            />
            {texts.parts[part]}
          </label>
        ))}
      </fieldset>
      {save.isPending ? (
        <div className="flex w-full max-w-prose items-center gap-3">
          <ProgressLine label={texts.saving(save.bytes)} share={null} />
          <Button onClick={save.cancel}>{texts.cancel}</Button>
        </div>
      ) : (
        <Button onClick={() => save.mutate(without)}>
          <Download size={15} aria-hidden /> {texts.save}
        </Button>
      )}
      {save.isError && <ProblemNote error={save.error} />}
    </section>
  );
}
