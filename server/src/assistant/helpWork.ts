import { helpWithAnswer, type AnswerHelp, type HelpRequest } from '@yellow-thread/core/assistant';
import type { SentenceEncoder, SentenceVectors } from '@yellow-thread/core/sentences';

/** Helps with an answer, on a thread: what the study wants to know is read for meaning there and then. */
export async function helpWork(
  { vectors, ...request }: HelpRequest & { vectors: SentenceVectors | null },
  {
    sentenceEncoder,
    isEnglish,
  }: {
    sentenceEncoder: () => Promise<SentenceEncoder | null>;
    isEnglish: (text: string, others: readonly string[]) => Promise<boolean>;
  },
): Promise<AnswerHelp> {
  const { text, purpose, wording, coded } = request;
  const others = coded.map((one) => one.text);
  // what the study explains is spelt as the study spells it
  const terms = request.glossary.map(({ term }) => term);
  const encoder = vectors && (await sentenceEncoder());
  const asked = [purpose, wording].filter((one) => one.trim() !== '');
  const read = encoder ? encoder.encode(asked) : [];
  const known = new Map(asked.map((one, i) => [one, read[i]!]));
  const isRead = await isEnglish(text, others);
  const { misspeltWords } = await import('./spelling.js');
  return helpWithAnswer(
    request,
    vectors && encoder
      ? { size: vectors.size, of: (one) => known.get(one) ?? vectors.of(one) }
      : vectors,
    (said) => (isRead ? misspeltWords(said, [...others, ...terms, ...terms]) : []),
  );
}
