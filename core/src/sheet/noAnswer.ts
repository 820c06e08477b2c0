import { duplicateKey, isFunctionWord, splitWords } from '../text/index.js';

/**
 * What people write when they leave a question out, in several languages: the list a study begins with.
 * "Nothing" and "none" are not here: to "what would you change?" they are answers.
 */
export const NO_ANSWERS: readonly string[] = [
  'n/a',
  'na',
  'n.a.',
  'not applicable',
  'no answer',
  'no comment',
  'no comments',
  'no response',
  'prefer not to say',
  'nil',
  'x',
  'xx',
  'xxx',
  'entfällt',
  'keine Angabe',
  'keine Antwort',
  'k.A.',
  'kein Kommentar',
  'sans réponse',
  'sans commentaire',
  'sans objet',
  's.o.',
  'sin respuesta',
  'sin comentarios',
  'no aplica',
  'geen antwoord',
  'n.v.t.',
  'nessuna risposta',
  'inget svar',
  'sem resposta',
  'não se aplica',
  'brak odpowiedzi',
  'nie dotyczy',
];

/** What may say nothing or be an answer, depending on the question: shown for the researcher to decide. */
export const DOUBTFUL_ANSWERS: readonly string[] = [
  'nothing',
  'none',
  'no',
  'nothing else',
  'nothing really',
  "don't know",
  'dont know',
  'dk',
  'not sure',
  'unsure',
  'nichts',
  'nein',
  'weiß nicht',
  'keine',
  'rien',
  'aucun',
  'aucune',
  'non',
  'nada',
  'ninguno',
  'ninguna',
  'no sé',
  'niets',
  'geen',
  'niente',
  'inget',
  'vet inte',
  'no idea',
  'no opinion',
  'idk',
  'keine Ahnung',
  'keine Meinung',
  'je ne sais pas',
  'ni idea',
  'weet niet',
  'geen idee',
  'non so',
  'non lo so',
  'não sei',
  'nic',
  'nie wiem',
];

/** The form in which what says nothing is compared. */
export const noAnswerKey = (text: string): string => duplicateKey(text);

/** A list of no-answers in the form in which they are compared. */
export interface NoAnswerKeys {
  keys: ReadonlySet<string>;
  longest: number;
}

export function noAnswerKeys(written: Iterable<string>): NoAnswerKeys {
  const keys = new Set([...written].map(noAnswerKey));
  return { keys, longest: Math.max(0, ...[...keys].map((key) => key.length)) };
}

/** Words by which people point to what they said elsewhere. */
const POINTING = new Set(
  `see above below previous previously earlier answer ditto comment siehe oben dito wie idem voir ci dessus ver
  arriba zie boven`.split(/\s+/u),
);
const LONGEST_POINTING = 40;
const MOST_WORDS = 5;

/** Whether a short response has no word with a meaning of its own, as "see above": many who write it say nothing. */
export function isEmptyPhrase(text: string): boolean {
  if (text.length > LONGEST_POINTING || !/\p{L}{2}/u.test(text)) return false;
  const words = splitWords(text);
  return (
    words.length <= MOST_WORDS &&
    words.every(({ form }) => POINTING.has(form) || isFunctionWord(form))
  );
}

/** How much longer than its key a text may be by blanks and punctuation. */
const SLACK = 12;

/** How long a text may be that says one of these things. */
export const longestNoAnswer = ({ longest }: NoAnswerKeys): number => longest + SLACK;

/** The key of a text that may be on a list; null for one that is too long for that, as most answers are. */
export const keyWithin = (text: string, longest: number): string | null =>
  text.length > longest + SLACK ? null : noAnswerKey(text);

/** True when a response is empty, mere punctuation, or says one of the things that mean nothing. */
export function isNoAnswer(text: string, { keys, longest }: NoAnswerKeys): boolean {
  const key = keyWithin(text, longest);
  if (key === null) return /^[\p{P}\s]*$/u.test(text);
  return key === '' || keys.has(key);
}
