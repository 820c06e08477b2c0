/** A piece of a write-up as its editor keeps it. */
export interface DraftNode {
  type: string;
  attrs?: Record<string, string | number | boolean | null>;
  content?: DraftNode[];
  text?: string;
  marks?: { type: string }[];
}

export const text = (words: string): DraftNode => ({ type: 'text', text: words });
export const bold = (words: string): DraftNode => ({ ...text(words), marks: [{ type: 'bold' }] });
export const paragraph = (...content: DraftNode[]): DraftNode => ({ type: 'paragraph', content });
export const heading = (level: number, words: string): DraftNode => ({
  type: 'heading',
  attrs: { level },
  content: [text(words)],
});
export const listOf = (sentences: string[]): DraftNode => ({
  type: 'bulletList',
  content: sentences.map((one) => ({ type: 'listItem', content: [paragraph(text(one))] })),
});
