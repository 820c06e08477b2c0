const plurals = new Intl.PluralRules('en');
const numbers = new Intl.NumberFormat('en');

/** Which of two forms goes with a number: "is", "are". */
export const plural = (count: number, one: string, many: string): string =>
  plurals.select(count) === 'one' ? one : many;

/**
 * A number with what it counts: "1 suggestion", "1,200 suggestions".
 *
 * @param many for other numbers than one; the word with an s by default
 */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${numbers.format(count)} ${plural(count, one, many)}`;
