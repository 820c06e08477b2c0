import { describe, expect, test } from '@jest/globals';
import { readFile } from 'node:fs/promises';
import Excel from 'exceljs';
import fc from 'fast-check';
import iconv from 'iconv-lite';
import { readSheet, type FileChoices } from '../readSheet.js';
import { openFile, PART_SIZE, readRows, sourceOf, textOf, writeRows } from './index.js';

const fixture = (name: string) => readFile(new URL(`../../../test/files/${name}`, import.meta.url));
const demo = (name: string) => readFile(new URL(`../../../../demo/${name}`, import.meta.url));

/** All rows of a file, blank ones at the end left out. */
async function rowsOf(content: string | Uint8Array, choices: FileChoices = {}, name = 'a.csv') {
  const opened = await openFile(name, sourceOf(Buffer.from(content)), choices);
  const rows: string[][] = [];
  for await (const batch of opened.rows()) rows.push(...batch.rows);
  opened.close();
  while (rows.at(-1)?.every((cell) => cell === '')) rows.pop();
  return rows;
}
const refusal = (content: Uint8Array, name = 'x.xlsx') =>
  readSheet(name, sourceOf(content), {}, () => Promise.resolve()).catch(
    (error: Error) => error.message,
  );

describe('files that other programs wrote', () => {
  const rows = async () => JSON.parse(await fixture('rows.json').then(String)) as string[][];
  const padded = (table: string[][], width = 6) =>
    table.map((row) => Array.from({ length: width }, (_, c) => row[c] ?? ''));

  test.each([
    ['Python’s csv module', 'python.csv'],
    ['Python, UTF-16 with tabs', 'python-excel-tab-utf16.tsv'],
    ['Python, semicolons, a byte order mark, every cell quoted', 'python-unix-semicolon.csv'],
    ['R’s write.csv', 'r.csv'],
    ['R’s write.csv2', 'r-csv2.csv'],
    ['LibreOffice, XLSX', 'libreoffice.xlsx'],
    ['LibreOffice, ODS', 'libreoffice.ods'],
    ['openpyxl', 'openpyxl.xlsx'],
    ['XlsxWriter, with strings in the cells and in runs', 'xlsxwriter.xlsx'],
  ])('%s: reads back equal', async (_, name) => {
    expect(padded(await rowsOf(await fixture(name)))).toEqual(await rows());
  });

  test('CSV and XLSX of the demo read the same', async () => {
    const csv = await rowsOf(await demo('brindle-sound.csv'));
    expect(padded(await rowsOf(await demo('brindle-sound.xlsx')), csv[0]!.length)).toEqual(csv);
  });
});

