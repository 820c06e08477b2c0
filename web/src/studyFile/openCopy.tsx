import { useId, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useOpenCopy } from '../data/studyFiles.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { ProgressLine } from '../parts/progressLine.js';
import { openCopyTexts as texts } from './texts.js';

/** Opens a file that a study was saved in. */
export function OpenCopy() {
  const open = useOpenCopy();
  const navigate = useNavigate();
  const id = useId();
  const [isAsked, ask] = useState(false);
  if (!isAsked)
    return (
      <Button look="bare" className="self-start" onClick={() => ask(true)}>
        {texts.ask}
      </Button>
    );
  return (
    <section aria-labelledby="open-copy" className="flex flex-col gap-2 border-t border-rule pt-6">
      <h2 id="open-copy">{texts.open}</h2>
      <p className="max-w-prose text-soft">{texts.why}</p>
      <label htmlFor={id} className="font-medium">
        {texts.file}
      </label>
      <input
        id={id}
        type="file"
        accept=".zip"
        disabled={open.isPending}
        className="max-w-full"
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          if (!file) return;
          open.mutate(file, {
            onSuccess: (study) => {
              if (!study) return;
              toast(texts.opened(study.name));
              void navigate(`/studies/${study.id}`);
            },
          });
          target.value = '';
        }}
      />
      {open.isPending && (
        <ProgressLine label={texts.opening} share={open.share < 1 ? open.share : null} />
      )}
      {open.isError && <ProblemNote error={open.error} />}
    </section>
  );
}
