import type { Look } from '@yellow-thread/contract';
import { X } from 'lucide-react';
import { useState } from 'react';
import { asCount } from '../lib/numbers.js';
import { termListsTexts } from './texts.js';
import { useHitsOf } from './useHitsOf.js';

const columns = 'mt-3 grid grid-cols-[repeat(auto-fill,minmax(250px,1fr))] gap-x-6';

/** Words with how many answers use them; those of several forms can be opened out. */
export function WordList({
  words,
  onSetAside,
}: {
  words: Look['words'];
  onSetAside: (word: string) => void;
}) {
  const [opened, setOpened] = useState<string | null>(null);
  const most = words[0]?.answers ?? 1;
  return (
    <ol className={columns}>
      {words.map(({ word, answers, forms }) => (
        <li key={word} className="border-b border-rule py-1">
          <div className="flex items-center gap-2">
            <span className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-2">
              <TermButton term={word} match="stem" />
              {forms.length > 1 && (
                <button
                  type="button"
                  className="inline-flex min-h-6 items-center text-[13px] text-soft underline decoration-dotted underline-offset-4 hover:text-ink"
                  aria-expanded={opened === word}
                  aria-label={termListsTexts.formsOf(forms.length, word)}
                  onClick={() => setOpened(opened === word ? null : word)}
                >
                  {termListsTexts.forms(forms.length)}
                </button>
              )}
            </span>
            <Amount answers={answers} most={most} />
            <button
              type="button"
              className="rounded p-1 text-soft hover:text-ink"
              onClick={() => onSetAside(word)}
              aria-label={termListsTexts.setAsideWord(word)}
              title={termListsTexts.setAside}
            >
              <X size={13} aria-hidden />
            </button>
          </div>
          {opened === word && (
            <ul className="mb-1 ml-3">
              {forms.map(({ form, answers: using }) => (
                <li key={form} className="flex items-baseline gap-2">
                  <TermButton term={form} match="word" />
                  <span className="figures text-soft">{asCount(using)}</span>
                </li>
              ))}
            </ul>
          )}
        </li>
      ))}
    </ol>
  );
}

/** Phrases with how many answers use them. */
export function PhraseList({ phrases }: { phrases: Look['phrases'] }) {
  const most = phrases[0]?.answers ?? 1;
  return (
    <ol className={columns}>
      {phrases.map(({ phrase, answers }) => (
        <li key={phrase} className="flex items-center gap-2 border-b border-rule py-1">
          <span className="min-w-0 flex-1">
            <TermButton term={phrase} match="stem" />
          </span>
          <Amount answers={answers} most={most} />
        </li>
      ))}
    </ol>
  );
}

/** What was counted, opening the answers that hold it: in any form of its words, or as it is written. */
function TermButton({ term, match }: { term: string; match: 'stem' | 'word' }) {
  const openHits = useHitsOf();
  return (
    <button
      type="button"
      className="inline-block min-h-6 min-w-6 break-words text-left font-serif text-[16px] hover:underline"
      onClick={() => openHits({ title: term, words: term, match })}
    >
      {term}
    </button>
  );
}

const Amount = ({ answers, most }: { answers: number; most: number }) => (
  <span className="flex w-24 shrink-0 items-center gap-2">
    <span
      aria-hidden
      className="block h-2 bg-rule"
      style={{ width: `${(44 * answers) / most}px` }}
    />
    <span className="figures">{asCount(answers)}</span>
  </span>
);
