import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { SaxesParser } from 'saxes';
import { WorksheetRows } from './worksheetRows.js';
import { attributesOf, XmlReader, type XmlHandler } from './xml.js';

type Told = ['open' | 'text' | 'close', string, Record<string, string>?];

/** Adjacent pieces of text are joined. */
function joined(told: Told[]): Told[] {
  const all: Told[] = [];
  for (const [what, said, attributes] of told) {
    const last = all.at(-1);
    if (what === 'text' && last?.[0] === 'text') last[1] += said;
    else if (what !== 'text' || said !== '')
      all.push(attributes ? [what, said, attributes] : [what, said]);
  }
  return all;
}

function read(pieces: readonly string[]): Told[] {
  const told: Told[] = [];
  const reader = new XmlReader({
    open: (name, written) => told.push(['open', name, Object.fromEntries(attributesOf(written))]),
    text: (text) => told.push(['text', text]),
    close: (name) => told.push(['close', name]),
  });
  for (const piece of pieces) reader.write(piece);
  reader.end();
  return joined(told);
}

/** What the library reports of the same document. */
function saxes(xml: string): Told[] {
  const told: Told[] = [];
  const parser = new SaxesParser();
  parser.on('opentag', ({ name, attributes }) => told.push(['open', name, { ...attributes }]));
  parser.on('text', (text) => told.push(['text', text]));
  parser.on('cdata', (text) => told.push(['text', text]));
  parser.on('closetag', ({ name }) => told.push(['close', name]));
  parser.on('error', (error) => {
    throw error;
  });
  parser.write(xml).close();
  return joined(told);
}

const name = fc.constantFrom('c', 'row', 'x:v', 'is-it', 'ä_1');
const character = fc.oneof(
  fc.constantFrom(
    '&amp;',
    '&#x1F9AD;',
    '&#65;',
    '&quot;',
    '&apos;',
    '&lt;',
    '\r',
    '\r\n',
    '\t',
    '🦭',
  ),
  fc.constantFrom('=', '/', '?', '!', '-', ']', 'é', ' '),
);
const text = fc.array(character, { maxLength: 6 }).map((parts) => parts.join(''));
const attribute = fc
  .tuple(
    fc.constantFrom(' ', '\n', '  '),
    fc.constantFrom('=', ' = '),
    text,
    fc.constantFrom('"', "'"),
  )
  .map(
    ([gap, equals, value, mark]) =>
      (n: number) =>
        `${gap}a${n}${equals}${mark}${value}>${mark}`,
  );
const element = fc.letrec<{ inside: string; element: string }>((tie) => ({
  inside: fc.oneof(
    { depthSize: 'small' },
    text,
    fc.constantFrom('<!-- <c> & -->', '<?do it?>', '<![CDATA[<a>&b]]]>'),
    tie('element'),
  ),
  element: fc
    .tuple(name, fc.array(attribute, { maxLength: 3 }), fc.array(tie('inside'), { maxLength: 4 }))
    .map(([tag, attributes, inside]) => {
      const written = attributes.map((one, n) => one(n)).join('');
      return inside.length === 0
        ? `<${tag}${written}/>`
        : `<${tag}${written}>${inside.join('')}</${tag} >`;
    }),
})).element;

const cuts = fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 1 });

function cut(xml: string, lengths: readonly number[]): string[] {
  const pieces: string[] = [];
  for (let at = 0; at < xml.length;) {
    const next = at + lengths[pieces.length % lengths.length]!;
    pieces.push(xml.slice(at, next));
    at = next;
  }
  return pieces;
}

test('tells of a document what a library tells, into whatever pieces it is cut', () => {
  fc.assert(
    fc.property(element, cuts, (body, lengths) => {
      const xml = `<?xml version="1.0" encoding="UTF-8"?>\n${body}\n<!---->`;
      expect(read(cut(xml, lengths))).toEqual(saxes(body));
    }),
  );
});

const content = fc.oneof(
  text.map((value) => `<v>${value}</v>`),
  text.map((value) => `<v>${value}</v >`),
  fc.constantFrom('<v>a<!-- > -->b</v>', '<v><![CDATA[<v>]]></v>', '<f>1+1</f><v>2</v>', '<v/>'),
  fc.constantFrom(
    '<is><t>in line</t></is>',
    '<is><r><t>in</t></r><r><t xml:space="preserve"> runs</t></r></is>',
  ),
);
const cell = fc
  .tuple(
    fc.constantFrom('', ' r="B2"', " r='D2'", ' r="AA2" '),
    fc.constantFrom('', ' t="str"', ' t="s"', ' s = "1" t="n"', ' x="a>b" t="b"'),
    fc.option(content),
  )
  .map(([place, kind, inside]) =>
    inside === null ? `<c${place}${kind}/>` : `<c${place}${kind}>${inside}</c>`,
  );
const worksheet = fc
  .array(fc.array(cell, { maxLength: 5 }), { maxLength: 4 })
  .map(
    (all) => `<sheetData>${all.map((row) => `<row>${row.join('')}</row>`).join('')}</sheetData>`,
  );

test('cells that are read where they stand are what they are when told part by part', () => {
  const rowsOf = (pieces: readonly string[], handler: (rows: WorksheetRows) => XmlHandler) => {
    const rows = new WorksheetRows({ strings: ['shared'], kinds: [], from1904: false }, 'a.xlsx');
    const reader = new XmlReader(handler(rows));
    for (const piece of pieces) reader.write(piece);
    reader.end();
    return rows.rows;
  };
  fc.assert(
    fc.property(worksheet, cuts, (xml, lengths) => {
      const told = rowsOf(cut(xml, lengths), (rows) => ({
        open: (name, attributes) => rows.open(name, attributes),
        text: (value) => rows.text(value),
        close: (name) => rows.close(name),
      }));
      expect(rowsOf(cut(xml, lengths), (rows) => rows)).toEqual(told);
    }),
  );
});

test.each([
  '<a><b></a></b>',
  '<a>',
  '<a b=c/>',
  '<a b/>',
  '<a>&nobody;</a>',
  '<a>&amp</a>',
  '<a>&#x110000;</a>',
  '<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>',
  '</a>',
  '<a/>left',
])('refuses %s', (xml) => {
  expect(() => read([xml])).toThrow();
});
