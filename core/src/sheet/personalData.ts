import { parseDate } from './values.js';

/** Kinds of personal data that a column may hold without being asked for in a report. */
export type PersonalData = 'e-mail addresses' | 'phone numbers' | 'names of people';

// tried from the beginning of a run of characters only: from each of them it would take the square of a long one
const email = /(?<![^\s@<>])[^\s@<>]+@[^\s@<>]+\.[a-z]{2,}/iu;
const phone = /^(?:\+|00|\(?0)[\d\s()/.-]{6,18}$/u;
const nameHead =
  /^(?:(?:first|last|sur|full|family|given|your|contact)[ _-]?name|name|vorname|nachname|nom|prénom|nombre|apellidos?)$/iu;
const emailHead = /e-?mail/iu;
const phoneHead = /\b(?:phone|mobile|telephone|tel|telefon|handy)\b/iu;

/**
 * Says whether a column looks like personal data: by what its values look like (e-mail addresses, phone
 * numbers), or by its name with values to match. Common practice, no source.
 *
 * @param values some filled cells of the column
 */
export function looksPersonal(name: string, values: readonly string[]): PersonalData | null {
  if (values.length === 0) return null;
  const share = (holds: (value: string) => boolean) => values.filter(holds).length / values.length;
  const isEmail = (value: string) => email.test(value.trim());
  const isPhone = (value: string) =>
    phone.test(value.trim()) &&
    value.replaceAll(/\D/gu, '').length >= 7 &&
    parseDate(value) === null &&
    parseDate(value, 'month_first') === null;
  if (share(isEmail) > (emailHead.test(name) ? 0.2 : 0.5)) return 'e-mail addresses';
  if (share(isPhone) > (phoneHead.test(name) ? 0.2 : 0.8)) return 'phone numbers';
  const isName = (value: string) =>
    /^\p{Lu}[\p{L}'’.-]+(?:\s+\p{Lu}[\p{L}'’.-]*){0,3}$/u.test(value);
  if (nameHead.test(name.trim()) && share(isName) > 0.5) return 'names of people';
  return null;
}
