import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFile } from 'node:fs/promises';
import type {
  ImportRecord,
  ImportUndo,
  Job,
  SheetCheck,
  SheetDifference,
  SheetSettings,
  StudyDetail,
} from '@yellow-thread/contract';
import { emptyBin } from '../database/index.js';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { bringIn, importStudy, readAgain, uploadSheet } from '../../test/study.js';

let server: TestServer;
let client: Client;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

const demo = (name: string) => readFile(new URL(`../../../demo/${name}`, import.meta.url));
const newStudy = async () =>
  (await client.send<{ id: number }>('POST', '/studies', { body: { name: 'S', purpose: '' } })).body
    .id;
/** Everything that an import could leave behind. */
const everything = async () =>
  server.sql(
    `select (select count(*) from respondent) as respondents, (select count(*) from response) as responses,
       (select count(*) from question) as questions, (select count(*) from variable) as variables,
       (select count(*) from category) as categories, (select count(*) from import) as imports,
       (select count(*) from code) as codes, (select count(*) from mention) as mentions`,
  );
const detailOf = async (study: number) => (await client.get<StudyDetail>(`/studies/${study}`)).body;
const check = async (sheet: Awaited<ReturnType<typeof uploadSheet>>, settings?: SheetSettings) =>
  (
    await client.send<SheetCheck>('POST', `${sheet.base}/check`, {
      body: settings ?? sheet.ready.settings,
    })
  ).body;
/** Respondents of a study as their id, background by name, and answers by question. */
const people = (study: number) =>
  server.sql<{ id: string; background: Record<string, unknown>; answers: string[] }>(
    `select r.external_id as id, (
         select jsonb_object_agg(v.name, r.background->(v.id::text)) from variable v
         where v.study_id = r.study_id) as background,
       array(select s.text from response s join question q on q.id = s.question_id
         where s.respondent_id = r.id order by q.position) as answers
     from respondent r where r.study_id = :study order by r.id`,
    { study },
  );

