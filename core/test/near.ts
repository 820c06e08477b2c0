import { expect } from '@jest/globals';

/** What numbers are to be, to nine decimals. */
export const near = (values: Iterable<number>) =>
  Array.from(values, (value) => expect.closeTo(value, 9));
