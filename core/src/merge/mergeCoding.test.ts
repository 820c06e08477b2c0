import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { CodeFields, CodingSide, GivenCode, WrittenNote } from './codingSide.js';
import { mergeCoding } from './mergeCoding.js';

/** A side that can be worked on, and knows what was done since the copies parted. */
interface Copy extends CodingSide {
  themes: Map<string, { name: string }>;
  codes: Map<string, CodeFields>;
  mentions: Map<string, GivenCode>;
  settlements: { answer: number; coder: string }[];
  notes: Map<string, WrittenNote>;
  edited: Set<string>;
  removed: Set<string>;
  mergedInto: Map<string, string>;
}

const ANSWERS = 8;
const code = (name: string, themeId: string | null = null): CodeFields => ({
  ...{ name, themeId, definition: '', include: '', exclude: '', archived: false },
});
const given = (answer: number, codeId: string, coder: string): GivenCode => ({
  ...{ answer, codeId, coder, start: null, end: null, typical: false },
});

/** What both copies were: four codes, a mention and a note of every answer, the first two answers settled. */
function original(): Copy {
  const answers = Array.from({ length: ANSWERS }, (_, i) => i);
  return {
    themes: new Map([['t', { name: 'Sea' }]]),
    codes: new Map(['c0', 'c1', 'c2', 'c3'].map((id) => [id, code(`Code ${id}`, 't')])),
    mentions: new Map(answers.map((i) => [`m${i}`, given(i, `c${i % 4}`, 'Rowan')])),
    settlements: [0, 1].map((answer) => ({ answer, coder: 'Rowan' })),
    notes: new Map(answers.map((i) => [`n${i}`, { codeId: null, text: 'hm', unsure: false }])),
    ...{ edited: new Set(), removed: new Set(), mergedInto: new Map() },
  };
}

const clone = (side: CodingSide): Copy => structuredClone(side) as Copy;

/** Carries out what a merge says. */
function apply(here: CodingSide, there: CodingSide): Copy {
  const merged = mergeCoding(here, there);
  const next = clone(here);
  for (const id of merged.newThemes) next.themes.set(id, there.themes.get(id)!);
  for (const id of merged.newCodes) {
    const fields = there.codes.get(id)!;
    next.codes.set(id, { ...fields, themeId: merged.themeHere(fields.themeId) });
  }
  for (const { id, there: fields } of merged.updated) next.codes.set(id, fields);
  for (const id of merged.mentions.removed) next.mentions.delete(id);
  for (const [id, mention] of [...merged.mentions.updated, ...merged.mentions.added])
    next.mentions.set(id, mention);
  next.settlements.push(...merged.settlements);
  for (const id of [...merged.notes.added, ...merged.notes.updated])
    next.notes.set(id, there.notes.get(id)!);
  for (const id of merged.notes.removed) next.notes.delete(id);
  return next;
}

/** What is coded, in names: whoever did it first. */
const coded = (side: CodingSide) => ({
  codes: [...side.codes.values()]
    .map(({ themeId, ...fields }) => ({
      ...fields,
      theme: themeId && side.themes.get(themeId)!.name,
    }))
    .toSorted((a, b) => a.name.localeCompare(b.name)),
  mentions: [...side.mentions.values()]
    .map(({ answer, codeId, start, typical }) =>
      JSON.stringify([answer, side.codes.get(codeId)!.name, start, typical]),
    )
    .toSorted(),
  settlements: side.settlements.map(({ answer, coder }) => `${answer} ${coder}`).toSorted(),
  notes: [...side.notes].map(([id, { text }]) => `${id} ${text}`).toSorted(),
});

type Act = { do: string; answer: number; code: number };
const acts = fc.array(
  fc.record({
    do: fc.constantFrom(
      'give',
      'giveNew',
      'take',
      'move',
      'rename',
      'settle',
      'note',
      'unnote',
      'edit',
    ),
    answer: fc.nat(ANSWERS / 2 - 1),
    code: fc.nat(1),
  }),
  { maxLength: 25 },
);

/** Works on a copy; two of different parity touch nothing that the other touches. */
function work(from: CodingSide, parity: 0 | 1, all: readonly Act[]): Copy {
  const side = clone(from);
  const who = parity === 0 ? 'Ana' : 'Ben';
  all.forEach((act, step) => {
    const answer = 2 * act.answer + parity;
    const codeId = `c${2 * act.code + parity}`;
    const fresh = `${who}-${step}`;
    const own = [...side.mentions].find(([, mention]) => mention.answer === answer);
    switch (act.do) {
      case 'give':
        side.mentions.set(fresh, { ...given(answer, codeId, who), start: step, end: step + 1 });
        break;
      case 'giveNew':
        side.codes.set(`code ${fresh}`, code(`New ${fresh}`, 't'));
        side.mentions.set(fresh, given(answer, `code ${fresh}`, who));
        break;
      case 'take':
        if (!own) break;
        side.mentions.delete(own[0]);
        side.removed.add(own[0]);
        break;
      case 'move':
        if (!own) break;
        side.mentions.set(own[0], { ...own[1], start: 100 + step, end: 101 + step });
        side.edited.add(own[0]);
        break;
      case 'rename':
        side.codes.set(codeId, { ...side.codes.get(codeId)!, name: `Renamed ${fresh}` });
        side.edited.add(codeId);
        break;
      case 'settle':
        if (!side.settlements.some((one) => one.answer === answer && one.coder === who))
          side.settlements.push({ answer, coder: who });
        break;
      case 'note':
        side.notes.set(fresh, { codeId: null, text: fresh, unsure: false });
        break;
      case 'unnote':
        side.notes.delete(`n${answer}`);
        side.removed.add(`n${answer}`);
        break;
      case 'edit':
        if (!side.notes.has(`n${answer}`)) break;
        side.notes.set(`n${answer}`, { codeId: null, text: fresh, unsure: true });
        side.edited.add(`n${answer}`);
        break;
    }
  });
  return side;
}

