import type { ListedReading, ReadingAnswers } from '@yellow-thread/contract';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { useSecondCoding, useEndReading, useReading } from '../data/agreement.js';
import { usePins, type DrawnCodebook } from '../data/codebook.js';
import { runCommand, usePaletteCommands } from '../frame/commands.js';
import { useMay } from '../frame/access.js';
import { useKeyHelp } from '../frame/keys.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { AnswerText } from '../parts/answerText.js';
import { Button } from '../parts/button.js';
import { CodeList } from '../studyParts/codeList.js';
import { CodeField, FoundCodes, useCodeCombobox } from '../studyParts/codeCombobox.js';
import { lineField } from '../parts/field.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { ReadRow } from '../parts/readRow.js';
import { useReadRows } from '../parts/useReadRows.js';
import { secondReadingCommands, secondReadingHelp, type AtSecondReading } from './commands.js';
import { readAgainTexts } from './texts.js';

/** One's own second reading: the answers alone, without how they were coded or what is likely. */
export function ReadAgain({
  reading,
  codebook,
}: {
  reading: ListedReading;
  codebook: DrawnCodebook;
}) {
  const { study, question } = useStudyLocation();
  const answers = useReading(study.id, question.id, reading.id);
  if (answers.isError) return <PageProblem error={answers.error} />;
  if (!answers.data) return <Waiting what={readAgainTexts.answers} />;
  return <Answers reading={reading.id} answers={answers.data.answers} codebook={codebook} />;
}

function Answers({
  reading,
  answers,
  codebook,
}: {
  reading: string;
  answers: ReadingAnswers['answers'];
  codebook: DrawnCodebook;
}) {
  const { study, question } = useStudyLocation();
  const { mutate: code } = useSecondCoding(study.id, question.id, reading);
  const end = useEndReading(study.id, question.id);
  const mayEnd = useMay('research');
  const firstUnread = answers.findIndex((one) => one.codes === null);
  const { active, goTo, rowOf } = useReadRows(answers.length, firstUnread);
  /** What the answers that one is at have so far; kept with the reading when one goes on. */
  const [begun, setBegun] = useState<ReadonlyMap<number, readonly string[]>>(new Map());
  const read = answers.filter((one) => one.codes !== null).length;
  useKeyHelp(secondReadingHelp);
  const codesOf = ({ responseId, codes }: ReadingAnswers['answers'][number]) =>
    codes ?? begun.get(responseId) ?? [];
  const change = (at: number, codes: readonly string[]) => {
    const { responseId, codes: kept } = answers[at]!;
    // what was settled before is changed there and then
    if (kept !== null) code({ responseId, codes: [...codes] });
    else setBegun(new Map(begun).set(responseId, codes));
  };
  const settle = (at: number, codes: readonly string[]) => {
    code({ responseId: answers[at]!.responseId, codes: [...codes] });
    const next = answers.findIndex((one, i) => i > at && one.codes === null);
    goTo(next < 0 ? answers.findIndex((one, i) => i !== at && one.codes === null) : next);
  };
  return (
    <main className="work-list flex flex-col">
      <header className="flex min-h-[52px] flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule px-6 py-1">
        <h1 className="text-[16px]">{readAgainTexts.yourSecondReading}</h1>
        <span className="text-soft">{readAgainTexts.howAnswersCodedShown}</span>
        <span className="ml-auto flex items-center gap-3">
          <span className="figures" role="status">
            {readAgainTexts.coded(read, answers.length)}
          </span>
          {read > 0 && mayEnd && (
            <Button
              look="bare"
              title={readAgainTexts.excludesComparisonWhatCoded}
              onClick={() => end.mutate(reading)}
            >
              {readAgainTexts.endHereCompare}
            </Button>
          )}
          <Link to=".." relative="path" className="underline">
            {readAgainTexts.allSecondReadings}
          </Link>
        </span>
      </header>
      <div role="feed" aria-label={readAgainTexts.answersSecondReading} className="list pb-64">
        {answers.map((answer, at) => {
          const { responseId, text, codes: kept } = answer;
          const codes = codesOf(answer);
          return (
            <ReadRow
              key={responseId}
              {...rowOf(at)}
              className="scroll-mb-64 grid-cols-[minmax(0,1fr)_320px]"
            >
              <p className="voice max-w-[44rem] break-words">
                <AnswerText text={text} asides={study.asides} />
              </p>
              <div className="flex flex-col gap-1.5">
                <CodeList
                  codeIds={codes}
                  codebook={codebook}
                  onRemove={(place) =>
                    change(
                      at,
                      codes.filter((_, i) => i !== place),
                    )
                  }
                />
                {kept?.length === 0 && codes.length === 0 && (
                  <p className="text-[13px] text-soft">{readAgainTexts.nothingApplies}</p>
                )}
                {at === active && (
                  <AnswerField
                    key={responseId}
                    codes={codes}
                    codebook={codebook}
                    onCodes={(changed) => change(at, changed)}
                    onSettle={(settled) => settle(at, settled)}
                    onMove={(step) => goTo(at + step)}
                  />
                )}
              </div>
            </ReadRow>
          );
        })}
      </div>
    </main>
  );
}

/** The field in which codes of the present answer are found; no new ones, since the first coder had none of them. */
function AnswerField({
  codes,
  codebook,
  onCodes,
  onSettle,
  onMove,
}: {
  codes: readonly string[];
  codebook: DrawnCodebook;
  onCodes: (codes: readonly string[]) => void;
  onSettle: (codes: readonly string[]) => void;
  onMove: (step: 1 | -1) => void;
}) {
  const { study, question } = useStudyLocation();
  const input = useRef<HTMLInputElement>(null);
  const { data: pins = [] } = usePins(study.id);
  const offered = codebook.codes.filter(
    (one) => !one.archived && (one.questions === null || one.questions.includes(question.id)),
  );
  const apply = (codeId: string) => {
    if (codes.includes(codeId)) toast(readAgainTexts.codeHereAlready);
    else onCodes([...codes, codeId]);
  };
  const combobox = useCodeCombobox(offered, { most: 7, onPick: ({ id }) => apply(id) });
  useEffect(() => input.current?.focus({ preventScroll: true }), []);
  const here: AtSecondReading = {
    isTyped: combobox.typed !== '',
    hasCodes: codes.length > 0,
    pinned: (digit) => pins.find(({ key }) => key === digit)?.codeId,
    apply,
    removeLast: () => onCodes(codes.slice(0, -1)),
    settle: () => onSettle(codes),
    move: onMove,
    tell: (text) => void toast(text),
  };
  usePaletteCommands(secondReadingCommands, here);
  return (
    <div className="relative">
      <CodeField
        ref={input}
        label={readAgainTexts.codeAnswer}
        combobox={combobox}
        placeholder={readAgainTexts.typeCode}
        onKey={(event) => runCommand(secondReadingCommands, here, event.nativeEvent)}
        className={`w-full ${lineField}`}
      />
      <FoundCodes combobox={combobox} newName={null} className="right-0 w-[320px]" />
    </div>
  );
}