describe('bringing a sheet in', () => {
  test('shows what will be imported, then writes exactly that', async () => {
    const study = await newStudy();
    const sheet = await uploadSheet(
      client,
      study,
      'brindle.xlsx',
      await demo('brindle-sound.xlsx'),
    );
    expect(sheet.ready.settings.columns.map((column) => column.role)).toEqual([
      'id',
      'category',
      'category',
      'category',
      'number',
      'yes_no',
      'yes_no',
      'number',
      'date',
      'category',
      'weight',
      'question',
      'question',
      'question',
    ]);
    const before = await everything();
    const checked = await check(sheet);
    expect(checked).toMatchObject({ respondents: 450, findings: [] });
    expect(await everything()).toEqual(before);

    const { body: job } = await client.send<Job>('POST', `${sheet.base}/import`, {
      body: sheet.ready.settings,
    });
    expect((await client.jobEnd(study, job.id)).state).toBe('done');
    const detail = await detailOf(study);
    expect(detail).toMatchObject({ respondents: 450, weighted: true });
    expect(
      detail.questions.map(({ wording, answered, asked }) => ({ wording, answered, asked })),
    ).toEqual(
      checked.questions.map(({ wording, answered }) => ({ wording, answered, asked: 450 })),
    );
    expect(detail.variables.map(({ name, values }) => [name, values])).toEqual(
      checked.variables.map(({ name, different, stated }) => [
        name,
        different + (stated < 450 ? 1 : 0),
      ]),
    );
    expect((await client.get(`${sheet.base}`)).status).toBe(404);
    const stored = await people(study);
    for (const { row, externalId, responses } of checked.preview) {
      const person = stored.find((one) => one.id === externalId)!;
      expect([row > 1, person.answers]).toEqual([true, responses.map((one) => one!.text)]);
    }
  });

  test('hostile cells are kept as what they are: text', async () => {
    const cells = [
      '<img src=x onerror=alert(1)>',
      '=HYPERLINK("http://x")',
      `'; drop table study; --`,
      '\\N',
      'a\tb',
      '{{7*7}}',
      '\\.x',
    ];
    const csv = `id,Why?\n${cells.map((cell, i) => `${i},"${cell.replaceAll('"', '""')}"`).join('\n')}`;
    const study = await importStudy(client, csv);
    const { answers } = await study.ledger();
    expect(answers.map((answer) => answer.text)).toEqual(cells);
  });

  test('what stops an import writes nothing at all', async () => {
    const study = await newStudy();
    const before = await everything();
    const ended = await bringIn(client, study, 'id,Why?\n1,x y z w\n1,y\n', (settings) => ({
      ...settings,
      columns: settings.columns.map((column, c) => ({ ...column, role: c ? 'question' : 'id' })),
    }));
    expect(ended).toMatchObject({ state: 'failed', problem: { code: 'sheet_stops' } });
    expect(ended.problem!.sentence).toContain('same respondent id');
    expect(await everything()).toEqual(before);
  });

  test('a crash in the middle leaves no trace', async () => {
    const study = await newStudy();
    const before = await everything();
    await server.sql(
      `create function fail() returns trigger language plpgsql as
         'begin raise exception ''the disk is full''; end'`,
    );
    // fires in spite of keys being checked in the end, as a full disk would
    await server.sql(
      'create trigger fail before insert on response for each row execute function fail()',
    );
    await server.sql('alter table response enable always trigger fail');
    const ended = await bringIn(client, study, 'id,Why?\n1,more boats please now\n');
    await server.sql('drop function fail cascade');
    expect(ended).toMatchObject({ state: 'failed', problem: { code: 'job_failed' } });
    expect(await everything()).toEqual(before);
    expect(server.errors.splice(0)).toHaveLength(1);
  });

  test('carries on a sheet that was coded before: codes, mentions, what is settled', async () => {
    const study = await newStudy();
    const csv =
      'id,Why?,Late,codes\n1,It is always late here,1,\n2,It is dear and wet today,0,Dear; Wet\n3,I would rather not say it,,\n';
    const ended = await bringIn(client, study, csv, (settings) => ({
      ...settings,
      columns: settings.columns.map((column, c) =>
        c < 2 ? column : { ...column, role: 'codes', name: 'Why?', separator: c === 3 ? ';' : '' },
      ),
    }));
    expect(ended.problem).toBeNull();
    expect(
      await server.sql(
        `select p.external_id as id, array(select c.name from mention m join code c on c.id = m.code_id
             where m.response_id = r.id and m.origin = 'import' order by 1) as codes,
           exists (select 1 from settlement t where t.response_id = r.id) as settled
         from response r join respondent p on p.id = r.respondent_id where p.study_id = :study order by 1`,
        { study },
      ),
    ).toEqual([
      { id: '1', codes: ['Late'], settled: true },
      { id: '2', codes: ['Dear', 'Wet'], settled: true },
      { id: '3', codes: [], settled: false },
    ]);
  });

  test('a file is read again as the researcher says', async () => {
    const study = await newStudy();
    const sheet = await uploadSheet(client, study, 'a.csv', Buffer.from('Title\nid;q\n1;a,b\n'));
    expect(sheet.ready.columns.map((column) => column.head)).toEqual(['id', 'q']);
    const { body: job } = await client.send<Job>('POST', `${sheet.base}/read`, {
      body: { separator: ',', headRow: 2 },
    });
    const { ready } = await readAgain(client, study, sheet.id, job.id);
    expect(ready.columns.map((column) => column.head)).toEqual(['id;q']);
    expect(ready.file).toMatchObject({ headRow: 2, separator: ',' });
  });

  test('an upload that is cut off or given up is not kept', async () => {
    const study = await newStudy();
    const kept = () => server.sql('select id from sheet where study_id = :study', { study });
    const sheet = await uploadSheet(client, study, 'a.csv', Buffer.from('id,q\n1,a\n'));
    expect(await kept()).toHaveLength(1);
    await client.send('DELETE', `/studies/${study}/sheets/${sheet.id}`);
    expect(await kept()).toEqual([]);
  });
});

