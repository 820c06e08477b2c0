import { valueName } from '@yellow-thread/core/groups';
import { readBackground } from '@yellow-thread/core/sheet';
import type { BackgroundValue, Variable } from '@yellow-thread/contract';

type Background = Readonly<Record<string, BackgroundValue | null>>;

/** What a respondent's value of a variable is called; '' for none. */
export const nameIn = (variable: Variable, background: Background): string =>
  valueName(variable, background[String(variable.derived?.from ?? variable.id)] ?? null) ?? '';

/** Reads what was typed as a value of a variable; undefined when it is none. */
export const typedValue = (
  kind: Variable['kind'],
  typed: string,
): BackgroundValue | null | undefined =>
  typed.trim() === '' ? null : (readBackground(typed, kind) ?? undefined);
