import { describe, expect, test } from '@jest/globals';
import { asCount, asPercent, asShare, counted } from './numbers.js';

// the runner's locale is the machine's: digits are compared, separators are not
const digits = (text: string) => text.replaceAll(/[^\d]/gu, ' ').trim().replaceAll(/\s+/gu, ' ');

describe('numbers', () => {
  test('a percentage has no decimals on a base under 100 and one above', () => {
    expect(digits(asPercent(1 / 3, 99))).toBe('33');
    expect(digits(asPercent(1 / 3, 100))).toBe('33 3');
    expect(digits(asPercent(0, 450))).toBe('0 0');
    expect(digits(asPercent(1, 12))).toBe('100');
    expect(asPercent(0.5, 10)).toContain('%');
  });

  test('a share has two places, so that figures stand under each other', () => {
    expect(digits(asShare(0.5))).toBe('0 50');
    expect(digits(asShare(1))).toBe('1 00');
    expect(digits(asShare(0.005))).toMatch(/^0 0[01]$/);
  });

  test('counts agree with their noun', () => {
    expect(counted(1, 'person', 'people')).toBe('1 person');
    expect(counted(0, 'person', 'people')).toBe('0 people');
    expect(counted(2, 'answer')).toBe('2 answers');
    expect(digits(asCount(100_000))).toMatch(/^100 ?000$/);
  });
});
