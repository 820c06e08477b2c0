import type { Mention } from '@yellow-thread/contract';
import { Quote } from 'lucide-react';
import { useEditMention } from '../data/mentions.js';
import { quoteToggleTexts } from './texts.js';

/** Picks what is said here as a quote for the write-up: the first passage of a code that is counted. */
export function QuoteToggle({
  study,
  mentions,
}: {
  study: number;
  mentions: readonly Pick<Mention, 'id' | 'typical'>[];
}) {
  const edit = useEditMention(study);
  const picked = mentions.find(({ typical }) => typical);
  const mention = picked ?? mentions[0];
  if (!mention) return null;
  return (
    <button
      type="button"
      aria-pressed={picked !== undefined}
      title={picked ? quoteToggleTexts.noLongerQuote : quoteToggleTexts.pickQuoteWriteUp}
      className={`inline-flex items-center gap-1 rounded px-1.5 ${picked ? 'bg-wash text-ink' : 'hover:bg-wash'}`}
      onClick={() => edit.mutate({ id: mention.id, edit: { typical: !picked } })}
    >
      <Quote size={12} aria-hidden /> {picked ? quoteToggleTexts.quoted : quoteToggleTexts.quote}
    </button>
  );
}
