import { labelsByRule, valueName } from '@yellow-thread/core/groups';
import { readBackground } from '@yellow-thread/core/sheet';
import type { BackgroundValue, Derived, Variable } from '@yellow-thread/contract';
import { asDay, asNumber } from '../lib/numbers.js';

type Background = Readonly<Record<string, BackgroundValue | null>>;

/** What a respondent's value of a variable is called, dates and numbers as the locale writes them; '' for none. */
export function nameIn({ id, kind, derived, labels }: Variable, background: Background): string {
  const inBands = derived && 'from' in derived ? derived : null;
  const value = background[String(inBands?.from ?? id)] ?? null;
  const isOwn = inBands === null && labels[String(value)] === undefined;
  if (isOwn && typeof value === 'number') return asNumber(value);
  if (isOwn && kind === 'date' && typeof value === 'string') return asDay(value);
  return valueName({ bands: inBands?.bands ?? null, labels }, value) ?? '';
}

/** The categories of a variable that is computed, in their order. */
export const categoriesOf = (derived: Derived): string[] =>
  'bands' in derived ? derived.bands.map(({ label }) => label) : labelsByRule(derived);

/** Reads what was typed as a value of a variable; undefined when it is none. */
export const typedValue = (
  kind: Variable['kind'],
  typed: string,
): BackgroundValue | null | undefined =>
  typed.trim() === '' ? null : (readBackground(typed, kind) ?? undefined);
