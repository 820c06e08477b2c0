import { Download } from 'lucide-react';
import { studyFileAddress } from '../data/studyFiles.js';
import { saveCopyTexts as texts } from './texts.js';

/** The whole study as one file. */
export const SaveCopy = ({ study }: { study: number }) => (
  <section aria-labelledby="save-copy" className="flex flex-col items-start gap-2">
    <h2 id="save-copy">{texts.title}</h2>
    <p className="max-w-prose text-soft">{texts.why}</p>
    <a
      href={studyFileAddress(study)}
      download
      className="inline-flex items-center gap-1.5 rounded border border-rule bg-card px-3 py-1.5 font-medium hover:border-soft"
    >
      <Download size={15} aria-hidden /> {texts.save}
    </a>
  </section>
);
