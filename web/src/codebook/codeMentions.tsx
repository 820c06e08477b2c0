import type { StudyDetail } from '@yellow-thread/contract';
import { useState } from 'react';
import { useMentionsOfCode, type DrawnCode, type DrawnCodebook } from '../data/codebook.js';
import { useEditMention } from '../data/mentions.js';
import { stopPath } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { SaidLine } from '../parts/saidLine.js';
import { codeMentionsTexts } from './texts.js';

const FEW = 5;

/** What was said of a code: pinned examples first. */
export function CodeMentions({
  study,
  code,
}: {
  study: StudyDetail;
  code: DrawnCode;
  codebook: DrawnCodebook;
}) {
  const mentions = useMentionsOfCode(study.id, code.id);
  const [shown, setShown] = useState(FEW);
  const { mutate: edit } = useEditMention(study.id);
  if (mentions.isError) return <ProblemNote error={mentions.error} />;
  const all = mentions.data?.mentions ?? [];
  return (
    <section aria-label={codeMentionsTexts.mentions} className="flex flex-col gap-2">
      <h2 className="border-b border-rule pb-1">{codeMentionsTexts.whatPeopleSaid}</h2>
      {all.length === 0 && !mentions.isPending && (
        <p className="text-soft">{codeMentionsTexts.nothingYet}</p>
      )}
      <ul className="flex flex-col gap-2">
        {all.slice(0, shown).map((mention) => (
          <li key={mention.id} className="flex items-baseline gap-3">
            <SaidLine
              mention={mention}
              look={code.look}
              to={`${stopPath(study.id, 'code', mention.questionId)}?like=${mention.responseId}&same=apart`}
            />
            <button
              type="button"
              aria-pressed={mention.typical}
              onClick={() => edit({ id: mention.id, edit: { typical: !mention.typical } })}
              className="shrink-0 rounded px-1.5 text-[13px] text-soft hover:bg-wash aria-pressed:text-deep"
            >
              {mention.typical ? codeMentionsTexts.example : codeMentionsTexts.makeExample}
            </button>
          </li>
        ))}
      </ul>
      {all.length > shown && (
        <Button look="bare" className="self-start" onClick={() => setShown(shown + 50)}>
          {codeMentionsTexts.showMore(all.length)}
          {mentions.data?.more && codeMentionsTexts.more}
        </Button>
      )}
    </section>
  );
}
