export const TONES = ['positive', 'negative', 'mixed', 'none'] as const;
export type Tone = (typeof TONES)[number];

/** Whether something is said positively; a mixed line says it both ways. */
export const isPositive = (tone: Tone): boolean => tone === 'positive' || tone === 'mixed';
export const isNegative = (tone: Tone): boolean => tone === 'negative' || tone === 'mixed';

/** From here on models hold a line to be positive or negative. */
const LIKELY = 0.5;

/**
 * The tone of a line by how likely it is to be positive and how likely to be negative (0 to 1 each), with its strength: of
 * a mixed line that of its weaker side.
 */
export function likelyTone(positive: number, negative: number): { tone: Tone; strength: number } {
  const [weaker, stronger] = positive < negative ? [positive, negative] : [negative, positive];
  if (weaker >= LIKELY) return { tone: 'mixed', strength: weaker };
  if (stronger < LIKELY) return { tone: 'none', strength: stronger };
  return { tone: positive > negative ? 'positive' : 'negative', strength: stronger };
}
