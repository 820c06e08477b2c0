import type { Question, StudyDetail } from '@yellow-thread/contract';
import { useState } from 'react';
import { useMentionsOfCode, type DrawnCode } from '../data/codebook.js';
import { useDrawer } from '../frame/drawer.js';
import { stopPath } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { SaidLine } from '../parts/saidLine.js';
import { byHandTexts } from './texts.js';

const FEW = 20;

/** Opens the drawer with what was coded by hand. */
export function useOpenByHand(place: { study: StudyDetail; question: Question; code: DrawnCode }) {
  const openDrawer = useDrawer();
  return () =>
    openDrawer({ title: byHandTexts.codedHand(place.code.name), body: <ByHand {...place} /> });
}

/** A code's definition, and the answers to this question to which people gave it, to compare suggestions with. */
function ByHand({
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
    [byHandTexts.what, code.definition],
    [byHandTexts.include, code.include],
    [byHandTexts.exclude, code.exclude],
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
        <p className="text-soft">{byHandTexts.nothingQuestionGivenCode}</p>
      )}
      <ul aria-label={byHandTexts.codedHand2} className="flex flex-col gap-3">
        {given.slice(0, shown).map((mention) => (
          <li key={mention.id} className="flex items-baseline gap-3">
            <SaidLine
              mention={mention}
              look={code.look}
              to={`${stopPath(study.id, 'code', mention.questionId)}?like=${mention.responseId}&same=apart`}
            />
          </li>
        ))}
      </ul>
      {given.length > shown && (
        <Button look="bare" className="self-start" onClick={() => setShown(shown + 50)}>
          {byHandTexts.showMore(given.length)}
        </Button>
      )}
    </div>
  );
}
