/** Whether a text may be English, beside others of the same study. */
export async function isEnglish(text: string, others: readonly string[]): Promise<boolean> {
  // languages take longer to load than all else: only threads that ask for them do
  const { LanguageGate } = await import('./languageGate.js');
  return new LanguageGate(['en'], others).admits(text);
}
