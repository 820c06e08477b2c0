import type { AnswersBehind as Behind, Report, StudyDetail } from '@yellow-thread/contract';
import { Copy, Shapes } from 'lucide-react';
import { useDeferredValue, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { DrawnCodebook } from '../data/codebook.js';
import { useGroups, usePutGroup } from '../data/groups.js';
import { useAnswersBehind, type Cell } from '../data/report.js';
import { useMay } from '../frame/access.js';
import { AnswerText } from '../parts/answerText.js';
import { Button } from '../parts/button.js';
import { inputBox } from '../parts/field.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { StitchMark } from '../parts/stitch.js';
import type { CountingRule } from '@yellow-thread/core/report';
import { QuoteToggle } from '../studyParts/quoteToggle.js';
import { codesOf, groupOf, ledgerOf } from './cell.js';
import { CellTests } from './cellTests.js';
import { answersBehindTexts } from './texts.js';

/** The answers that a number counts, in people's own words; from here on to the ledger, or to a group of these people. */
export function AnswersBehind({
  study,
  question,
  query,
  cell,
  codebook,
  counts,
  column,
}: {
  study: StudyDetail;
  question: number;
  query: string;
  cell: Cell;
  codebook: DrawnCodebook;
  /** What the table counts. */
  counts: CountingRule;
  /** The column that the number stands in; left out where it is everybody. */
  column?: Report['columns'][number];
}) {
  const isResearch = useMay('research');
  const [words, setWords] = useState('');
  const behind = useAnswersBehind({
    study: study.id,
    question,
    query,
    cell,
    words: useDeferredValue(words),
  });
  if (behind.isError) return <ProblemNote error={behind.error} />;
  if (!behind.data) return <Waiting what={answersBehindTexts.answers} />;
  const answers = behind.data.pages.flatMap((page) => page.answers);
  const { people, total } = behind.data.pages[0]!;
  const meant = new Set(codesOf(cell.row, codebook));
  const several = new Set(answers.map((answer) => answer.questionId)).size > 1;
  return (
    <>
      <p className="figures text-soft">
        {answersBehindTexts.peopleCounted(people)}
        {total !== people &&
          `, ${answersBehindTexts.answerCounted(total)}${words.trim() ? answersBehindTexts.words : ''}`}
        {counts === 'estimated' && answersBehindTexts.randomSampleWhichShare}
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-2 border-b border-rule pb-3">
        <input
          aria-label={answersBehindTexts.answersContaining}
          placeholder={answersBehindTexts.containing}
          className={`${inputBox} w-36 !py-1`}
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
        <Button
          className="!px-2 !py-1"
          onClick={() => void copyAnswers(answers, behind.hasNextPage)}
        >
          <Copy size={14} aria-hidden /> {answersBehindTexts.copy}
        </Button>
        {isResearch && (
          <>
            <GroupOf
              study={study}
              cell={cell}
              codebook={codebook}
              counts={counts}
              column={column}
              question={question}
              query={query}
            />
            <Link
              to={`/studies/${study.id}/questions/${question}/code?${ledgerOf(cell, codebook, counts)}`}
              className="underline"
            >
              {answersBehindTexts.code}
            </Link>
          </>
        )}
      </div>
      {cell.with === undefined && (
        <CellTests study={study.id} question={question} query={query} cell={cell} />
      )}
      <ul>
        {answers.map((answer) => (
          <li key={answer.id} className="border-b border-rule py-3">
            <p className="voice whitespace-pre-wrap break-words">
              <AnswerText text={answer.text} asides={study.asides} />
            </p>
            <p className="mt-1 flex flex-wrap items-center gap-x-3 text-[13px] text-soft">
              {answer.externalId}
              {several && (
                <span>{study.questions.find(({ id }) => id === answer.questionId)?.label}</span>
              )}
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
              {isResearch && (
                <QuoteToggle
                  study={study.id}
                  mentions={answer.mentions.filter(({ codeId }) => meant.has(codeId))}
                />
              )}
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
          {answersBehindTexts.showMore}
        </Button>
      )}
    </>
  );
}

async function copyAnswers(answers: Behind['answers'], areThereMore: boolean) {
  try {
    await navigator.clipboard.writeText(
      answers.map(({ text, externalId }) => `“${text}” (${externalId})`).join('\n\n'),
    );
    toast(answersBehindTexts.copied(answers.length, areThereMore));
  } catch {
    toast(answersBehindTexts.browserLetPageCopy);
  }
}

/** Makes a saved group of the people whom a number counts, in one action. */
function GroupOf({
  study,
  cell,
  codebook,
  counts,
  column,
  question,
  query,
}: {
  study: StudyDetail;
  cell: Cell;
  codebook: DrawnCodebook;
  counts: CountingRule;
  column: Report['columns'][number] | undefined;
  question: number;
  query: string;
}) {
  const put = usePutGroup(study.id);
  const navigate = useNavigate();
  const groups = useGroups(study.id).data?.groups;
  const group =
    groups &&
    groupOf(
      cell,
      codebook,
      { question, query, counts, ...(column && { column }) },
      groups.map(({ name }) => name),
    );
  if (!group) return null;
  const make = () => {
    const id = crypto.randomUUID();
    put.mutate(
      { id, ...group },
      {
        onSuccess: () =>
          toast(answersBehindTexts.madeGroup(group.name), {
            action: {
              label: answersBehindTexts.see,
              onClick: () => void navigate(`/studies/${study.id}/groups?edit=${id}`),
            },
          }),
      },
    );
  };
  return (
    <>
      <Button className="!px-2 !py-1" disabled={put.isPending} onClick={make}>
        <Shapes size={14} aria-hidden /> {answersBehindTexts.makeGroup}
      </Button>
      {put.error && <ProblemNote error={put.error} />}
    </>
  );
}
