import { nearestTexts, sharesOf } from '../coding/index.js';
import { dotProduct, type SentenceVectors } from '../sentences/index.js';
import { likeThese } from '../similarity/index.js';
import { foldForSearch, splitWords, type Span } from '../text/index.js';

/** A line that somebody coded, or an answer that was coded as a whole. */
export interface CodedUnit {
  responseId: number;
  text: string;
  codeIds: string[];
}

/** What help with an answer starts from. */
export interface HelpRequest {
  /** The answer, the interviewer's words blanked out. */
  text: string;
  lines: Span[];
  /** What the study wants to know, and what was asked. */
  purpose: string;
  wording: string;
  /** What was coded by hand, of other answers. */
  coded: CodedUnit[];
  glossary: { term: string; meaning: string }[];
}

/** A word that no dictionary knows, and what may be meant. */
export interface Misspelling extends Span {
  suggestions: string[];
}

/** What may help somebody with an answer that is hard to code. Every place is one of the answer, in UTF-16 units. */
export interface AnswerHelp {
  /** The line that stands nearest to the whole; null where there are not several. */
  gist: Span | null;
  misspelt: Misspelling[];
  terms: (Span & { term: string; meaning: string })[];
  /** The lines that come nearest to what the study wants to know, and to what was asked. */
  bearing: (Span & { on: 'purpose' | 'question' })[];
  /** Codes that may fit a line, each with the coded lines most like it that have it. */
  passages: (Span & { codes: FittingCode[] })[];
  /** How many coded lines were compared, and whether in meaning and not by words alone. */
  compared: number;
  isMeaning: boolean;
}

interface FittingCode {
  codeId: string;
  /** Of what is near, how much has the code: 0 to 1. */
  share: number;
  reasons: { responseId: number; text: string }[];
}

const MOST_LINES = 40;
const FEWEST_LINES_WITH_GIST = 3;
const MOST_CODES_A_LINE = 3;
const REASONS = 2;
/** Codes that less of what is near speaks for are none that may fit. */
const LEAST_SHARE = 0.2;

/**
 * Helps with an answer that is hard to code: what its gist is, which of its words may be misspelt or need explaining,
 * what in it bears on the study, and which codes may fit which line. All of it is taken from what people wrote and
 * coded; no sentence is made.
 *
 * @param vectors sentence vectors of the text, its lines, the coded lines, the purpose and the wording; null where
 *   nothing is read for meaning
 * @param misspeltIn finds words that are spelt wrongly
 */
export function helpWithAnswer(
  { text, lines: all, purpose, wording, coded, glossary }: HelpRequest,
  vectors: SentenceVectors | null,
  misspeltIn: (text: string) => Misspelling[],
): AnswerHelp {
  const lines = all.slice(0, MOST_LINES);
  const wordsOf = ({ start, end }: Span) => text.slice(start, end);
  const texts = coded.map((one) => one.text);
  return {
    gist: lines.length < FEWEST_LINES_WITH_GIST ? null : gistOf(text, lines, vectors),
    misspelt: misspeltIn(text),
    terms: termsIn(text, glossary),
    bearing: bearingOf(lines, wordsOf, { purpose, question: wording }, vectors),
    passages: lines.flatMap(({ start, end }) => {
      const nearest = nearestTexts(wordsOf({ start, end }), texts, vectors).map(
        ({ index, near }) => ({ ...coded[index]!, near }),
      );
      const codes = [...sharesOf(nearest)]
        .filter(([, share]) => share >= LEAST_SHARE)
        .sort(([, x], [, y]) => y - x)
        .slice(0, MOST_CODES_A_LINE)
        .map(([codeId, share]) => ({
          codeId,
          share,
          reasons: nearest
            .filter(({ codeIds }) => codeIds.includes(codeId))
            .slice(0, REASONS)
            .map(({ responseId, text: said }) => ({ responseId, text: said })),
        }));
      return codes.length === 0 ? [] : [{ start, end, codes }];
    }),
    compared: coded.length,
    isMeaning: vectors !== null,
  };
}

/** The line that is most like the whole: in meaning where it was read, and by its words otherwise. */
function gistOf(text: string, lines: readonly Span[], vectors: SentenceVectors | null): Span {
  const whole = vectors?.of(text);
  const said = lines.map(({ start, end }) => text.slice(start, end));
  const read = said.map((one) => vectors?.of(one) ?? null);
  const likeness =
    whole && read.some((one) => one !== null)
      ? read.map((one) => (one ? dotProduct(whole, one) : -1))
      : [
          ...likeThese(
            said,
            said.map((_, l) => l),
          ),
        ];
  const { start, end } = lines[likeness.indexOf(Math.max(...likeness))]!;
  return { start, end };
}

function bearingOf(
  lines: readonly Span[],
  wordsOf: (line: Span) => string,
  asked: Record<'purpose' | 'question', string>,
  vectors: SentenceVectors | null,
): AnswerHelp['bearing'] {
  if (!vectors || lines.length < 2) return [];
  return (['purpose', 'question'] as const).flatMap((on) => {
    const wanted = asked[on].trim() === '' ? null : vectors.of(asked[on]);
    if (!wanted) return [];
    const near = lines.map((line) => {
      const vector = vectors.of(wordsOf(line));
      return vector ? dotProduct(wanted, vector) : -1;
    });
    const best = Math.max(...near);
    const { start, end } = lines[near.indexOf(best)]!;
    return best > 0 ? [{ on, start, end }] : [];
  });
}

/** Where terms of a glossary stand, whatever their case and accents; each at its first place. */
function termsIn(text: string, glossary: HelpRequest['glossary']): AnswerHelp['terms'] {
  const words = splitWords(text).map((word) => ({ ...word, folded: foldForSearch(word.form) }));
  return glossary.flatMap(({ term, meaning }) => {
    const wanted = splitWords(term).map((word) => foldForSearch(word.form));
    if (wanted.length === 0) return [];
    const at = words.findIndex((_, w) =>
      wanted.every((one, i) => {
        const folded = words[w + i]?.folded;
        // a plural is the same term
        return folded === one || folded === `${one}s`;
      }),
    );
    if (at < 0) return [];
    return [{ term, meaning, start: words[at]!.start, end: words[at + wanted.length - 1]!.end }];
  });
}