describe('separated text', () => {
  test('a file may be far longer than a row may be', async () => {
    const row = ['R1', 'it was late, and "dear" '.repeat(4)];
    const text = `id,"Why?"\n${`R1,"${'it was late, and ""dear"" '.repeat(4)}"\n`.repeat(40_000)}`;
    const rows = await rowsOf(text);
    expect([rows.length, rows[40_000]]).toEqual([40_001, row]);
  });

  test('reads what RFC 4180 gives as examples (section 2, rules 1 to 7)', async () => {
    const plain = [
      ['aaa', 'bbb', 'ccc'],
      ['zzz', 'yyy', 'xxx'],
    ];
    expect(await rowsOf('aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n')).toEqual(plain);
    expect(await rowsOf('aaa,bbb,ccc\r\nzzz,yyy,xxx')).toEqual(plain);
    expect(await rowsOf('"aaa","bbb","ccc"\r\nzzz,yyy,xxx')).toEqual(plain);
    expect(await rowsOf('"aaa","b\r\nbb","ccc"\r\nzzz,yyy,xxx')).toEqual([
      ['aaa', 'b\r\nbb', 'ccc'],
      plain[1],
    ]);
    expect(await rowsOf('"aaa","b""bb","ccc"')).toEqual([['aaa', 'b"bb', 'ccc']]);
  });

  test('finds the encoding, and takes another when told', async () => {
    expect(await rowsOf(Buffer.from('id,caf\xe9 \x80', 'latin1'))).toEqual([['id', 'café €']]);
    expect(await rowsOf(Buffer.from('id,café', 'utf16le'))).toEqual([['id', 'café']]);
    expect(await rowsOf('id,café', { encoding: 'windows-1252' })).toEqual([['id', 'cafÃ©']]);
    expect(await rowsOf('a;b,c\n', { separator: ',' })).toEqual([['a;b', 'c']]);
  });

  // the first article of the Universal Declaration of Human Rights (United Nations 1948), in its translations
  test.each([
    [
      'windows-1250',
      'Wszyscy ludzie rodzą się wolni i równi pod względem swej godności i swych praw. Są oni obdarzeni rozumem i sumieniem i powinni postępować wobec innych w duchu braterstwa.',
    ],
    [
      'windows-1251',
      'Все люди рождаются свободными и равными в своем достоинстве и правах. Они наделены разумом и совестью и должны поступать в отношении друг друга в духе братства.',
    ],
    [
      'koi8-r',
      'Все люди рождаются свободными и равными в своем достоинстве и правах. Они наделены разумом и совестью и должны поступать в отношении друг друга в духе братства.',
    ],
    [
      'windows-1253',
      'Όλοι οι άνθρωποι γεννιούνται ελεύθεροι και ίσοι στην αξιοπρέπεια και τα δικαιώματα. Είναι προικισμένοι με λογική και συνείδηση, και οφείλουν να συμπεριφέρονται μεταξύ τους με πνεύμα αδελφοσύνης.',
    ],
    [
      'windows-1254',
      'Bütün insanlar hür, haysiyet ve haklar bakımından eşit doğarlar. Akıl ve vicdana sahiptirler ve birbirlerine karşı kardeşlik zihniyeti ile hareket etmelidirler.',
    ],
    [
      'shift_jis',
      'すべての人間は、生まれながらにして自由であり、かつ、尊厳と権利とについて平等である。人間は、理性と良心とを授けられており、互いに同胞の精神をもって行動しなければならない。',
    ],
    [
      'gb18030',
      '人人生而自由，在尊严和权利上一律平等。他们赋有理性和良心，并应以兄弟关系的精神相对待。',
    ],
    [
      'euc-kr',
      '모든 인간은 태어날 때부터 자유로우며 그 존엄과 권리에 있어 동등하다. 인간은 천부적으로 이성과 양심을 부여받았으며 서로 형제애의 정신으로 행동하여야 한다.',
    ],
    [
      'windows-1252',
      'Alle Menschen sind frei und gleich an Würde und Rechten geboren. Sie sind mit Vernunft und Gewissen begabt und sollen einander im Geiste der Brüderlichkeit begegnen.',
    ],
  ])('%s is found by what it says, and read back', async (encoding, text) => {
    const rows = [
      ['id', 'answer'],
      ['1', text],
      ['2', 'plain'],
      ['3', text.toUpperCase()],
    ];
    const written = rows.map((row) => row.map((cell) => `"${cell}"`).join(',')).join('\n');
    expect(await rowsOf(iconv.encode(written, encoding))).toEqual(rows);
  });

  test('words that can be read in several ways are shown in each, the chosen one first', async () => {
    const readings = async (text: string, encoding: string, choices = {}) => {
      const opened = await openFile('a.csv', sourceOf(iconv.encode(text, encoding)), choices);
      opened.close();
      return opened.file.readings!;
    };
    const text = 'id;answer\n1;"garçon, forêt"\n2;naïve garçon\n';
    const found = await readings(text, 'macintosh');
    expect(found.find(({ encoding }) => encoding === 'macintosh')!.words).toEqual([
      'garçon',
      'forêt',
      'naïve',
    ]);
    const chosen = await readings(text, 'macintosh', { encoding: 'macintosh' });
    expect(chosen[0]!.encoding).toBe('macintosh');
    expect(chosen.length).toBeGreaterThan(1);
    expect(await readings(text, 'utf-8')).toEqual([]);
    expect(await readings(text, 'utf-8', { encoding: 'windows-1252' })).toMatchObject([
      { encoding: 'windows-1252' },
      { encoding: 'utf-8', words: ['garçon', 'forêt', 'naïve'] },
    ]);
  });

  test('a file of another program is told of in a sentence that says what to do', async () => {
    const said = async (start: string | Buffer) =>
      refusal(Buffer.concat([Buffer.from(start), Buffer.alloc(200)]), 'a.bin');
    expect(await said('$FL2@(#) SPSS DATA FILE')).toMatch(/an SPSS file: .* save it as/u);
    expect(await said('<stata_dta><header><release>118')).toMatch(/a Stata file/u);
    expect(await said(Buffer.from([0x72, 0x02, 0x01, 0x00]))).toMatch(/a Stata file/u);
    expect(await said('%PDF-1.7')).toMatch(/a PDF/u);
    expect(await said('<?xml version="1.0"?>\n<office:document xmlns')).toMatch(/\.ods/u);
    expect(await said('<!DOCTYPE html><table>')).toMatch(/a web page/u);
  });

  test('line ends of every kind, and a character or a line end that lies across two parts', async () => {
    expect(await rowsOf('a,b\rc,d\r')).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ]);
    const filler = 'x'.repeat(PART_SIZE - 3);
    for (const shift of [0, 1, 2, 3])
      expect(await rowsOf(`${filler.slice(shift)},é"\r\n"c","d🦭"\r\n`)).toEqual([
        [filler.slice(shift), 'é"'],
        ['c', 'd🦭'],
      ]);
  });

  test('what is written reads back equal, whatever the cells hold', async () => {
    const cell = fc.oneof(
      fc.constantFrom('', ' ', '"', ',', '\n', 'a"b', '"a"', 'x\ny', '=1', ';', '\t', '🦭'),
      fc.string({ unit: 'grapheme' }).filter((text) => !text.includes('\r')),
    );
    const table = fc
      .integer({ min: 1, max: 5 })
      .chain((width) =>
        fc.array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: 1 }),
      )
      // a row of one blank cell and a blank line are the same in this format
      .filter((rows) => rows.every((row) => row.length > 1 || row[0] !== ''));
    await fc.assert(
      fc.asyncProperty(table, async (rows) => {
        const read: string[][] = [];
        const text = textOf(sourceOf(writeRows(rows)), 'utf-8');
        for await (const batch of readRows(text, ',', 'a.csv')) read.push(...batch.rows);
        if (read.length > rows.length) read.pop();
        // a byte order mark at the very start of a file is no part of its first cell
        expect(read).toEqual(
          rows.map((row, r) =>
            r === 0 ? [row[0]!.replace(/^\uFEFF/u, ''), ...row.slice(1)] : row,
          ),
        );
      }),
    );
  });
});

