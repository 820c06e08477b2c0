/** A regular expression that finds just these characters; any white space matches any other. */
export const escapePattern = (text: string): string =>
  text.replaceAll(/[\\^$.*+?()[\]{}|/]/gu, '\\$&').replaceAll(/\s+/gu, '\\s+');
