import type { LedgerAnswer } from '@yellow-thread/contract';
import type { SeenCodebook } from '../data/codebook.js';
import { useAnswers, useCode, useLedger, BLOCK } from '../data/coding.js';
import { CodeList } from '../studyParts/codeList.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { sameAnswersTexts } from './texts.js';

/** Answers that were coded as one, each with its own codes, which can be removed from it alone. */
export function SameAnswers({
  study,
  question,
  answer,
  codebook,
}: {
  study: number;
  question: number;
  answer: LedgerAnswer;
  codebook: SeenCodebook;
}) {
  const change = useCode(study, question);
  const ledger = useLedger(study, question, `same=apart&like=${answer.id}`);
  const ids = ledger.data?.ids ?? [];
  const shown = useAnswers({
    study,
    question,
    ids,
    blocks: ids.length > 0 ? [0, 1].slice(0, Math.ceil(ids.length / BLOCK)) : [],
  });
  if (ledger.isError) return <ProblemNote error={ledger.error} />;
  if (ledger.isPending) return <Waiting what={sameAnswersTexts.answers} />;
  return (
    <ul className="flex flex-col gap-3">
      {ids.slice(0, 2 * BLOCK).map((id) => {
        const one = shown.get(id);
        if (!one) return null;
        return (
          <li key={id} className="border-b border-rule pb-2">
            <p className="text-[13px] text-soft">
              {one.externalId} · {one.settled ? sameAnswersTexts.settled : sameAnswersTexts.open}
            </p>
            <p className="voice">{one.text}</p>
            <CodeList
              codeIds={one.mentions.map((mention) => mention.codeId)}
              codebook={codebook}
              onRemove={(place) =>
                change({ do: 'remove', mention: one.mentions[place]!, toSame: false })
              }
            />
          </li>
        );
      })}
      {ids.length > 2 * BLOCK && (
        <li className="text-soft">{sameAnswersTexts.moreTakeSameWords(ids.length, BLOCK)}</li>
      )}
    </ul>
  );
}
