import { LanguageGate } from './languageGate.js';
import { sentenceEncoder } from './encoder.js';

/**
 * Vectors of texts by the encoder in use, on a thread.
 *
 * @param others texts by which the language of short ones is told
 * @returns null for a text that it does not read
 */
export async function encodeTexts({
  texts,
  others,
}: {
  texts: readonly string[];
  others: readonly string[];
}): Promise<(Float32Array | null)[]> {
  const encoder = await sentenceEncoder();
  if (!encoder) return texts.map(() => null);
  const gate = new LanguageGate(encoder.languages, others);
  const isRead = texts.map((text) => gate.admits(text));
  const vectors = encoder.encode(texts.filter((_, i) => isRead[i]));
  let next = 0;
  return isRead.map((is) => (is ? vectors[next++]! : null));
}
