import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type {
  Codebook,
  CodeImpact,
  CodeList,
  MentionOfCode,
  Saturation,
} from '@yellow-thread/contract';
import Excel from 'exceljs';
import { strFromU8, unzipSync } from 'fflate';
import { validateXML } from 'xmllint-wasm';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy } from '../../test/study.js';

let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
let answers: number[];
let fares: string;
let steps: string;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
beforeEach(async () => {
  study = await importStudy(
    client,
    'id,home,Why?\n1,Tye,The fares are mad.\n2,Hask,fares and steps\n3,Tye,steps\n',
  );
  answers = (await study.ledger()).ids;
  fares = (await study.code(answers[0]!, { newCode: 'Fares' }, [4, 9])).codeId;
  await study.code(answers[1]!, { codeId: fares });
  steps = (await study.code(answers[1]!, { newCode: 'Steps' })).codeId;
});
afterAll(() => server.stop());

const codebook = async () => (await client.get<Codebook>(`${study.base}/codebook`)).body;
const post = (path: string, body?: object) =>
  client.send<Codebook & { code: string }>('POST', `${study.base}/${path}`, body ? { body } : {});
const theme = async (name: string, ...codes: string[]) => {
  const id = randomUUID();
  await post('themes', { id, name });
  for (const code of codes) await post(`codes/${code}/place`, { themeId: id, before: null });
  return id;
};

