import type { DrawnCodebook } from '../data/codebook.js';
import { useAnswersBehind, type Cell } from '../data/report.js';
import { useStudy } from '../data/studies.js';
import { AnswerText } from '../parts/answerText.js';
import { Button } from '../parts/button.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { counted } from '../parts/numbers.js';
import { StitchMark } from '../parts/stitch.js';

/** The answers that a number counts, in people's own words. */
export function AnswersBehind({
  study,
  question,
  cell,
  codebook,
}: {
  study: number;
  question: number;
  cell: Cell;
  codebook: DrawnCodebook;
}) {
  const behind = useAnswersBehind(study, question, cell);
  const asides = useStudy(study).data?.asides ?? { brackets: [], leading: [] };
  if (behind.isError) return <ProblemNote error={behind.error} />;
  if (!behind.data) return <Waiting what="the answers" />;
  const answers = behind.data.pages.flatMap((page) => page.answers);
  return (
    <>
      <p className="text-soft">{counted(behind.data.pages[0]!.total, 'person', 'people')}</p>
      <ul>
        {answers.map((answer) => (
          <li key={answer.id} className="border-b border-rule py-3">
            <p className="voice whitespace-pre-wrap break-words">
              <AnswerText text={answer.text} asides={asides} />
            </p>
            <p className="mt-1 flex flex-wrap items-center gap-x-3 text-[13px] text-soft">
              {answer.externalId}
              {[...new Set(answer.mentions.map((mention) => mention.codeId))].map((id) => {
                const code = codebook.byId.get(id);
                return (
                  code && (
                    <span key={id} className="inline-flex items-center gap-1.5">
                      <StitchMark look={code.look} width={14} /> {code.name}
                    </span>
                  )
                );
              })}
            </p>
          </li>
        ))}
      </ul>
      {behind.hasNextPage && (
        <Button
          className="mt-3"
          disabled={behind.isFetchingNextPage}
          onClick={() => void behind.fetchNextPage()}
        >
          Show more
        </Button>
      )}
    </>
  );
}
