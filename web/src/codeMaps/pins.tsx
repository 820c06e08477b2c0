import type { MentionOfCode, StudyDetail } from '@yellow-thread/contract';
import { useState } from 'react';
import { useMentionsOfCodes } from '../data/codebook.js';
import type { MapEdit, QuotedPin } from '../data/codeMaps.js';
import { Button } from '../parts/button.js';
import type { DrawnNode } from './drawnNodes.js';
import { pinsTexts } from './texts.js';

const FEW = 5;
const wordsOf = ({ text, start, end }: MentionOfCode) => text.slice(start ?? 0, end ?? text.length);

/** What is pinned to a code or a relation, and what could be: what people said of it. */
export function Pins({
  study,
  mapId,
  on,
  of,
  pins,
  onEdit,
}: {
  study: StudyDetail;
  mapId: string;
  on: { nodeId: string } | { relationId: string };
  /** The nodes that it is about: one, or the two ends of a relation. */
  of: readonly DrawnNode[];
  pins: readonly QuotedPin[];
  onEdit: (edit: MapEdit) => void;
}) {
  const { mentions } = useMentionsOfCodes(study.id, [
    ...new Set(of.flatMap(({ codeIds }) => codeIds)),
  ]);
  const [shown, setShown] = useState(FEW);
  const isPinned = new Set(pins.map(({ responseId, start }) => `${responseId} ${start}`));
  // of a relation, only answers that mention both of its ends
  const answersOf = of.map(
    ({ codeIds }) =>
      new Set(
        mentions.flatMap(({ codeId, responseId }) => (codeIds.includes(codeId) ? responseId : [])),
      ),
  );
  const offered = mentions.filter(
    ({ responseId, start }) =>
      !isPinned.has(`${responseId} ${start}`) && answersOf.every((one) => one.has(responseId)),
  );
  const pin = (mention: MentionOfCode) =>
    onEdit({
      pins: [
        {
          ...{ id: crypto.randomUUID(), mapId, nodeId: null, relationId: null, ...on },
          ...{ responseId: mention.responseId, questionId: mention.questionId },
          ...{ start: mention.start, end: mention.end, text: wordsOf(mention) },
        },
      ],
    });
  return (
    <section aria-label={pinsTexts.pinned}>
      <h3 className="border-b border-rule pb-1 font-semibold">{pinsTexts.pinned}</h3>
      {pins.length === 0 && <p className="mt-1 text-[13px] text-soft">{pinsTexts.none}</p>}
      <ul>
        {pins.map((one) => (
          <li key={one.id} className="flex items-baseline gap-2 border-b border-rule py-1.5">
            <blockquote className="voice min-w-0 flex-1 break-words">{one.text}</blockquote>
            <button
              type="button"
              className="min-h-6 shrink-0 text-[13px] underline"
              aria-label={pinsTexts.unpinQuote(one.text)}
              onClick={() => onEdit({ removed: [one.id] })}
            >
              {pinsTexts.unpin}
            </button>
          </li>
        ))}
      </ul>
      <details className="mt-2">
        <summary className="text-[13px]">
          {pinsTexts.choose}
          {of.length === 2 && <span className="text-soft"> · {pinsTexts.ofRelation}</span>}
        </summary>
        {offered.length === 0 && (
          <p className="mt-1 text-[13px] text-soft">{pinsTexts.noneToPin}</p>
        )}
        <ul>
          {offered.slice(0, shown).map((mention) => (
            <li key={mention.id} className="flex items-baseline gap-2 border-b border-rule py-1.5">
              <span className="voice min-w-0 flex-1 break-words">{wordsOf(mention)}</span>
              <button
                type="button"
                className="min-h-6 shrink-0 text-[13px] underline"
                aria-label={pinsTexts.pinQuote(wordsOf(mention))}
                onClick={() => pin(mention)}
              >
                {pinsTexts.pin}
              </button>
            </li>
          ))}
        </ul>
        {offered.length > shown && (
          <Button look="bare" onClick={() => setShown(shown + 20)}>
            {pinsTexts.more}
          </Button>
        )}
      </details>
    </section>
  );
}