describe('reshaping', () => {
  test('a merge says what it will do, does it, and is undone as one', async () => {
    const before = await codebook();
    const { body: impact } = await client.get<CodeImpact>(
      `${study.base}/codes/${fares}/impact?into=${steps}`,
    );
    expect(impact).toEqual({ mentions: 2, people: 2, double: 1, suggestions: 0 });
    const { codes } = (await post(`codes/${fares}/merge`, { into: steps })).body;
    expect(codes).toEqual([expect.objectContaining({ id: steps, people: 2, mentions: 2 })]);
    expect((await post(`codes/${steps}/merge`, { into: steps })).body.code).toBe(
      'merges_with_itself',
    );
    await study.undo();
    expect(await codebook()).toEqual(before);
  });

  test('mentions are sorted into codes, new and known, and what is left stays', async () => {
    const { body } = await client.get<{ mentions: MentionOfCode[] }>(
      `${study.base}/codes/${fares}/mentions`,
    );
    const [one, other] = body.mentions.map(({ id }) => id) as [string, string];
    const dear = { id: randomUUID(), name: 'Dear', themeId: null };
    const parts = [
      { code: dear, mentions: [one] },
      { code: { id: steps, name: 'Steps', themeId: null }, mentions: [other] },
    ];
    const { codes } = (await post('codes/sort', { parts })).body;
    // the one that would stand twice on the second answer became one
    expect(codes.map(({ name, mentions }) => [name, mentions])).toEqual([
      ['Fares', 0],
      ['Steps', 1],
      ['Dear', 1],
    ]);
    const again = await post('codes/sort', { parts: [{ code: dear, mentions: [randomUUID()] }] });
    expect(again.body.code).toBe('changed_meanwhile');
  });

  test('a theme counts a person once; it becomes a code and a code becomes a theme', async () => {
    const id = await theme('Access', fares, steps);
    expect((await codebook()).themes).toEqual([
      expect.objectContaining({ id, people: 2, mentions: 3 }),
    ]);
    const before = await codebook();
    const { body } = await post(`themes/${id}/code`);
    expect(body.themes).toEqual([]);
    expect(body.codes).toEqual([
      expect.objectContaining({ name: 'Access', themeId: null, people: 2, mentions: 2 }),
    ]);
    const back = (await post(`codes/${body.codes[0]!.id}/theme`)).body;
    expect(back.themes.map(({ name, people }) => [name, people])).toEqual([['Access', 2]]);
    await study.undo();
    await study.undo();
    expect(await codebook()).toEqual(before);
  });

  test('codes and themes are moved, recoloured, put away, gathered in bundles', async () => {
    const first = await theme('First', fares);
    const second = await theme('Second', steps);
    await post(`themes/${second}/place`, { before: first });
    await post(`codes/${fares}/place`, { themeId: second, before: steps });
    await client.send('PATCH', `${study.base}/themes/${second}`, {
      body: { from: {}, to: { ink: '#0F716A', stitch: 'zigzag' } },
    });
    const wrong = await client.send('PATCH', `${study.base}/themes/${second}`, {
      body: { from: {}, to: { ink: '#123456' } },
    });
    expect(wrong.status).toBe(404);
    await client.send('PATCH', `${study.base}/codes/${steps}`, {
      body: { from: { archived: false }, to: { archived: true, questions: [study.question] } },
    });
    const bundle = randomUUID();
    const put = (codeIds: string[], name = 'Money') =>
      client.send('PUT', `${study.base}/bundles/${bundle}`, { body: { name, codeIds } });
    await put([fares, steps]);
    await put([fares], 'Cost');
    const { themes, codes, bundles } = await codebook();
    expect(themes.map(({ name, ink, stitch }) => [name, ink, stitch])).toEqual([
      ['Second', '#0F716A', 'zigzag'],
      ['First', '#3F4C9A', 'running'],
    ]);
    expect(codes.map(({ name, themeId, archived }) => [name, themeId, archived])).toEqual([
      ['Fares', second, false],
      ['Steps', second, true],
    ]);
    expect(bundles).toEqual([
      expect.objectContaining({ name: 'Cost', codeIds: [fares], people: 2 }),
    ]);
    for (let n = 0; n < 3; n++) await study.undo();
    expect((await codebook()).bundles).toEqual([]);
    expect((await codebook()).codes[1]!.archived).toBe(false);
  });

  test('pins are a person’s own and come back with a code that was removed', async () => {
    const pin = (key: number, codeId: string | null) =>
      client.send('PUT', `${study.base}/pins/${key}`, { body: { codeId } });
    await pin(1, fares);
    await pin(2, fares);
    await pin(1, steps);
    await client.send('DELETE', `${study.base}/codes/${steps}`);
    const pins = async () => (await client.get(`${study.base}/pins`)).body;
    expect(await pins()).toEqual({ pins: [{ key: 2, codeId: fares }] });
    await study.undo();
    expect(await pins()).toEqual({
      pins: [
        { key: 1, codeId: steps },
        { key: 2, codeId: fares },
      ],
    });
  });

  test('the history tells who did what, and what was done with one code', async () => {
    await post(`codes/${fares}/merge`, { into: steps });
    await study.undo();
    const history = async (query: string) =>
      (
        await client.get<{ changes: { summary: string; by: string; undone: boolean }[] }>(
          `${study.base}/history?${query}`,
        )
      ).body.changes;
    expect((await history('limit=2')).map(({ summary, undone }) => [summary, undone])).toEqual([
      ['the merge of “Fares” into “Steps”', true],
      ['coding “Steps”', false],
    ]);
    expect((await history(`code=${fares}`)).map(({ summary, by }) => [summary, by])).toEqual([
      ['the merge of “Fares” into “Steps”', 'Rowan'],
      ['coding “Fares”', 'Rowan'],
      ['coding “Fares”', 'Rowan'],
    ]);
  });
});