const workbookOf = (rows: string) =>
  zipOf({
    'xl/_rels/workbook.xml.rels': '<r><Relationship Id="r1" Target="worksheets/a.xml"/></r>',
    'xl/workbook.xml': '<w xmlns:r="x"><sheet name="A" r:id="r1"/></w>',
    'xl/worksheets/a.xml': `<worksheet><sheetData>${rows}</sheetData></worksheet>`,
  });

/** A zip of stored entries that may claim to be something else in its directory. */
function zipOf(
  entries: Record<string, string>,
  claims: { size?: number; encrypted?: boolean } = {},
) {
  const parts: Buffer[] = [];
  const directory: Buffer[] = [];
  let offset = 0;
  for (const [name, content] of Object.entries(entries)) {
    const data = Buffer.from(content);
    const head = Buffer.alloc(30);
    head.writeUInt32LE(0x04034b50, 0);
    head.writeUInt16LE(name.length, 26);
    const entry = Buffer.alloc(46);
    entry.writeUInt32LE(0x02014b50, 0);
    entry.writeUInt16LE(claims.encrypted ? 1 : 0, 8);
    entry.writeUInt16LE(claims.size ? 8 : 0, 10);
    entry.writeUInt32LE(data.length, 20);
    entry.writeUInt32LE(claims.size ?? data.length, 24);
    entry.writeUInt16LE(name.length, 28);
    entry.writeUInt32LE(offset, 42);
    parts.push(head, Buffer.from(name), data);
    directory.push(entry, Buffer.from(name));
    offset += head.length + name.length + data.length;
  }
  const listed = Buffer.concat(directory);
  const end = Buffer.alloc(22);
  end.writeUInt32LE(0x06054b50, 0);
  for (const at of [8, 10]) end.writeUInt16LE(directory.length / 2, at);
  end.writeUInt32LE(listed.length, 12);
  end.writeUInt32LE(offset, 16);
  return Buffer.concat([...parts, listed, end]);
}