describe('later sheets', () => {
  const first =
    'id,home,Why?\nR1,Tye,It is always too late\nR2,Hask,It is far too dear\nR3,Tye,n/a\n';

  test('more respondents: matched by name, known ids passed over, a wave kept', async () => {
    const study = await importStudy(client, first);
    const ended = await bringIn(
      client,
      study.id,
      'ID,Home ,why\nR4,tye,More boats in the evening\nR2,Hask,Something else entirely here\n',
      (settings) => {
        expect(settings.columns.map(({ role, name }) => [role, name])).toEqual([
          ['id', 'ID'],
          ['category', 'home'],
          ['question', 'Why?'],
        ]);
        return { ...settings, wave: 'Spring' };
      },
    );
    expect(ended.problem).toBeNull();
    const stored = await people(study.id);
    expect(stored.map((one) => one.id)).toEqual(['R1', 'R2', 'R3', 'R4']);
    expect(stored[1]!.answers).toEqual(['It is far too dear']);
    expect(stored[3]!.background).toEqual({ home: 'tye', Wave: 'Spring' });
    const { body: report } = await client.get<{ columns: { label: string }[] }>(
      `${study.base}/questions/${study.question}/report?by=${(await detailOf(study.id)).variables[0]!.id}`,
    );
    expect(report.columns.map((column) => column.label)).toEqual(['Total', 'Hask', 'Tye']);
  });

  test('what was said of a column holds for the next sheet, unless it is undone', async () => {
    const study = await newStudy();
    const head = 'Person,Nurse,Came,Income,What was good?\n';
    const row = (nr: string) => `${nr},n-${nr},3/4/2026,"45,000",the crew was kind to us ${nr}\n`;
    const asSaid = (settings: SheetSettings): SheetSettings => ({
      ...settings,
      columns: settings.columns.map((column, c) => ({
        ...column,
        ...(c === 1 && { role: 'leave_out' }),
        ...(c === 2 && { name: 'Visit', writing: 'month_first' }),
      })),
    });
    await bringIn(client, study, `${head}${row('1')}${row('2')}`, asSaid);
    const proposed = async () => {
      const name = 'more.csv';
      const content = Buffer.from(`${head}${row('3')}`);
      const { ready } = await uploadSheet(client, study, name, content);
      return ready.settings.columns.map(({ role, name: its, writing }) => [role, its, writing]);
    };
    expect((await proposed()).slice(1, 4)).toEqual([
      ['leave_out', 'Nurse', ''],
      ['date', 'Visit', 'month_first'],
      ['number', 'Income', 'comma_groups'],
    ]);
    expect(await people(study)).toMatchObject([
      ...['1', '2'].map((id) => ({ id, background: { Visit: '2026-03-04', Income: 45_000 } })),
    ]);
    const { body } = await client.get<{ imports: ImportRecord[] }>(`/studies/${study}/imports`);
    expect(body.imports[0]!.decisions.slice(1)).toEqual([
      '“Visit” was read with the month first',
      '“Income” was read with a comma between thousands',
    ]);
    const undo = await client.send<Job>(
      'POST',
      `/studies/${study}/imports/${body.imports[0]!.id}/undo`,
    );
    await client.jobEnd(study, undo.body.id);
    expect((await proposed())[2]).toEqual(['date', 'Came', '']);
  });

  test('more about respondents: nothing is matched silently, and it can be undone', async () => {
    const study = await importStudy(client, first);
    const before = await people(study.id);
    const csv = 'id,age,home\nR1,34,\nr2,71,Lorn\nR9,50,Tye\n';
    const sheet = await uploadSheet(client, study.id, 'more.csv', Buffer.from(csv));
    expect(sheet.ready.settings.as).toBe('details');
    const compare = async (settings: SheetSettings) =>
      (await client.send<SheetDifference>('POST', `${sheet.base}/difference`, { body: settings }))
        .body;
    expect(await compare(sheet.ready.settings)).toMatchObject({
      found: 1,
      unknown: 2,
      absent: 2,
      changedPeople: 1,
      changedTexts: 0,
      proposals: [{ from: 'r2', to: 'R2', why: 'case or white space' }],
      firstUnknown: ['r2', 'R9'],
      firstAbsent: ['R2', 'R3'],
      changes: [{ externalId: 'R1', about: 'age', before: '', after: '34' }],
    });
    const settings = { ...sheet.ready.settings, matches: [{ from: 'r2', to: 'R2' }] };
    expect(await compare(settings)).toMatchObject({ found: 2, unknown: 1, changedPeople: 2 });
    const csvOf = (side: string) => client.get(`${sheet.base}/unmatched.csv?side=${side}`);
    expect([(await csvOf('sheet')).text, (await csvOf('study')).text]).toEqual([
      '\uFEFFid\r\nR9\r\n',
      '\uFEFFid\r\nR3\r\n',
    ]);

    const { body: job } = await client.send<Job>('POST', `${sheet.base}/import`, {
      body: settings,
    });
    expect((await client.jobEnd(study.id, job.id)).problem).toBeNull();
    expect((await people(study.id)).map((one) => one.background)).toEqual([
      // a blank cell says nothing about what is known
      { age: 34, home: 'Tye' },
      { age: 71, home: 'Lorn' },
      { age: null, home: 'Tye' },
    ]);
    await takeBackLast(study.id);
    expect(await people(study.id)).toEqual(before);
  });

  test('answers to a new question are added to the respondents who are here, and to nobody else', async () => {
    const study = await importStudy(client, first);
    const before = await people(study.id);
    const csv =
      'id,What else?\nR1,the crew was kind to us\nR2,nothing at all to say\nR3,n/a\nR9,who is this then\n';
    const sheet = await uploadSheet(client, study.id, 'else.csv', Buffer.from(csv));
    // three of the four ids are the study's
    expect(sheet.ready.settings.as).toBe('answers');
    const { body } = await client.send<SheetDifference>('POST', `${sheet.base}/difference`, {
      body: sheet.ready.settings,
    });
    expect(body).toMatchObject({ found: 3, unknown: 1, newAnswers: 2, changedTexts: 0 });
    const { body: job } = await client.send<Job>('POST', `${sheet.base}/import`, {
      body: sheet.ready.settings,
    });
    expect((await client.jobEnd(study.id, job.id)).problem).toBeNull();
    const { questions } = (await client.get<StudyDetail>(study.base)).body;
    expect(questions.map(({ wording, asked, answered }) => [wording, asked, answered])[1]).toEqual([
      'What else?',
      3,
      2,
    ]);
    expect((await people(study.id)).map(({ id }) => id)).toEqual(['R1', 'R2', 'R3']);
    const again = await uploadSheet(client, study.id, 'else.csv', Buffer.from(csv));
    expect(again.ready.settings.as).toBe('corrections');
    const others = await uploadSheet(
      client,
      study.id,
      'o.csv',
      Buffer.from(csv.replaceAll('R', 'S')),
    );
    expect(others.ready.settings.as).toBe('respondents');
    await takeBackLast(study.id);
    expect(await people(study.id)).toEqual(before);
  });

  test('corrections: changed texts keep their codes and are marked, and can be undone', async () => {
    const study = await importStudy(client, first);
    const before = await people(study.id);
    const { answers } = await study.ledger();
    const { id: mention } = await study.code(answers[0]!.id, { newCode: 'Late' }, [6, 12]);
    await client.send('POST', `${study.base}/notes`, {
      body: {
        id: randomUUID(),
        responseId: answers[0]!.id,
        start: 6,
        end: 12,
        text: 'Hm',
        respondentId: null,
        codeId: null,
        unsure: false,
      },
    });
    const csv =
      'id,home,Why?\nR1,Hask,It really is always too late\nR2,Hask,It is far too dear\nR5,Tye,It is new to me here\n';
    const sheet = await uploadSheet(client, study.id, 'again.csv', Buffer.from(csv));
    const settings: SheetSettings = { ...sheet.ready.settings, as: 'corrections' };
    const { body } = await client.send<SheetDifference>('POST', `${sheet.base}/difference`, {
      body: settings,
    });
    expect(body).toMatchObject({
      found: 2,
      unknown: 1,
      absent: 1,
      changedPeople: 1,
      changedTexts: 1,
      changedCoded: 1,
      firstAbsent: ['R3'],
    });
    const { body: job } = await client.send<Job>('POST', `${sheet.base}/import`, {
      body: settings,
    });
    expect((await client.jobEnd(study.id, job.id)).problem).toBeNull();
    expect(
      (await people(study.id)).map((one) => [one.id, one.background['home'], one.answers]),
    ).toEqual([
      ['R1', 'Hask', ['It really is always too late']],
      ['R2', 'Hask', ['It is far too dear']],
      ['R3', 'Tye', ['n/a']],
      ['R5', 'Tye', ['It is new to me here']],
    ]);
    const changed = (await study.ledger('show=changed')).answers;
    expect(changed.map((one) => [one.id, one.changed])).toEqual([[answers[0]!.id, true]]);
    expect(changed[0]!.mentions).toEqual([
      expect.objectContaining({ id: mention, start: 13, end: 19 }),
    ]);
    expect(changed[0]!.notes).toEqual([
      expect.objectContaining({ text: 'Hm', start: 13, end: 19 }),
    ]);
    await takeBackLast(study.id);
    expect(await people(study.id)).toEqual(before);
  });

  const imports = async (study: number) =>
    (await client.get<{ imports: ImportRecord[] }>(`/studies/${study}/imports`)).body.imports;
  async function takeBackLast(study: number) {
    const [last] = await imports(study);
    const { body: job } = await client.send<Job>(
      'POST',
      `/studies/${study}/imports/${last!.id}/undo`,
    );
    expect((await client.jobEnd(study, job.id)).problem).toBeNull();
  }

  test('an import says what would go with it, and goes with all of that', async () => {
    const study = await importStudy(client, first);
    const { answers } = await study.ledger();
    await study.code(answers[0]!.id, { newCode: 'Late' });
    await study.settle(answers[0]!.id);
    const [only] = await imports(study.id);
    expect(only).toMatchObject({
      fileName: 'sheet.csv',
      respondents: 3,
      responses: 3,
      by: 'Rowan',
      undone: null,
      roles: [{ column: 'id', role: 'id' }, { role: 'category' }, { role: 'question' }],
    });
    const { body } = await client.get<ImportUndo>(`${study.base}/imports/${only!.id}/undo`);
    expect(body).toEqual({
      respondents: 3,
      responses: 3,
      settled: 1,
      mentions: 1,
      suggestions: 0,
      restored: 0,
      codedTwice: 0,
      variables: ['home'],
      questions: ['Why?'],
    });
    await takeBackLast(study.id);
    expect(await detailOf(study.id)).toMatchObject({
      respondents: 0,
      questions: [],
      variables: [],
    });
    expect((await imports(study.id))[0]!.undone).toMatchObject({ by: 'Rowan' });
    const { body: again } = await client.send<Job>(
      'POST',
      `${study.base}/imports/${only!.id}/undo`,
    );
    expect((await client.jobEnd(study.id, again.id)).problem!.code).toBe('import_undone');
  });

  test('an import that was undone is restored with every row that went, for thirty days', async () => {
    const study = await importStudy(client, first);
    const { answers } = await study.ledger();
    const { codeId } = await study.code(answers[0]!.id, { newCode: 'Late' }, [0, 3]);
    await study.settle(answers[0]!.id);
    await client.send('POST', `${study.base}/questions/${study.question}/samples`, {
      body: { kind: 'random', size: 2 },
    });
    await client.send('POST', `${study.base}/notes`, {
      body: { id: randomUUID(), text: 'Hm', responseId: answers[1]!.id, start: null, end: null },
    });
    const everything = async () => {
      const tables = await server.sql<{ name: string }>(
        `select table_name as name from information_schema.tables where table_schema = 'public'
         and table_type = 'BASE TABLE' and table_name not in
           ('job', 'change', 'bin_row', 'written', 'audit', 'session', 'sign_in_try', 'import')`,
      );
      const found: [string, unknown][] = [];
      for (const { name } of tables)
        found.push([
          name,
          await server.sql(`select to_jsonb(t)::text as row from ${name} t order by 1`),
        ]);
      return Object.fromEntries(found);
    };
    const before = await everything();
    const [only] = await imports(study.id);
    const restore = async () => {
      const path = `${study.base}/imports/${only!.id}/restore`;
      const { status, body: job } = await client.send<Job & { code: string }>('POST', path);
      return status === 200 ? (await client.jobEnd(study.id, job.id)).problem : job.code;
    };
    expect(await restore()).toBe('not_in_bin');
    await takeBackLast(study.id);
    expect((await study.ledger().catch(() => null))?.total ?? 0).toBe(0);
    expect(await restore()).toBeNull();
    expect(await everything()).toEqual(before);

    // the same people came in by another sheet meanwhile: the restored ones would stand twice
    await takeBackLast(study.id);
    await bringIn(client, study.id, first);
    expect(await restore()).toMatchObject({ code: 'place_taken' });
    await takeBackLast(study.id);
    await server.sql(`update import set undone_at = now() - interval '31 days'`);
    expect(await restore()).toBe('not_in_bin');
    await emptyBin(server.orm.em.fork());
    expect(await server.sql('select 1 from bin_row')).toEqual([]);
    expect(await server.sql('select 1 from code where id = :codeId', { codeId })).toHaveLength(1);
  });
});
