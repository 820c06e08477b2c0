import { expect, test } from '@jest/globals';
import { LanguageGate } from './languageGate.js';

const english = ['The boat was late again', 'More boats in the evening', 'Staff were very kind'];
const german = [
  'Das Schiff war wieder zu spät',
  'Mehr Fähren am Abend',
  'Das Personal war sehr nett',
];

test('texts in other languages are told from English ones', () => {
  const gate = new LanguageGate(['en'], english);
  for (const text of english) expect(gate.admits(text)).toBe(true);
  for (const text of [...german, 'El barco llega siempre tarde', '船がいつも遅いです'])
    expect(gate.admits(text)).toBe(false);
});

test('a word or two are taken to be in the language of most others', () => {
  expect(new LanguageGate(['en'], english).admits('queue')).toBe(true);
  expect(new LanguageGate(['en'], german).admits('Preise')).toBe(false);
  // but not in another script
  expect(new LanguageGate(['en'], english).admits('船')).toBe(false);
});
