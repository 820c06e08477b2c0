import { duplicateKey } from '../text/index.js';

/**
 * What people write when they leave a question out, in several languages. "Nothing" and "none" are not
 * here: to "what would you change?" they are answers.
 */
const sayingNothing = new Set([
  'n/a',
  'na',
  'n.a',
  'n.a.',
  'not applicable',
  'no answer',
  'no comment',
  'no comments',
  'no response',
  'prefer not to say',
  'nil',
  'xxx',
  'xx',
  'x',
  'entfällt',
  'keine angabe',
  'keine antwort',
  'k.a',
  'kein kommentar',
  'sans réponse',
  'sans commentaire',
  'sans objet',
  's.o',
  'sin respuesta',
  'sin comentarios',
  'no aplica',
  'geen antwoord',
  'n.v.t',
  'nessuna risposta',
  'inget svar',
]);

/** True when a response is empty or says nothing ("n/a", "-", "no comment"). */
export function isNoAnswer(text: string): boolean {
  const key = duplicateKey(text);
  return key === '' || sayingNothing.has(key);
}