describe('workbooks', () => {
  const save = async (fill: (workbook: Excel.Workbook) => void) => {
    const workbook = new Excel.Workbook();
    fill(workbook);
    return new Uint8Array(await workbook.xlsx.writeBuffer());
  };

  test('takes of a workbook what a person sees; the first filled sheet, or the one asked for', async () => {
    const content = await save((workbook) => {
      workbook.addWorksheet('Cover').addRow(['Survey of passengers']);
      const sheet = workbook.addWorksheet('Answers');
      sheet.addRow(['id', 'When', 'Sum', 'Why?', 'Link', 'Done']);
      sheet.addRow([]);
      sheet.addRow([
        1,
        new Date(Date.UTC(2026, 3, 9)),
        { formula: '1+2', result: 3 },
        { richText: [{ text: 'more ' }, { text: 'boats', font: { bold: true } }] },
        { text: 'site', hyperlink: 'http://127.0.0.1/' },
        true,
      ]);
      sheet.addRow(['002', null, 2.5, '  =1+1', undefined, false]);
    });
    expect(await rowsOf(content)).toEqual([
      ['id', 'When', 'Sum', 'Why?', 'Link', 'Done'],
      [],
      ['1', '2026-04-09', '3', 'more boats', 'site', 'true'],
      ['002', '', '2.5', '  =1+1', '', 'false'],
    ]);
    expect(await rowsOf(content, { worksheet: 'Cover' })).toEqual([['Survey of passengers']]);
  });

  const cells = (sheet: string, rest: Record<string, string> = {}, settings = '') =>
    zipOf({
      'xl/_rels/workbook.xml.rels':
        '<Relationships><Relationship Id="r1" Target="/xl/worksheets/a.xml"/></Relationships>',
      'xl/workbook.xml': `<workbook xmlns:r="x">${settings}<sheets><sheet name="A" r:id="r1"/></sheets></workbook>`,
      'xl/worksheets/a.xml': sheet,
      ...rest,
    });

  test('text: runs, how it is spoken, characters by their numbers, prefixes, cells and rows left out', async () => {
    const content = cells(
      `<x:worksheet xmlns:x="y"><x:sheetData><x:row r="2"><x:c r="B2" t="inlineStr"><x:is><x:r><x:t>very </x:t></x:r><x:r><x:t>late</x:t></x:r></x:is></x:c>
       <x:c r="D2" t="str"><x:v>&amp;lt;b&gt; A_x000D_B _x005F_x0041_</x:v></x:c></x:row>
       <x:row><x:c t="s"><x:v>0</x:v></x:c><x:c/><x:c t="s"><x:v>1</x:v></x:c><x:c t="e"><x:f>1/0</x:f><x:v>#DIV/0!</x:v></x:c></x:row></x:sheetData></x:worksheet>`,
      {
        'xl/sharedStrings.xml':
          '<sst><si><t>漢字</t><rPh sb="0" eb="2"><t>かんじ</t></rPh></si><si><r><rPr><b/></rPr><t>more</t></r><r><t xml:space="preserve"> boats</t></r></si></sst>',
      },
    );
    expect(await rowsOf(content)).toEqual([
      [],
      ['', 'very late', '', '&lt;b> A\rB _x0041_'],
      ['漢字', '', 'more boats', '#DIV/0!'],
    ]);
  });

  test('numbers: days, times and spans by their formats (ISO/IEC 29500-1, 18.8.30), results of formulas', async () => {
    const formats = [
      ...[
        '0.00',
        '[h]:mm',
        'dd/mm/yyyy hh:mm',
        '"days" 0',
        '[Red]0;\\d0_d',
        '[$-409]mmm d',
        '00000',
      ].map(
        (code, n) =>
          `<numFmt numFmtId="${200 + n}" formatCode="${code.replaceAll('"', '&quot;')}"/>`,
      ),
    ].join('');
    const styles = [0, 14, 20, 46, 200, 201, 202, 203, 204, 205, 206].map(
      (id) => `<xf numFmtId="${id}"/>`,
    );
    const shown = async (settings: string, ...written: string[]) => {
      const sheet = `<worksheet><sheetData><row>${written.join('')}</row></sheetData></worksheet>`;
      const [row] = await rowsOf(
        cells(
          sheet,
          {
            'xl/styles.xml': `<styleSheet><numFmts>${formats}</numFmts><cellStyleXfs><xf numFmtId="14"/></cellStyleXfs><cellXfs>${styles.join('')}</cellXfs></styleSheet>`,
          },
          settings,
        ),
      );
      return row;
    };
    const number = (style: number, value: number | string) => `<c s="${style}"><v>${value}</v></c>`;
    const extension = '<ext><x15:workbookPr chartTrackingRefBase="1"/></ext>';
    // dates as openpyxl's from_excel reads these serials (ISO/IEC 29500-1, 18.17.4)
    expect(
      await shown('', ...[3687, 38749, 2958465].map((days) => number(1, days)), number(9, 3687)),
    ).toEqual(['1910-02-03', '2006-02-01', '9999-12-31', '1910-02-03']);
    expect(await shown('', ...[1, 59, 61].map((days) => number(1, days)))).toEqual([
      '1900-01-01',
      '1900-02-28',
      '1900-03-01',
    ]);
    // an id as it is shown; a formula that nobody computed
    expect(await shown('', number(10, 42), number(10, '4.5'), '<c><f>A1*2</f></c>')).toEqual([
      '00042',
      '4.5',
      '#VALUE!',
    ]);
    expect(
      await shown('', number(6, 3687.4207639), ...[0.4207639, 0.9999884].map((t) => number(2, t))),
    ).toEqual(['1910-02-03T10:05:54', '10:05:54', '23:59:59']);
    expect(await shown(`<workbookPr date1904="1"/>${extension}`, number(1, 3687 - 1462))).toEqual([
      '1910-02-03',
    ]);
    expect(await shown('', number(3, 1.5), number(5, 1.5))).toEqual(['36:00:00', '36:00:00']);
    expect(
      await shown('', number(0, '1.1000000000000001'), ...[4, 7, 8].map((s) => number(s, 40))),
    ).toEqual(['1.1', '40', '40', '40']);
    expect(
      await shown(
        '',
        '<c t="d"><v>2026-04-09T00:00:00</v></c><c t="b"><f>A1=1</f><v>1</v></c>',
        '<c s="1"><f>A1+1</f><v>3687</v></c><c t="str"><f>A1&amp;""</f><v>x &lt; y</v></c>',
      ),
    ).toEqual(['2026-04-09', 'true', '1910-02-03', 'x < y']);
  });

  test('a header of two rows with merged cells is joined', async () => {
    const content = await save((workbook) => {
      const sheet = workbook.addWorksheet('A');
      sheet.addRow(['id', 'Which do you use?', null, 'Why?']);
      sheet.addRow([null, 'Bus', 'Boat', null]);
      sheet.mergeCells('B1:C1');
      for (const row of [
        [1, 1, 0, 'It is quick and dry'],
        [2, 0, 1, 'It is cheap for me'],
      ])
        sheet.addRow(row);
    });
    const written: string[][] = [];
    const read = await readSheet('a.xlsx', sourceOf(content), {}, (rows) => {
      written.push(...rows);
      return Promise.resolve();
    });
    expect(read.file).toMatchObject({ format: 'xlsx', headRow: 1, headRows: 2 });
    expect(read.columns.map(({ head, role }) => [head, role])).toEqual([
      ['id', 'id'],
      ['Which do you use?: Bus', 'yes_no'],
      ['Which do you use?: Boat', 'yes_no'],
      ['Why?', 'question'],
    ]);
    expect([read.rows, written.length]).toEqual([2, 4]);
  });
});

