import type { LeftOutOfCopy } from '@yellow-thread/contract';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { studyFileAddress } from '../data/studyFiles.js';
import { saveCopyTexts as texts } from './texts.js';

const parts: readonly LeftOutOfCopy[] = ['background', 'names_in_notes', 'history'];

/** The whole study as one file, or without what the file is to do without. */
export function SaveCopy({ study }: { study: number }) {
  const [without, setWithout] = useState<readonly LeftOutOfCopy[]>([]);
  return (
    <section aria-labelledby="save-copy" className="flex flex-col items-start gap-2">
      <h2 id="save-copy">{texts.title}</h2>
      <p className="max-w-prose text-soft">{texts.why}</p>
      <fieldset className="flex flex-wrap gap-x-6 gap-y-1">
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
      <a
        href={studyFileAddress(study, without)}
        download
        className="inline-flex items-center gap-1.5 rounded border border-rule bg-card px-3 py-1.5 font-medium hover:border-soft"
      >
        <Download size={15} aria-hidden /> {texts.save}
      </a>
    </section>
  );
}
