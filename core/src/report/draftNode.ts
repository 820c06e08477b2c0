/** A piece of a write-up as its editor keeps it. */
export interface DraftNode {
  type: string;
  attrs?: Record<string, string | number | boolean | null>;
  content?: DraftNode[];
  text?: string;
  marks?: { type: string }[];
}