describe('two copies that were worked on apart', () => {
  test('without a conflict, this into that gives what that into this does; nothing of either is lost', () => {
    fc.assert(
      fc.property(acts, acts, (mine, theirs) => {
        const here = work(original(), 0, mine);
        const there = work(original(), 1, theirs);
        const both = coded(apply(here, there));
        expect(both).toEqual(coded(apply(there, here)));
        // what one of them did stands as it does in one who did both
        const asOne = coded(work(work(original(), 0, mine), 1, theirs));
        expect(both).toEqual(asOne);
      }),
    );
  });

  test('merging twice brings nothing twice, also where both touched the same', () => {
    fc.assert(
      fc.property(acts, acts, fc.boolean(), (mine, theirs, isApart) => {
        const here = work(original(), 0, mine);
        const there = work(original(), isApart ? 1 : 0, theirs);
        const once = apply(here, there);
        // what the merge did is a change of this side, too
        const merged = mergeCoding(here, there);
        for (const [id] of merged.mentions.updated) once.edited.add(id);
        for (const { id } of merged.updated) once.edited.add(id);
        for (const id of merged.notes.updated) once.edited.add(id);
        for (const id of [...merged.mentions.removed, ...merged.notes.removed])
          once.removed.add(id);
        expect(coded(apply(once, there))).toEqual(coded(once));
      }),
    );
  });
});

test('an answer that both settled apart is coded by neither for the other, but compared', () => {
  const [here, there] = [clone(original()), clone(original())];
  here.mentions.set('a', given(5, 'c0', 'Ana'));
  here.settlements.push({ answer: 5, coder: 'Ana' });
  there.mentions.set('b', given(5, 'c3', 'Ben'));
  there.settlements.push({ answer: 5, coder: 'Ben' }, { answer: 6, coder: 'Ben' });
  const merged = mergeCoding(here, there);
  expect(merged.doubleCoded).toEqual([
    { answer: 5, coder: 'Ben', here: ['c1', 'c0'], there: ['c1', 'c3'] },
  ]);
  expect(merged.mentions.added).toEqual([]);
  expect(merged.settlements).toEqual([{ answer: 6, coder: 'Ben' }]);
  expect(mergeCoding(here, there, (answer) => answer === 5).doubleCoded).toEqual([]);
});

test('a code that was merged here takes what was given to it there; one merged there is named', () => {
  const [here, there] = [clone(original()), clone(original())];
  here.codes.delete('c1');
  here.removed.add('c1');
  here.mergedInto.set('c1', 'c0');
  for (const [id, mention] of here.mentions)
    if (mention.codeId === 'c1') {
      here.mentions.set(id, { ...mention, codeId: 'c0' });
      here.edited.add(id);
    }
  there.mentions.set('b', given(2, 'c1', 'Ben'));
  const merged = mergeCoding(here, there);
  expect(merged.mergedHere).toEqual([['c1', 'c0']]);
  expect(merged.mentions.added).toEqual([['b', given(2, 'c0', 'Ben')]]);
  expect([merged.newCodes, merged.mentions.conflicts]).toEqual([[], 0]);
  expect(mergeCoding(there, here).mergedThere).toEqual([['c1', 'c0']]);
});

test('codes are told by identity before name; what both changed, and a name that is taken, stays as it is here', () => {
  const [here, there] = [clone(original()), clone(original())];
  there.codes.set('x', code('code C9'));
  here.codes.set('y', code('Code c9'));
  there.codes.set('c0', code('Fares'));
  there.edited.add('c0');
  there.codes.set('c1', code('Ours', 't'));
  here.codes.set('c1', code('Theirs', 't'));
  for (const side of [here, there]) side.edited.add('c1');
  there.codes.set('c2', code('Code c9 '));
  there.edited.add('c2');
  const merged = mergeCoding(here, there);
  expect(merged.sameName).toEqual([['x', 'y']]);
  expect(merged.updated.map(({ id, there: { name, themeId } }) => [id, name, themeId])).toEqual([
    ['c0', 'Fares', null],
  ]);
  expect(merged.conflicts.map(({ id }) => id)).toEqual(['c1', 'c2']);
});
