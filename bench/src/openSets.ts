import { execFileSync } from 'node:child_process';
import { readMails } from '../../core/test/mail.js';
import type { CodedText } from './material.js';

/** Open data with labels, as answers and codes. */
export interface OpenSet {
  name: string;
  answers: (CodedText & { id: string })[];
  codes: string[];
}

/** The SpamAssassin corpus of mails: subject and the first sixty words. */
export const mails = (): OpenSet => ({
  name: 'mails',
  answers: readMails().map((mail, i) => ({ ...mail, id: String(i) })),
  codes: ['spam', 'hard-ham'],
});

const MOST_PACKAGES = 3000;
const MOST_TAGS = 24;

/**
 * One-line descriptions of Debian's packages with what Debian tags them as (debtags: what they are used for, in which
 * field, what they work with), several to a package. What apt knows of here; the same packages give the same set.
 */
export function packages(): OpenSet {
  const records = execFileSync('apt-cache', ['dumpavail'], {
    encoding: 'utf8',
    maxBuffer: 2 ** 29,
  })
    .split('\n\n')
    .map((record) => ({
      id: /^Package: (.+)$/mu.exec(record)?.[1] ?? '',
      text: /^Description: (.+)$/mu.exec(record)?.[1] ?? '',
      tags: (/^Tag: (.+(?:\n .+)*)/mu.exec(record)?.[1] ?? '')
        .split(/[,\s]+/u)
        .filter((tag) => /^(?:use|field|works-with)::/u.test(tag)),
    }));
  const used = new Map<string, number>();
  for (const tag of records.flatMap(({ tags }) => tags)) used.set(tag, (used.get(tag) ?? 0) + 1);
  const codes = [...used]
    .toSorted(([one, a], [other, b]) => b - a || (one < other ? -1 : 1))
    .slice(0, MOST_TAGS)
    .map(([tag]) => tag);
  const wanted = new Set(codes);
  const byText = new Map(
    records
      .filter(({ tags }) => tags.some((tag) => wanted.has(tag)))
      .map(({ id, text, tags }) => [text, { id, text, codes: new Set(tags) }]),
  );
  const step = Math.max(1, byText.size / MOST_PACKAGES);
  const all = [...byText.values()];
  return {
    name: 'packages',
    codes,
    answers: Array.from(
      { length: Math.min(all.length, MOST_PACKAGES) },
      (_, i) => all[Math.floor(i * step)]!,
    ),
  };
}
