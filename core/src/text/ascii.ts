// eslint-disable-next-line no-control-regex -- the characters that ASCII has
const ASCII = /^[\x00-\x7f]*$/;

/** Whether a text has ASCII only: most have, and nothing in it is written in two ways or without spaces. */
export const isAscii = (text: string): boolean => ASCII.test(text);
