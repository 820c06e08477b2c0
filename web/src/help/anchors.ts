/** A heading's words as they stand in an address, as code hosts write them. */
export const anchorOf = (words: string): string =>
  words
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}\s-]/gu, '')
    .trim()
    .replaceAll(/\s+/gu, '-');