test('takes of an OpenDocument spreadsheet what a person sees: values, lines, blanks, no notes', async () => {
  const cell = (type: string, inner: string) =>
    `<table:table-cell office:value-type="${type}>${inner}</table:table-cell>`;
  const row = [
    cell('float" office:value="7.0"', '<text:p>7,00</text:p>'),
    cell('date" office:date-value="2026-04-09T00:00:00"', '<text:p>9 April</text:p>'),
    cell(
      'string"',
      '<office:annotation><text:p>who?</text:p></office:annotation><text:p>late<text:s text:c="2"/>&lt;b&gt;</text:p><text:p><text:span>and</text:span><text:tab/>dear</text:p>',
    ),
    '<table:table-cell table:number-columns-repeated="3"/>',
    cell('time" office:time-value="PT01H25M00S"', '<text:p>01:25</text:p>'),
    '<table:table-cell table:number-columns-repeated="1000"/>',
  ].join('');
  const content = `<office:body><table:table table:name="A"><table:table-row>${row}</table:table-row></table:table></office:body>`;
  expect(await rowsOf(zipOf({ 'content.xml': content }))).toEqual([
    ['7', '2026-04-09', 'late  <b>\nand\tdear', '', '', '', '01:25'],
  ]);
});

test('reads JSON lines: keys are columns, in the order in which they turn up', async () => {
  const content =
    '{"id": 1, "why": "It is\\ndry"}\n\n{"id": 2, "uses": ["bus", "boat"], "at": {"home": true}}\n';
  expect(await rowsOf(content)).toEqual([
    ['id', 'why', 'uses', 'at.home'],
    ['1', 'It is\ndry', '', ''],
    [],
    ['2', '', 'bus; boat', 'true'],
  ]);
});

