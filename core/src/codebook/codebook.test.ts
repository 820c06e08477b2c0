import { describe, expect, test } from '@jest/globals';
import { findCodeNamed, findCodes } from './findCodes.js';
import { inkOn, INKS, nextLook, STITCHES, type Look } from './looks.js';

describe('findCodes', () => {
  const code = (name: string, themeName: string, people = 0, definition = '') => ({
    id: name,
    name,
    themeName,
    definition,
    people,
  });
  const codes = [
    code('Passenger fares', 'Price', 4),
    code('Fare for cars', 'Price', 2),
    code('Welfare', 'People', 9),
    code('Crew', 'People', 5, 'Staff aboard and ashore; how fair they are'),
    code('Island fares', 'Price', 7),
  ];
  const found = (typed: string) => findCodes(codes, typed).map((one) => one.name);

  test('name first, then words of the name, then letters in it; among equals the most used', () => {
    expect(found('fare')).toEqual(['Fare for cars', 'Island fares', 'Passenger fares', 'Welfare']);
  });

  test('finds by theme and by words of the definition', () => {
    expect(found('people')).toEqual(['Welfare', 'Crew']);
    expect(found('ashore staff')).toEqual(['Crew']);
    expect(found('zzz')).toEqual([]);
  });

  test('one name is the same whatever its case and spaces', () => {
    expect(findCodeNamed(codes, ' island  FARES ')?.name).toBe('Island fares');
    expect(findCodeNamed(codes, 'fares')).toBeUndefined();
  });
});

describe('looks', () => {
  test('every ink stands out by 4.5 : 1 on paper and card, light and dark (WCAG 2.2, contrast ratio)', () => {
    const luminance = (colour: string) => {
      const [r, g, b] = [1, 3, 5].map((at) => {
        const value = parseInt(colour.slice(at, at + 2), 16) / 255;
        return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
      }) as [number, number, number];
      return 0.2126 * r + 0.7152 * g + 0.0722 * b;
    };
    const contrast = (one: string, other: string) => {
      const [low, high] = [luminance(one), luminance(other)].sort((x, y) => x - y) as [
        number,
        number,
      ];
      return (high + 0.05) / (low + 0.05);
    };
    for (const ink of INKS) {
      for (const ground of ['#FBFAF6', '#FFFFFF'])
        expect(contrast(inkOn(ink, false), ground)).toBeGreaterThanOrEqual(4.5);
      for (const ground of ['#1B1A17', '#242320'])
        expect(contrast(inkOn(ink, true), ground)).toBeGreaterThanOrEqual(4.5);
    }
  });

  test('themes get every ink and every stitch before any comes again', () => {
    const taken: Look[] = [];
    for (let n = 0; n < INKS.length; n++) taken.push(nextLook(taken));
    expect(new Set(taken.map((look) => look.ink)).size).toBe(INKS.length);
    expect(new Set(taken.slice(0, STITCHES.length).map((look) => look.stitch)).size).toBe(
      STITCHES.length,
    );
  });
});
