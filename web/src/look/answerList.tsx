import { useAnswersOf } from '../data/look.js';
import { useDrawnCodebook } from '../data/codebook.js';
import { Button } from '../parts/button.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { CodeList } from '../studyParts/codeList.js';
import { answerListTexts } from './texts.js';

/** Some answers in their own words, with their codes. */
export function AnswerList({
  study,
  question,
  ids,
}: {
  study: number;
  question: number;
  ids: readonly number[];
}) {
  const answers = useAnswersOf(study, question, ids);
  const codebook = useDrawnCodebook(study);
  if (answers.isError) return <ProblemNote error={answers.error} />;
  if (!answers.data || !codebook) return <Waiting what={answerListTexts.answers} />;
  return (
    <>
      <ul className="flex flex-col gap-2">
        {answers.data.pages
          .flatMap((page) => page.answers)
          .map(({ id, text, mentions }) => (
            <li key={id} className="border-b border-rule pb-2">
              <p className="voice break-words">{text}</p>
              <CodeList codeIds={mentions.map(({ codeId }) => codeId)} codebook={codebook} />
            </li>
          ))}
      </ul>
      {answers.hasNextPage && (
        <Button
          look="plain"
          className="mt-3"
          disabled={answers.isFetchingNextPage}
          onClick={() => void answers.fetchNextPage()}
        >
          {answerListTexts.more}
        </Button>
      )}
    </>
  );
}