describe('in and out', () => {
  const download = async (format: string) =>
    client.send('GET', `${study.base}/codebook/files/${format}`);
  const bring = (name: string, content: string | Uint8Array) =>
    client.uploadTo<CodeList & { code: string }>(
      `${study.base}/codebook/files`,
      name,
      Buffer.from(content),
    );
  const hostile = '=1+1 <b>&"x"</b>\n\nsecond';
  beforeEach(async () => {
    await theme('Price & <co>', fares);
    await client.send('PATCH', `${study.base}/codes/${fares}`, {
      body: { from: {}, to: { definition: hostile, include: 'What it costs', exclude: 'Tips' } },
    });
    const bundle = { name: 'Money', codeIds: [fares] };
    await client.send('PUT', `${study.base}/bundles/${randomUUID()}`, { body: bundle });
  });
  const texts = ({ codes }: Pick<CodeList, 'codes'>) =>
    codes.map(({ theme, name, definition, include, exclude, bundles }) => ({
      theme,
      name,
      definition,
      include,
      exclude,
      bundles,
    }));
  const wanted = [
    {
      theme: 'Price & <co>',
      name: 'Fares',
      definition: hostile,
      include: 'What it costs',
      exclude: 'Tips',
      bundles: ['Money'],
    },
    { theme: null, name: 'Steps', definition: '', include: '', exclude: '', bundles: [] },
  ];

  test('a REFI-QDA codebook is valid and reads back the same, also into an empty study', async () => {
    const { text } = await download('qdc');
    // by libxml2, against the schema as it is remembered
    const schema = readFileSync(new URL('../../test/files/codebook.xsd', import.meta.url), 'utf8');
    const valid = (xml: string) => validateXML({ xml, schema });
    expect((await valid(text)).errors).toEqual([]);
    expect((await valid(text.replace('guid=', 'id='))).valid).toBe(false);
    const fresh = await importStudy(client, 'id,Why?\n1,late\n');
    const path = `${fresh.base}/codebook`;
    const { body } = await client.uploadTo<CodeList>(`${path}/files`, 'a.qdc', Buffer.from(text));
    expect(texts(body)).toEqual(wanted);
    const news = { newThemes: ['Price & <co>'], newBundles: ['Money'], intoBundles: 1 };
    expect(body).toMatchObject({ ...news, left: [] });
    await client.send('POST', `${path}/list`, { body: { codes: texts(body) } });
    const taken = (await client.get<Codebook>(path)).body;
    expect(taken.codes.map(({ name, definition }) => [name, definition])).toEqual([
      ['Fares', hostile],
      ['Steps', ''],
    ]);
    expect(taken.bundles).toMatchObject([{ name: 'Money', codeIds: [taken.codes[0]!.id] }]);
    await fresh.undo();
    expect((await client.get<Codebook>(path)).body).toEqual({ themes: [], codes: [], bundles: [] });
  });

  test('a REFI-QDA codebook of another program: UTF-16, CDATA, and a third level that is told of', async () => {
    const xml = `<?xml version="1.0" encoding="utf-16"?><CodeBook xmlns="urn:QDA-XML:codebook:1.0"><Codes>
      <Code guid="1" name="Preis" isCodable="false"><Code guid="2" name="Fähren" isCodable="true"><Description><![CDATA[zu <teuer>]]></Description>
      <Code guid="3" name="Überfahrt" isCodable="true"/></Code></Code></Codes></CodeBook>`;
    for (const bytes of [
      Buffer.from(`\uFEFF${xml}`, 'utf16le'),
      Buffer.from(`\uFEFF${xml}`, 'utf16le').swap16(),
    ]) {
      const { body } = await client.uploadTo<CodeList>(
        `${study.base}/codebook/files`,
        'other.qdc',
        bytes,
      );
      expect(body.codes.map(({ theme, name, definition }) => [theme, name, definition])).toEqual([
        ['Preis', 'Fähren', 'zu <teuer>'],
        ['Preis', 'Überfahrt', ''],
      ]);
      expect(body.left).toEqual([
        '“Überfahrt” stood below “Fähren”: it comes directly under the theme “Preis”.',
      ]);
    }
  });

  test('CSV and XLSX read back the same; nothing in them runs as a formula', async () => {
    const csv = (await download('csv')).text;
    expect(csv).toContain("'=1+1");
    // the mark that keeps a spreadsheet from running it is removed again
    expect(texts((await bring('list.csv', csv)).body)).toEqual(wanted);
    const xlsx = (await download('xlsx')).bytes;
    const workbook = new Excel.Workbook();
    // its types know an older Buffer
    await workbook.xlsx.load(Uint8Array.from(xlsx).buffer);
    const cell = workbook.getWorksheet('Codebook')!.getCell('C2');
    expect([cell.type, cell.value]).toEqual([Excel.ValueType.String, hostile]);
    const { body } = await bring('list.xlsx', xlsx);
    expect(texts(body)).toEqual(wanted);
    expect(body.codes.map((code) => code.what)).toEqual(['known', 'known']);
    expect(body.intoBundles).toBe(0);
  });

  test('the appendix says the same as HTML and as DOCX, with the examples', async () => {
    const { mentions } = (
      await client.get<{ mentions: MentionOfCode[] }>(`${study.base}/codes/${fares}/mentions`)
    ).body;
    await client.send('PATCH', `${study.base}/mentions/${mentions[0]!.id}`, {
      body: { typical: true },
    });
    const { text } = await download('html');
    expect(text).toContain('<blockquote>fares</blockquote>');
    expect(text).toContain('=1+1 &lt;b&gt;&amp;&quot;x&quot;&lt;/b&gt;<br>');
    const docx = (await download('docx')).bytes;
    const document = strFromU8(unzipSync(docx)['word/document.xml']!);
    for (const said of ['Price &amp; &lt;co&gt;', '“fares”', 'Exclude: ', 'Tips'])
      expect(document).toContain(said);
  });

  test('a list from elsewhere: known codes keep their words, blanks are filled, faults are told', async () => {
    const { body } = await bring(
      'list.csv',
      `Category;Code;Description\nPrice & <co>;Fares;Other words\n;Steps;Up and down\nNew;Queue;\nNew;queue;\n;${'x'.repeat(130)};\n`,
    );
    expect(body.codes.map(({ name, what }) => [name, what])).toEqual([
      ['Fares', 'known'],
      ['Steps', 'filled'],
      ['Queue', 'new'],
    ]);
    expect(body.left).toHaveLength(2);
    expect((await bring('no.csv', 'a,b\n1,2\n')).body.code).toBe('unreadable_sheet');
    expect((await bring('no.qdc', '<?xml version="1.0"?><CodeBook><')).body.code).toBe(
      'unreadable_sheet',
    );
    const open = '<Code name="a" isCodable="true">';
    const nested = `<CodeBook xmlns="urn:QDA-XML:codebook:1.0"><Codes>${open.repeat(20_000)}`;
    expect((await bring('deep.qdc', nested)).body).toMatchObject({
      code: 'unreadable_sheet',
      sentence: expect.stringContaining('nested deeper'),
    });
    const long = `code\n${Array.from({ length: 5001 }, (_, c) => `Code ${c}`).join('\n')}`;
    expect((await bring('long.csv', long)).body).toMatchObject({
      code: 'unreadable_sheet',
      sentence: expect.stringContaining('5001 codes'),
    });
    const entity = '<!DOCTYPE x [<!ENTITY e "y">]><CodeBook/>';
    expect((await bring('x.qdc', `<?xml version="1.0"?>${entity}`)).body.code).toBe(
      'unreadable_sheet',
    );
  });
});

