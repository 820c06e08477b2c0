import type { CodeDifference, MergeSummary, StudyDetail } from '@yellow-thread/contract';
import { useId, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { useMerge, usePreviewMerge } from '../data/studyFiles.js';
import { asDate, asList } from '../lib/numbers.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { ProgressLine } from '../parts/progressLine.js';
import { mergeCopyTexts as texts } from './texts.js';

/** Merges the coding of a copy that somebody worked on apart: first what it would do in numbers, then all of it. */
export function MergeCopy({ study }: { study: StudyDetail }) {
  const id = useId();
  const [file, setFile] = useState<File | null>(null);
  const preview = usePreviewMerge(study.id);
  const merge = useMerge(study.id);
  const stop = () => {
    setFile(null);
    preview.reset();
    merge.reset();
  };
  const isSending = preview.isPending || merge.isPending;
  const share = preview.isPending ? preview.share : merge.share;
  const summary = merge.data ?? preview.data;
  return (
    <section aria-labelledby="merge-copy" className="flex flex-col items-start gap-2">
      <h2 id="merge-copy">{texts.title}</h2>
      <p className="max-w-prose text-soft">{texts.why}</p>
      <label htmlFor={id} className="font-medium">
        {texts.file}
      </label>
      <input
        id={id}
        type="file"
        accept=".zip"
        disabled={isSending}
        className="max-w-full"
        onChange={({ target }) => {
          const [chosen] = target.files ?? [];
          if (!chosen) return;
          stop();
          setFile(chosen);
          preview.mutate(chosen);
          target.value = '';
        }}
      />
      {isSending && <ProgressLine label={texts.comparing} share={share < 1 ? share : null} />}
      {preview.isError && <ProblemNote error={preview.error} />}
      {merge.isError && <ProblemNote error={merge.error} />}
      {summary && (
        <div className="mt-2 w-full border-l-[3px] border-thread bg-card px-4 py-3" role="status">
          <h3 className="font-semibold">
            {merge.data
              ? texts.merged(summary.name)
              : texts.wouldBring(summary.name, asDate(summary.savedAt))}
          </h3>
          <Summary study={study} summary={summary} isDone={merge.data !== undefined} />
          {!merge.data && (
            <div className="mt-3 flex gap-2">
              <Button
                look="main"
                disabled={summary.isNothing || isSending || !file}
                onClick={() => file && merge.mutate(file, { onSuccess: () => toast(texts.done) })}
              >
                {texts.merge}
              </Button>
              <Button disabled={isSending} onClick={stop}>
                {texts.cancel}
              </Button>
            </div>
          )}
        </div>
      )}
    </section>
  );
}

/** What a merge does, each kind of change in a line; what does not occur is left out. */
function Summary({
  study,
  summary,
  isDone,
}: {
  study: StudyDetail;
  summary: MergeSummary;
  isDone: boolean;
}) {
  const { answers, codes, mentions, notes, settled, readings, hasHistory, isNothing } = summary;
  const lines: [ReactNode, boolean][] = [
    [texts.nothing, isNothing],
    [texts.matched(answers.matched), true],
    [texts.notHere(answers.notHere), answers.notHere > 0],
    [texts.otherText(answers.otherText), answers.otherText > 0],
    [texts.settled(settled), settled > 0],
    [texts.mentionsAdded(mentions.added), mentions.added > 0],
    [texts.mentionsUpdated(mentions.updated), mentions.updated > 0],
    [texts.mentionsRemoved(mentions.removed), mentions.removed > 0],
    [texts.mentionsSame(mentions.same), mentions.same > 0],
    [texts.leftOut(mentions.leftOut), mentions.leftOut > 0],
    [texts.mentionConflicts(mentions.conflicts), mentions.conflicts > 0],
    [texts.newCodes(asList(codes.added)), codes.added.length > 0],
    [texts.codesUpdated(asList(codes.updated.map(named))), codes.updated.length > 0],
    [texts.codeConflicts(asList(codes.conflicts.map(named))), codes.conflicts.length > 0],
    [texts.sameName(asList(codes.sameName)), codes.sameName.length > 0],
    [
      texts.mergedHere(asList(codes.mergedHere.map(({ code, into }) => texts.into(code, into)))),
      codes.mergedHere.length > 0,
    ],
    [
      texts.mergedThere(asList(codes.mergedThere.map(({ code, into }) => texts.into(code, into)))),
      codes.mergedThere.length > 0,
    ],
    [
      texts.notes(notes.added, notes.updated, notes.removed),
      notes.added + notes.updated + notes.removed > 0,
    ],
    [texts.noHistory, !hasHistory],
  ];
  return (
    <>
      <ul className="figures mt-1 list-disc pl-5">
        {lines.flatMap(([line, occurs], i) => (occurs ? [<li key={i}>{line}</li>] : []))}
        {readings.map(({ questionId, coder, answers: count, agreed }) => (
          <li key={`${questionId} ${coder}`}>
            {texts.reading({ coder, count, agreed, question: labelOf(study, questionId) })}{' '}
            {isDone && (
              <Link
                to={`/studies/${study.id}/questions/${questionId}/second-reading`}
                className="underline"
              >
                {texts.talkOver}
              </Link>
            )}
          </li>
        ))}
      </ul>
      <p className="mt-2 text-[13px] text-soft">{isDone ? texts.undo : texts.notTaken}</p>
    </>
  );
}

const labelOf = (study: StudyDetail, question: number): string =>
  study.questions.find(({ id }) => id === question)?.label ?? '';

/** A code whose fields differ, with what differs. */
const named = ({ here, there, what }: CodeDifference): string =>
  here === there
    ? texts.differs(here, asList(what.map((one) => texts.what[one])))
    : texts.renamed(here, there);
