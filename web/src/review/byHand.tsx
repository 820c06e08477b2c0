import type { Question, StudyDetail } from '@yellow-thread/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useMentionsOfCode, type DrawnCode } from '../data/codebook.js';
import { stopPath } from '../frame/place.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { asCount } from '../parts/numbers.js';
import { Passage } from '../parts/passage.js';

const FEW = 20;

/** A code's definition, and the answers to this question to which people gave it, to compare suggestions with. */
export function ByHand({
  study,
  question,
  code,
}: {
  study: StudyDetail;
  question: Question;
  code: DrawnCode;
}) {
  const mentions = useMentionsOfCode(study.id, code.id);
  const [shown, setShown] = useState(FEW);
  if (mentions.isError) return <ProblemNote error={mentions.error} />;
  const given = (mentions.data?.mentions ?? []).filter(
    ({ questionId, origin }) =>
      questionId === question.id && origin !== 'accepted' && origin !== 'bulk',
  );
  const words: [string, string][] = [
    ['What it is', code.definition],
    ['Include', code.include],
    ['Leave out', code.exclude],
  ];
  return (
    <div className="flex flex-col gap-4">
      <dl className="space-y-2">
        {words.map(
          ([name, text]) =>
            text !== '' && (
              <div key={name}>
                <dt className="text-[13px] text-soft">{name}</dt>
                <dd>{text}</dd>
              </div>
            ),
        )}
      </dl>
      {given.length === 0 && !mentions.isPending && (
        <p className="text-soft">Nothing in this question was given this code by hand.</p>
      )}
      <ul aria-label="Coded by hand" className="flex flex-col gap-3">
        {given.slice(0, shown).map((mention) => (
          <li key={mention.id} className="flex items-baseline gap-3">
            <p className="voice min-w-0 flex-1">
              <Passage
                text={mention.text}
                start={mention.start}
                end={mention.end}
                look={code.look}
              />
            </p>
            <Link
              className="shrink-0 text-[13px] text-soft underline"
              to={`${stopPath(study.id, 'code', question.id)}?like=${mention.responseId}&same=apart`}
            >
              {mention.externalId}
            </Link>
          </li>
        ))}
      </ul>
      {given.length > shown && (
        <Button look="bare" className="self-start" onClick={() => setShown(shown + 50)}>
          Show more of {asCount(given.length)}
        </Button>
      )}
    </div>
  );
}
