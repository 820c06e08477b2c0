import { Button } from '../parts/button.js';
import { struckWordsTexts } from './texts.js';

/** Words that stand aside, each to be brought back. */
export function StruckWords({
  label,
  words,
  onBringBack,
}: {
  label: string;
  words: readonly string[];
  onBringBack: (word: string) => void;
}) {
  if (words.length === 0) return null;
  return (
    <p className="mt-2 flex flex-wrap items-center gap-2">
      <span className="text-soft">{label}</span>
      {words.map((word) => (
        <Button
          key={word}
          look="plain"
          className="!px-2 !py-0.5"
          onClick={() => onBringBack(word)}
          aria-label={struckWordsTexts.bringBack(word)}
        >
          <s>{word}</s>
        </Button>
      ))}
    </p>
  );
}
