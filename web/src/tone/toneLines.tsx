import type { ProposedTone, Tone, ToneLine } from '@yellow-thread/contract';
import { useState } from 'react';
import { useCheckTone } from '../data/tone.js';
import { useCommands } from '../frame/commands.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { ReadRow } from '../parts/readRow.js';
import { useReadRows } from '../parts/useReadRows.js';
import { checkLineCommands, checkLineHelp, readLineCommands, readLineHelp } from './commands.js';
import { toneLinesTexts as texts, toneNames } from './texts.js';

const TONES: readonly Tone[] = ['positive', 'negative', 'mixed', 'none'];
/** What comes next is asked for when the last of these are checked. */
const NO_WORDS: ProposedTone['words'] = [];

/** Lines to be checked one below the other, with a proposal in view or, as one of the sample, without. */
export function ToneLines({
  lines,
  onNext,
}: {
  lines: readonly (ToneLine | ProposedTone)[];
  onNext: () => void;
}) {
  const { study, question } = useStudyLocation();
  const { mutate: check } = useCheckTone(study.id, question.id);
  const [found, setFound] = useState<ReadonlyMap<number, Tone>>(new Map());
  const { active, goTo, rowOf } = useReadRows(lines.length, 0);
  const proposedAt = (at: number): Tone | null => {
    const line = lines[at];
    return line && 'tone' in line ? line.tone : null;
  };
  const isBlind = proposedAt(0) === null;
  const find = (at: number, tone: Tone) => {
    const { responseId, start, end } = lines[at]!;
    check({ responseId, start, end, tone, atRandom: isBlind });
    setFound(new Map(found).set(at, tone));
    goTo(at + 1);
  };
  useCommands(
    isBlind ? readLineCommands : checkLineCommands,
    { active, goTo, proposed: proposedAt(active), find: (tone) => find(active, tone) },
    isBlind ? readLineHelp : checkLineHelp,
  );
  return (
    <>
      <div role="feed" aria-label={texts.list} className="list">
        {lines.map((line, at) => (
          <ReadRow
            key={`${line.responseId} ${line.start}`}
            {...rowOf(at)}
            className="grid-cols-[minmax(0,1fr)_330px] max-[900px]:grid-cols-1"
          >
            <div className="min-w-0">
              <LineInAnswer line={line} />
              {'tone' in line && (
                <p className="figures text-[13px] text-soft">
                  {texts.strength(toneNames[line.tone], line.strength)}
                </p>
              )}
            </div>
            <span className="flex flex-wrap justify-end gap-1 max-[900px]:justify-start">
              {TONES.map((tone) => (
                <button
                  key={tone}
                  type="button"
                  tabIndex={at === active ? 0 : -1}
                  aria-pressed={found.get(at) === tone}
                  className={`rounded border bg-card px-2 py-0.5 text-[13px] hover:border-soft aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper ${
                    proposedAt(at) === tone && !found.has(at) ? 'border-thread' : 'border-rule'
                  }`}
                  onClick={() => find(at, tone)}
                >
                  {toneNames[tone]}
                </button>
              ))}
            </span>
          </ReadRow>
        ))}
      </div>
      <div className="flex items-center gap-4 border-t border-rule px-6 py-2 max-sm:px-3">
        <span className="figures text-soft" role="status">
          {texts.sofar(found.size, lines.length)}
        </span>
        {found.size === lines.length && (
          <Button look="main" onClick={onNext}>
            {texts.next(lines.length)}
          </Button>
        )}
      </div>
    </>
  );
}

/** A line within its answer, with the words that weigh in the lexicon underlined. */
function LineInAnswer({ line }: { line: ToneLine | ProposedTone }) {
  const { text, start, end } = line;
  const words = 'words' in line ? line.words : NO_WORDS;
  const parts: { at: number; to: number; isWord: boolean }[] = [];
  let at = start;
  for (const word of words) {
    if (word.start > at) parts.push({ at, to: word.start, isWord: false });
    parts.push({ at: word.start, to: word.end, isWord: true });
    at = word.end;
  }
  if (at < end) parts.push({ at, to: end, isWord: false });
  return (
    <p className="voice max-w-[44rem] break-words">
      <span className="text-soft">{text.slice(0, start)}</span>
      {parts.map((part) => (
        <span
          key={part.at}
          className={part.isWord ? 'font-semibold underline decoration-thread decoration-2' : ''}
        >
          {text.slice(part.at, part.to)}
        </span>
      ))}
      <span className="text-soft">{text.slice(end)}</span>
    </p>
  );
}