test.each<[string, () => Uint8Array | Promise<Uint8Array>, string]>([
  ['an empty file', () => Buffer.alloc(0), 'is empty'],
  ['the old format', () => Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 1, 2]), 'in the old .xls format'],
  [
    'a workbook with a password',
    () =>
      Buffer.concat([
        Buffer.from([0xd0, 0xcf, 0x11, 0xe0]),
        Buffer.alloc(600),
        Buffer.from('EncryptedPackage', 'utf16le'),
      ]),
    'protected by a password',
  ],
  [
    'an image named .xlsx',
    () => Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2]),
    'neither a text file nor',
  ],
  [
    'a workbook that was cut off',
    async () => (await demo('brindle-sound.xlsx')).subarray(0, 9000),
    'damaged or was cut off',
  ],
  ['another zip file', () => zipOf({ 'notes.txt': 'x' }), 'is a zip file but no workbook'],
  [
    'a zip bomb',
    () => zipOf({ 'xl/workbook.xml': 'x' }, { size: 4_000_000_000 }),
    'would unpack to',
  ],
  [
    'a directory that tells less than there is',
    () => zipOf({ 'content.xml': 'x'.repeat(100) }, { size: 7 }),
    'could not be read',
  ],
  [
    'a worksheet that breaks off',
    () =>
      zipOf({
        'xl/_rels/workbook.xml.rels': '<r><Relationship Id="r1" Target="worksheets/a.xml"/></r>',
        'xl/workbook.xml': '<w xmlns:r="x"><sheet name="A" r:id="r1"/></w>',
        'xl/worksheets/a.xml': '<worksheet><row><c t="str"><v>late',
      }),
    'could not be read',
  ],
  [
    'a word that is no answer',
    () => Buffer.from(`id,q\n1,x\n2,${'a'.repeat(200_000)}\n`),
    'Row 3 of “x.xlsx” has a cell of 200,000 characters',
  ],
  [
    'a row without an end',
    () => Buffer.from(`id,q\n1,"${'a,b\n'.repeat(500_000)}`),
    'has more than 1,048,576 characters',
  ],
  [
    'a line of JSON without an end',
    () => Buffer.from(`{"id":"1","q":"${'a'.repeat(2_000_000)}"}\n`),
    'Line 1 of',
  ],
  [
    'objects within each other',
    () => Buffer.from(`{"id":"1","q":${'{"a":'.repeat(50)}1${'}'.repeat(50)}}\n`),
    'more than 20 deep',
  ],
  [
    'a cell far away',
    () => workbookOf('<row r="1"><c r="XFD1" t="str"><v>x</v></c></row>'),
    'in column 16384',
  ],
  [
    'an attribute without an end',
    () => workbookOf(`<row r="1" x="${'a'.repeat(3_000_000)}"/>`),
    'in one piece',
  ],
  ['elements within each other', () => workbookOf('<a>'.repeat(1000)), 'more than 256 deep'],
  [
    'very many tables',
    () => zipOf({ 'content.xml': `<b>${'<table:table table:name="A"/>'.repeat(5000)}</b>` }),
    'more than 500 worksheets',
  ],
  ['a file in UTF-32', () => Buffer.from('fffe000069000000', 'hex'), 'UTF-32'],
  ['an empty zip file', () => Buffer.from(`504b0506${'00'.repeat(18)}`, 'hex'), 'no workbook'],
  ['blank lines', () => Buffer.from('\n\n'), 'holds no table'],
  [
    'a quotation mark never closed',
    () => Buffer.from('id,q\n1,x\n2,"y\n3,z\n'),
    'opens in row 3 is never closed',
  ],
  ['a line that is no object', () => Buffer.from('{"id": 1}\n[2]\n'), 'Line 2 of'],
  [
    'an empty spreadsheet',
    () => zipOf({ 'content.xml': '<office:body><table:table table:name="A"/></office:body>' }),
    'holds no table',
  ],
  [
    'a row repeated for ever',
    () =>
      zipOf({
        'content.xml':
          '<b><table:table table:name="A"><table:table-row table:number-rows-repeated="1000000"><table:table-cell><text:p>x</text:p></table:table-cell></table:table-row></table:table></b>',
      }),
    'repeats one row or cell',
  ],
])('tells in one sentence what is wrong with %s', async (_, content, sentence) => {
  expect(await refusal(await content())).toContain(sentence);
});
