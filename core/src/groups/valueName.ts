import { bandOf, type Band } from './bands.js';
import { valueNameTexts } from '../wording/groups.js';

/** How the values of a background variable are called. */
export interface ValueNames {
  /** Bands of another variable, for one that is computed of it. */
  bands: readonly Band[] | null;
  /** What stored values are called, where that differs from what is stored. */
  labels: Readonly<Record<string, string>>;
}

/** What a stored value is called, everywhere the same; null when there is none, or it falls into no band. */
export function valueName(
  { bands, labels }: ValueNames,
  value: string | number | boolean | null,
): string | null {
  if (bands) return bandOf(bands, value)?.label ?? null;
  if (value === null) return null;
  if (typeof value === 'boolean') return value ? valueNameTexts.yes : valueNameTexts.no;
  return (Object.hasOwn(labels, value) ? labels[value] : undefined) ?? String(value);
}