describe('sampling', () => {
  const draw = (body: object) =>
    client.send<{ drawn: number; code: string }>(
      'POST',
      `${study.base}/questions/${study.question}/samples`,
      { body },
    );
  test('draws what is not drawn yet, by strata or at random, and tells how new codes go down', async () => {
    const home = (await client.get<{ variables: { id: number }[] }>(study.base)).body.variables[0]!;
    expect((await draw({ kind: 'stratified', size: 2, variableId: home.id })).body.drawn).toBe(2);
    const strata = (await study.ledger('show=sample')).answers.map(
      (answer) => answer.background[home.id],
    );
    expect(strata.toSorted()).toEqual(['Hask', 'Tye']);
    expect((await draw({ kind: 'random', size: 9, variableId: null })).body.drawn).toBe(1);
    expect((await draw({ kind: 'random', size: 1, variableId: null })).body.code).toBe(
      'nothing_to_draw',
    );
    expect((await draw({ kind: 'most_telling', size: 1, variableId: null })).body.code).toBe(
      'nothing_telling',
    );
    expect((await draw({ kind: 'first_examples', size: 1, variableId: null })).body.code).toBe(
      'nothing_near',
    );
    await study.settle(answers[0]!);
    await study.settle(answers[1]!);
    const { body } = await client.get<Saturation>(
      `${study.base}/questions/${study.question}/saturation`,
    );
    expect(body).toMatchObject({ answers: 2, codes: 2, newCodes: [], last: null });
  });
});
