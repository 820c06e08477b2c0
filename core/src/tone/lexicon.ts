/** How positive or negative words are, from −4 to 4, as people rated them. */
export type ToneLexicon = ReadonlyMap<string, number>;

/**
 * Reads a lexicon of tone: a line a word, the word and its mean rating separated by tabs, whatever else stands behind.
 *
 * @throws RangeError when a line has no rating
 * @see Hutto & Gilbert (2014), whose lexicon has this form
 */
export function readToneLexicon(file: string): ToneLexicon {
  const lexicon = new Map<string, number>();
  for (const line of file.split('\n')) {
    const [word, rating] = line.split('\t');
    if (!word || rating === undefined) {
      if (line.trim() === '') continue;
      throw new RangeError(`The lexicon of tone has a line without a rating: ${line.slice(0, 40)}`);
    }
    lexicon.set(word, Number(rating));
  }
  return lexicon;
}

/** What a word that makes the next one stronger adds to it; one that makes it weaker takes as much away. */
export const STRONGER = 0.293;
/** What a word in capitals adds, where others are not. */
export const CAPITALS = 0.733;
/** What the rating of a word is multiplied by that is negated. */
export const NEGATED = -0.74;

const words = (list: string): string[] => list.trim().split(/\s+/u);

/** Words that negate, without their apostrophes; those that end in n't do, too. */
export const NEGATIONS: ReadonlySet<string> = new Set(
  words(`aint arent cannot cant couldnt darent didnt doesnt dont hadnt hasnt havent isnt mightnt mustnt
    neither neednt never none nope nor not nothing nowhere oughtnt shant shouldnt uhuh uh-uh wasnt werent
    without wont wouldnt rarely seldom despite`),
);

/** By how much words make the next one stronger or weaker. */
export const DEGREES: ReadonlyMap<string, number> = new Map([
  ...words(`absolutely amazingly awfully completely considerable considerably decidedly deeply effing
    enormous enormously entirely especially exceptional exceptionally extreme extremely fabulously
    flipping flippin frackin fracking fricking frickin frigging friggin fully fuckin fucking fuggin fugging
    greatly hella highly hugely incredible incredibly intensely major majorly more most particularly
    purely quite really remarkably so substantially thoroughly total totally tremendous tremendously
    uber unbelievably unusually utter utterly very`).map((word) => [word, STRONGER] as const),
  ...words(`almost barely hardly kinda kindof kind-of less little marginal marginally occasional
    occasionally partly scarce scarcely slight slightly somewhat sorta sortof sort-of`).map(
    (word) => [word, -STRONGER] as const,
  ),
]);
/** The same of two words. */
export const WEAKER_PAIRS: ReadonlySet<string> = new Set(['just enough', 'kind of', 'sort of']);

/** Turns of phrase that are rated as a whole. */
export const IDIOMS: ReadonlyMap<string, number> = new Map([
  ['the shit', 3],
  ['the bomb', 3],
  ['bad ass', 1.5],
  ['bus stop', 0],
  ['yeah right', -2],
  ['kiss of death', -1.5],
  ['to die for', 3],
  ['beating heart', 3.1],
  ['broken heart', -2.9],
  ['cut the mustard', 2],
  ['hand to mouth', -2],
]);
