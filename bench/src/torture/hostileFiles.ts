import { crc32 } from 'node:zlib';
import { bringInto, enter, type Product } from '../product.js';
import { waits, type Trial } from './people.js';

/** Files that hold up, fill or break what reads them, at a size; most are a few kilobytes. */
const shapes: Record<string, (size: number) => [name: string, content: Uint8Array]> = {
  'a word without end': (n) => csv('a'.repeat(n)),
  'digits without end': (n) => csv('7'.repeat(n)),
  'signs for addresses': (n) => csv('a@'.repeat(n / 2)),
  'joined emoji': (n) => csv('👩\u200d'.repeat(n / 3)),
  'stacked accents': (n) => csv(`e${'\u0301'.repeat(n)}`),
  abbreviations: (n) => csv('Dr. '.repeat(n / 4)),
  'a list of markers': (n) => csv('1. '.repeat(n / 3)),
  'Thai without a space': (n) => csv('ก'.repeat(n)),
  'Chinese without a mark': (n) => csv('我'.repeat(n)),
  'line ends': (n) => csv(`"${'\n'.repeat(n)}"`),
  'doubled quotes': (n) => csv(`"${'""'.repeat(n / 2)}"`),
  'a quotation mark never closed': (n) => text('a.csv', `id,Why?\n1,"${'a,b\n'.repeat(n * 10)}`),
  'a line of JSON without end': (n) =>
    text('a.jsonl', `{"id":"1","Why?":"${'a'.repeat(n * 40)}"}\n`),
  'objects within objects': (n) =>
    text('a.jsonl', `{"id":"1","Why?":${'{"a":'.repeat(n / 5)}1${'}'.repeat(n / 5)}}\n`),
  'an attribute without end': (n) => ['a.xlsx', workbook(`<row r="1" x="${'a'.repeat(n * 50)}"/>`)],
  'cells far away': (n) => [
    'a.xlsx',
    workbook(
      Array.from(
        { length: n / 100 },
        (_, r) => `<row r="${r + 1}"><c r="XFD${r + 1}" t="str"><v>b</v></c></row>`,
      ).join(''),
    ),
  ],
  'a row far away': () => [
    'a.xlsx',
    workbook('<row r="1"/><row r="1048576"><c t="str"><v>b</v></c></row>'),
  ],
  'elements within elements': (n) => ['a.xlsx', workbook('<a>'.repeat(n))],
  'very many tables': (n) => [
    'a.ods',
    zip({ 'content.xml': `<b>${'<table:table table:name="A"/>'.repeat(n / 10)}</b>` }),
  ],
  'an empty zip': () => ['a.xlsx', Buffer.from(`504b0506${'00'.repeat(18)}`, 'hex')],
  'UTF-32': () => ['a.csv', Buffer.from('fffe000069000000640000002c000000', 'hex')],
  noise: (n) => ['a.xlsx', Uint8Array.from({ length: n }, (_, i) => (i * 7919 + (i >> 3)) % 256)],
};

const text = (name: string, content: string): [string, Uint8Array] => [name, Buffer.from(content)];
const csv = (answer: string) => text('a.csv', `id,Why?\n1,${answer}\n2,late boats\n`);
const workbook = (rows: string) =>
  zip({
    'xl/_rels/workbook.xml.rels': '<r><Relationship Id="r1" Target="worksheets/a.xml"/></r>',
    'xl/workbook.xml': '<w xmlns:r="x"><sheet name="A" r:id="r1"/></w>',
    'xl/worksheets/a.xml': `<worksheet><sheetData>${rows}</sheetData></worksheet>`,
  });

/** A zip whose entries are stored as they are (PKWARE, APPNOTE 6.3.10). */
function zip(entries: Record<string, string>): Uint8Array {
  const parts: Buffer[] = [];
  const directory: Buffer[] = [];
  let offset = 0;
  for (const [name, content] of Object.entries(entries)) {
    const data = Buffer.from(content);
    const [head, entry] = [Buffer.alloc(30), Buffer.alloc(46)];
    head.writeUInt32LE(0x04034b50, 0);
    entry.writeUInt32LE(0x02014b50, 0);
    for (const [at, block] of [
      [14, head],
      [16, entry],
    ] as const) {
      block.writeUInt32LE(crc32(data), at);
      block.writeUInt32LE(data.length, at + 4);
      block.writeUInt32LE(data.length, at + 8);
      block.writeUInt16LE(name.length, at + 12);
    }
    entry.writeUInt32LE(offset, 42);
    parts.push(head, Buffer.from(name), data);
    directory.push(entry, Buffer.from(name));
    offset += head.length + name.length + data.length;
  }
  const listed = Buffer.concat(directory);
  const end = Buffer.alloc(22);
  end.writeUInt32LE(0x06054b50, 0);
  end.writeUInt16LE(parts.length / 3, 8);
  end.writeUInt16LE(parts.length / 3, 10);
  end.writeUInt32LE(listed.length, 12);
  end.writeUInt32LE(offset, 16);
  return Buffer.concat([...parts, listed, end]);
}

/** Ends with a sentence, not with silence or with what the server does not know. */
const isTold = (error: unknown) =>
  error instanceof Error && !/unexpected|went wrong|worker/iu.test(error.message);

/** Each file at three sizes, and how the longest grows with it; meanwhile others ask for a page. */
export async function hostileFiles(_: Product, hard: number): Promise<Trial[]> {
  const { call } = await enter();
  const { id } = await call<{ id: number }>('POST', '/studies', { name: 'Files', purpose: '' });
  const besides = waits();
  const read = waits();
  let isOver = false;
  const asking = (async () => {
    while (!isOver) {
      await besides.of(() => call('GET', `/studies/${id}`));
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  })();
  const slowest: { what: string; ratio: number }[] = [];
  for (const [what, make] of Object.entries(shapes)) {
    const took: number[] = [];
    for (const times of [1, 2, 4]) {
      const [name, content] = make(20_000 * hard * times);
      const file = new Blob([content as Uint8Array<ArrayBuffer>]);
      const before = performance.now();
      await read.of(() =>
        bringInto(call, id, file, name).catch((error: unknown) => {
          if (!isTold(error)) throw error;
        }),
      );
      took.push(performance.now() - before);
    }
    slowest.push({ what, ratio: took[2]! / took[1]! });
  }
  isOver = true;
  await asking;
  const worst = slowest.reduce((most, one) => (one.ratio > most.ratio ? one : most));
  return [
    read.told(`hostile files, at n, 2n and 4n; at worst ${worst.ratio.toFixed(1)} (${worst.what})`),
    besides.told('a page asked for beside them'),
  ];
}
