import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { DraftNode } from './draftNode.js';
import { keyed, redraft } from './redraft.js';

const paragraph = (text: string): DraftNode => ({
  type: 'paragraph',
  content: [{ type: 'text', text }],
});
const draftOf = (texts: Record<string, string>): DraftNode => ({
  type: 'doc',
  content: Object.entries(texts).map(([key, text]) => keyed(key, paragraph(text))),
});
const said = ({ content = [] }: DraftNode) =>
  content.map((block) => (block.content ?? []).map(({ text }) => text ?? '').join(''));
/** A block as an editor gives it back after somebody changed its words. */
const changed = (block: DraftNode, text: string): DraftNode => ({
  ...block,
  content: [{ type: 'text', text }],
});

test('what was written, changed or removed stays so; all else is drafted again', () => {
  const first = redraft(null, draftOf({ a: 'a1', b: 'b1', c: 'c1' }), []);
  expect(said(first.doc)).toEqual(['a1', 'b1', 'c1']);
  const [a, b, c] = first.doc.content!;
  const edited: DraftNode = {
    type: 'doc',
    content: [paragraph('mine first'), a!, paragraph('mine after a'), changed(b!, 'b, changed')],
  };
  expect(c).toBeDefined();
  const second = redraft(edited, draftOf({ a: 'a2', b: 'b2', c: 'c2', d: 'd2' }), first.drafted);
  expect(said(second.doc)).toEqual(['mine first', 'a2', 'mine after a', 'b, changed', 'd2']);
  expect(second.kept).toBe(3);
  // a block that is drafted no more keeps what somebody made of it, and nothing else
  const third = redraft(second.doc, draftOf({ a: 'a3' }), second.drafted);
  expect(said(third.doc)).toEqual(['mine first', 'a3', 'mine after a', 'b, changed']);
});

test('an editor that joins texts, and figures that changed since, are no change of somebody’s', () => {
  const figure = (shown: string): DraftNode => ({
    type: 'figure',
    attrs: { table: 't', row: 'r', column: 'c', what: 'share', shown },
  });
  const block = keyed('a', {
    type: 'paragraph',
    content: [{ type: 'text', text: 'It is ' }, { type: 'text', text: 'now ' }, figure('20%')],
  });
  const back: DraftNode = {
    ...block,
    content: [{ type: 'text', text: 'It is now ' }, figure('25%')],
  };
  const again = redraft({ type: 'doc', content: [back] }, draftOf({ a: 'new' }), ['a']);
  expect(said(again.doc)).toEqual(['new']);
  expect(again.kept).toBe(0);
});

test('no word that somebody wrote is ever lost, and drafting twice is drafting once', () => {
  const key = fc.constantFrom('a', 'b', 'c', 'd', 'e');
  const texts = fc.dictionary(key, fc.constantFrom('one', 'two', 'three'), {
    noNullPrototype: true,
  });
  const deed = fc.record({
    at: fc.nat(9),
    what: fc.constantFrom('change', 'remove', 'write before'),
    text: fc.uuid(),
  });
  fc.assert(
    fc.property(texts, texts, fc.array(deed, { maxLength: 6 }), (before, after, deeds) => {
      const first = redraft(null, draftOf(before), []);
      const content = [...first.doc.content!];
      const theirs = new Set<string>();
      for (const { at, what, text } of deeds) {
        const place = at % (content.length + 1);
        const block = content[place];
        if (what === 'write before') content.splice(place, 0, paragraph(text));
        else if (!block || theirs.has(said({ type: 'doc', content: [block] })[0]!)) continue;
        else if (what === 'remove') content.splice(place, 1);
        else content[place] = changed(block, text);
        if (what !== 'remove') theirs.add(text);
      }
      const made = redraft({ type: 'doc', content }, draftOf(after), first.drafted);
      const kept = said(made.doc).filter((text) => theirs.has(text));
      expect(kept.sort()).toEqual([...theirs].sort());
      expect(made.kept).toBe(theirs.size);
      const again = redraft(made.doc, draftOf(after), made.drafted);
      expect(said(again.doc)).toEqual(said(made.doc));
    }),
  );
});
