import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type {
  Codebook,
  Report,
  Review,
  ReviewList,
  SuggestionPage,
  Training,
} from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { trainedDemo } from '../../test/demo.js';
import { readWholeLedger } from '../../test/study.js';

// one story: the demo study is trained, reviewed and reported, each test going on from the one before it
let server: TestServer;
let client: Client;
let base: string;
let codeId: string;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
  const study = await trainedDemo(server, client);
  base = `/studies/${study.id}/questions/${study.questions[1]!.id}`;
  const { body: codebook } = await client.get<Codebook>(`/studies/${study.id}/codebook`);
  codeId = codebook.codes.find((code) => code.name === 'Sea and scenery')!.id;
});
afterAll(() => server.stop());

const studyBase = () => base.replace(/\/questions.*/, '');
const review = async () => (await client.get<Review>(`${base}/review/${codeId}`)).body;
const training = async () => (await client.get<Training>(`${base}/training`)).body;
const undo = () => client.send<{ summary: string }>('POST', `${studyBase()}/undo`);
const decide = (responseId: number, state: string, by = client) =>
  by.send('POST', `${base}/review/${codeId}/decide`, { body: { responseId, state } });
const settle = (threshold: number, side: 'above' | 'below', runId: number) =>
  client.send<{ decided: number; code: string }>('POST', `${base}/review/${codeId}/settle`, {
    body: { runId, threshold, side },
  });
async function allSuggestions() {
  const all: SuggestionPage['suggestions'] = [];
  for (let after = ''; ;) {
    const query = `same=apart&limit=40${after && `&after=${after}`}`;
    const { body } = await client.get<SuggestionPage>(
      `${base}/review/${codeId}/suggestions?${query}`,
    );
    all.push(...body.suggestions);
    if (!body.next) return all;
    after = body.next;
  }
}
const reportRow = async (query: string) => {
  const { body } = await client.get<Report>(`${base}/report?${query}`);
  return { report: body, row: body.rows.find((one) => one.id === codeId)! };
};

describe('training', () => {
  test('learns every code with enough examples from settled answers, and measures it out-of-fold', async () => {
    const { run, settled, answered, fewestExamples, examples } = await training();
    expect(run).toMatchObject({ settled, answers: answered });
    for (const code of run!.codes) {
      const known = examples.find((one) => one.codeId === code.codeId)?.examples ?? 0;
      expect(code.examples).toBe(known);
      expect(code.state === 'too_few').toBe(known < fewestExamples);
      if (code.state === 'too_few') continue;
      const {
        precision,
        precisionInterval: [low, high],
      } = code.quality;
      expect(low).toBeLessThanOrEqual(precision);
      expect(high).toBeGreaterThanOrEqual(precision);
    }
  });

  test('suggests for open answers only, most likely first, with words of the answer as evidence', async () => {
    const suggestions = await allSuggestions();
    const { open } = await review();
    expect(suggestions.map((one) => one.probability)).toEqual(open);
    expect(new Set(suggestions.map((one) => one.responseId)).size).toBe(suggestions.length);
    const [settledOnes] = await server.sql<{ count: number }>(
      `select count(*)::int as count from suggestion s join settlement t on t.response_id = s.response_id`,
    );
    expect(settledOnes!.count).toBe(0);
    for (const { text, evidence } of suggestions.slice(0, 20))
      expect(text.toLowerCase().replaceAll('’', "'")).toContain(evidence[0]!.word);
  });
});

describe('review', () => {
  test('accepting makes a mention, refusing none, opening takes either back; each can be undone', async () => {
    const [first, second] = await allSuggestions();
    await decide(first!.responseId, 'accepted');
    await decide(second!.responseId, 'refused');
    const after = await allSuggestions();
    expect(after[0]).toMatchObject({ state: 'accepted', bulk: false });
    expect(after[0]!.mentions).toEqual([expect.objectContaining({ codeId, origin: 'accepted' })]);
    expect(after[1]).toMatchObject({ state: 'refused', mentions: [] });
    expect((await undo()).body.summary).toBe('refusing “Sea and scenery”');
    await decide(first!.responseId, 'open');
    expect((await allSuggestions()).slice(0, 2)).toEqual([first, second]);
    await undo();
    expect((await allSuggestions())[0]!.state).toBe('accepted');
    await undo();
    expect((await allSuggestions()).slice(0, 2)).toEqual([first, second]);
  });

  test('it is accepted for a passage, or with another code beside it, as one change that says who', async () => {
    const [first, second] = await allSuggestions();
    const { codes } = (await client.get<Codebook>(`${studyBase()}/codebook`)).body;
    const other = codes.find(({ id }) => id !== codeId)!;
    const send = (responseId: number, body: object) =>
      client.send('POST', `${base}/review/${codeId}/decide`, { body: { responseId, ...body } });
    const passage = { start: 0, end: first!.text.indexOf(' ') };
    const given = { id: randomUUID(), codeId: other.id };
    const beyond = { start: 0, end: first!.text.length + 1 };
    expect(
      (await send(first!.responseId, { state: 'accepted', passage: beyond })).status,
    ).toBeGreaterThanOrEqual(400);
    await send(first!.responseId, { state: 'accepted', passage });
    // a request that comes twice is carried out once
    for (let n = 0; n < 2; n++) await send(second!.responseId, { state: 'refused', other: given });
    const after = await allSuggestions();
    expect(after[0]).toMatchObject({
      state: 'accepted',
      by: 'Rowan',
      mentions: [{ codeId, ...passage }],
    });
    expect(after[1]).toMatchObject({
      state: 'refused',
      by: 'Rowan',
      mentions: [{ ...given, origin: 'hand', start: null }],
    });
    // moved to all of the answer: still one mention
    await send(first!.responseId, {
      state: 'accepted',
      passage: { ...passage, end: passage.end + 1 },
    });
    expect((await allSuggestions())[0]!.mentions).toHaveLength(1);
    // another code beside it leaves the passage where it is
    await send(first!.responseId, { state: 'accepted', other: { ...given, id: randomUUID() } });
    expect((await allSuggestions())[0]!.mentions).toMatchObject([
      { codeId: other.id, start: null },
      { codeId, end: passage.end + 1 },
    ]);
    expect((await undo()).body.summary).toBe(`coding “${other.name}”`);
    const { body: list } = await client.get<ReviewList>(`${base}/review`);
    expect(list.codes.find((one) => one.codeId === codeId)!.deciders).toEqual([
      { name: 'Rowan', read: 2, bulk: 0 },
    ]);
    await undo();
    expect((await undo()).body.summary).toBe(`refusing “Sea and scenery”, coding “${other.name}”`);
    await undo();
    expect((await allSuggestions()).slice(0, 2)).toEqual([first, second]);
  });

  test('accepted mentions count where everybody is counted, as “at least” until the code is closed', async () => {
    const { row: before } = await reportRow('by=none&counts=settled');
    const { runId, threshold, open } = await review();
    const above = open.filter((p) => p >= threshold).length;
    expect((await settle(threshold, 'above', runId)).body.decided).toBe(above);
    // settled answers by hand are what they were
    const byHand = await reportRow('by=none&counts=settled');
    expect(byHand.row.cells).toEqual(before.cells);
    expect(byHand.report.origins).toMatchObject({ bulk: 0, notCounted: above });
    const some = await reportRow('by=none&counts=decided');
    const { answered, settled } = some.report.columns[0]!;
    const counted = before.cells[0]!.people + above;
    expect(some.row).toMatchObject({
      isAtLeast: true,
      cells: [
        { people: counted, undecided: answered - settled - above, base: { people: answered } },
      ],
    });

    expect((await settle(threshold, 'below', runId)).body.decided).toBe(open.length - above);
    const { undecided } = (await reportRow('by=none&counts=decided')).row.cells[0]!;
    expect(undecided).toBe(answered - settled - open.length);
    const close = () =>
      client.send('POST', `${base}/left/closed`, {
        body: { codes: [{ codeId, how: 'suggestions' }] },
      });
    expect((await close()).status).toBe(200);
    const { row, report } = await reportRow('by=none&counts=decided');
    expect(row).toMatchObject({ isAtLeast: false, cells: [{ people: counted, undecided: 0 }] });
    expect(report.closed).toMatchObject([{ code: 'Sea and scenery', how: 'suggestions' }]);
    expect((await undo()).body.summary).toBe('closing “Sea and scenery”');
  });

  test('settling a side is one change: one undo takes all of it back', async () => {
    const decided = await review();
    expect(decided.open).toEqual([]);
    expect((await undo()).body.summary).toMatch(/^refusing \d+ suggestions of “Sea and scenery”$/);
    expect((await undo()).body.summary).toMatch(/^accepting \d+ suggestions/);
    const open = await review();
    expect(open).toMatchObject({ accepted: 0, refused: 0, acceptedInBulk: 0 });
    expect(open.open.length).toBe(decided.accepted + decided.refused);
  });

  test('an answer that a person settled in the meantime is never touched', async () => {
    const [first] = await allSuggestions();
    await client.send('PUT', `${studyBase()}/responses/${first!.responseId}/settlement`, {
      body: { settled: true },
    });
    expect((await decide(first!.responseId, 'accepted')).body.code).toBe('changed_meanwhile');
    const { runId, open } = await review();
    expect((await settle(0, 'above', runId)).body.decided).toBe(open.length);
    const ledger = await readWholeLedger(client, base, 'show=settled');
    expect(ledger.answers.find((answer) => answer.id === first!.responseId)!.mentions).toEqual([]);
    await undo();
    await undo();
  });

  test('of two people who decide the same suggestion at once, one decides it, with one mention', async () => {
    const colleague = await server.enter('Hazel');
    await server.sql(
      `insert into membership (study_id, account_id, role) values (:studyId, :accountId, 'owner')`,
      { studyId: Number(studyBase().split('/')[2]), accountId: colleague.accountId },
    );
    const [first] = await allSuggestions();
    const replies = await Promise.all([
      decide(first!.responseId, 'accepted'),
      decide(first!.responseId, 'accepted', colleague),
    ]);
    expect(replies.every((reply) => [200, 409].includes(reply.status))).toBe(true);
    const [after] = await allSuggestions();
    expect(after).toMatchObject({ state: 'accepted', mentions: [{ codeId, origin: 'accepted' }] });
    await decide(first!.responseId, 'open');
    expect((await allSuggestions())[0]).toEqual(first);
  });

  test('the line stays where it was laid, and two people do not pull it unseen', async () => {
    const { threshold: from } = await review();
    const lay = (body: object) =>
      client.send('PUT', `${base}/review/${codeId}/threshold`, { body });
    expect((await lay({ from, to: 0.42 })).status).toBe(200);
    expect((await review()).threshold).toBe(0.42);
    expect((await lay({ from, to: 0.9 })).body.code).toBe('changed_meanwhile');
  });

  test('a new run replaces open suggestions only, and old ones can no longer be settled in bulk', async () => {
    const [first, second] = await allSuggestions();
    await decide(first!.responseId, 'accepted');
    await decide(second!.responseId, 'refused');
    const { runId } = await review();
    const { body: job } = await client.send<{ id: number }>('POST', `${base}/training`, {
      body: {},
    });
    expect((await client.jobEnd(Number(studyBase().split('/')[2]), job.id)).state).toBe('done');
    expect((await settle(0.5, 'above', runId)).body.code).toBe('run_replaced');
    const after = new Map((await allSuggestions()).map((one) => [one.responseId, one.state]));
    expect([after.get(first!.responseId), after.get(second!.responseId)]).toEqual([
      'accepted',
      'refused',
    ]);
  });
});

describe('the report', () => {
  test('agrees with counting in the database, by group and by question', async () => {
    const [home] = await server.sql<{ id: number }>(`select id from variable where name = 'Home'`);
    const { report, row } = await reportRow(`by=${home!.id}&counts=settled`);
    expect(report.columns.map((column) => column.label)).toEqual([
      'Total',
      'Carrow',
      'Elsewhere',
      'Hask',
      'Little Tye',
      'Tye',
    ]);
    const counted = await server.sql<{ home: string; people: number; base: number }>(
      `select p.background->>:variable as home, count(*)::int as base,
         (count(*) filter (where exists (
           select 1 from mention m where m.response_id = r.id and m.code_id = :codeId)))::int as people
       from settlement t join response r on r.id = t.response_id
       join respondent p on p.id = r.respondent_id where r.question_id = :questionId group by home order by home`,
      { variable: String(home!.id), codeId, questionId: Number(base.split('/')[4]) },
    );
    expect(row.cells.slice(1).map((cell) => [cell.people, cell.base.people])).toEqual(
      counted.map(({ people, base: of }) => [people, of]),
    );
    const byQuestion = await reportRow('by=question&counts=settled');
    expect(byQuestion.report.columns).toHaveLength(3);
    expect(byQuestion.row.cells[1]).toEqual(row.cells[0]);
  });

  test('themes come by size with their codes after them, and weights change shares but not people', async () => {
    const { report } = await reportRow('by=none');
    const shares = report.rows
      .filter((one) => one.kind === 'theme')
      .map((one) => one.cells[0]!.share!);
    expect(shares).toEqual([...shares].sort((x, y) => y - x));
    report.rows.forEach((one, i) => {
      if (one.kind === 'theme') expect(report.rows[i + 1]!.parentId).toBe(one.id);
    });
    const weighted = await reportRow('by=none&counts=settled&weighted=true');
    const plain = await reportRow('by=none&counts=settled');
    expect(weighted.row.cells[0]!.people).toBe(plain.row.cells[0]!.people);
    expect(weighted.row.cells[0]!.share).not.toBe(plain.row.cells[0]!.share);
    expect(weighted.row.cells[0]!.base.effective).toBeLessThan(plain.row.cells[0]!.base.people);
  });

  test('shares are estimated of everybody as by the training, and of groups with enough of the random sample', async () => {
    const [home] = await server.sql<{ id: number }>(`select id from variable where name = 'Home'`);
    const { report } = await reportRow(`by=${home!.id}&counts=settled&estimated=true`);
    const { run } = await training();
    expect(report.estimatedFrom).toMatchObject([{ answers: run!.answers }]);
    for (const { id, cells } of report.rows.filter((one) => one.kind === 'code')) {
      const code = run!.codes.find((one) => one.codeId === id)!;
      if (code.state !== 'too_few') expect(cells[0]!.estimated).toMatchObject(code.share!);
    }
    const drawn = await server.sql<{ home: string; sampled: number }>(
      `select p.background->>:variable as home, count(*)::int as sampled from sample_member m
       join response r on r.id = m.response_id and not r.no_answer
       join respondent p on p.id = r.respondent_id where r.question_id = :questionId group by 1`,
      { variable: String(home!.id), questionId: Number(base.split('/')[4]) },
    );
    const sampledIn = new Map(drawn.map((one) => [one.home, one.sampled]));
    expect([...sampledIn.values()].some((sampled) => sampled >= 30)).toBe(true);
    expect([...sampledIn.values()].some((sampled) => sampled < 30)).toBe(true);
    for (const [c, { label }] of report.columns.slice(1).entries()) {
      const sampled = sampledIn.get(label) ?? 0;
      for (const { cells } of report.rows)
        expect(cells[c + 1]!.estimated?.sampled).toBe(sampled >= 30 ? sampled : undefined);
    }
    // the group is a part of everybody, so that the same sample says less about it
    const widthOf = ([low, high]: [number, number]) => high - low;
    const [whole, ...parts] = report.rows
      .find(({ id }) => id === codeId)!
      .cells.flatMap(({ estimated }) => (estimated?.estimate ? [estimated.estimate.interval] : []));
    for (const part of parts) expect(widthOf(part)).toBeGreaterThan(widthOf(whole!));
    const query = `by=${home!.id}&counts=settled&estimated=true`;
    const { text: document } = await client.get(`${base}/report/files/html?${query}`);
    expect(document).toContain(`% (${whole!.map((end) => (100 * end).toFixed(0)).join(' to ')})`);
    const { text: csv } = await client.get(`${base}/report/files/csv?${query}`);
    expect(csv).toContain(`,${whole!.map((end) => Number((100 * end).toFixed(2))).join(',')},`);
    const weighted = await reportRow('by=none&counts=settled&estimated=true&weighted=true');
    const { sampleShare, mentioned, sampled } = weighted.row.cells[0]!.estimated!;
    const [found] = await server.sql<{ sampled: number; mentioned: number; share: number }>(
      `select count(*)::int as sampled, (count(*) filter (where mentions))::int as mentioned,
         sum(weight) filter (where mentions) / sum(weight) as share
       from (select p.weight, exists (select 1 from mention k where k.response_id = r.id and k.code_id = :codeId) as mentions
         from sample_member m join response r on r.id = m.response_id and not r.no_answer
         join respondent p on p.id = r.respondent_id where r.question_id = :questionId) of_sample`,
      { codeId, questionId: Number(base.split('/')[4]) },
    );
    expect([sampled, mentioned]).toEqual([found!.sampled, found!.mentioned]);
    expect(sampleShare).toBeCloseTo(found!.share, 10);
  });

  test('every number opens just the answers that it counts', async () => {
    const [home] = await server.sql<{ id: number }>(`select id from variable where name = 'Home'`);
    const { report } = await reportRow(`by=${home!.id}`);
    for (const row of report.rows.slice(0, 4))
      for (const [c, column] of report.columns.entries()) {
        const query = new URLSearchParams({
          by: String(home!.id),
          column: column.key,
          row: row.id,
          limit: '3',
        });
        const { body } = await client.get<{
          answers: unknown[];
          total: number;
          next: string | null;
        }>(`${base}/report/answers?${query.toString()}`);
        expect(body.total).toBe(row.cells[c]!.people);
        expect(body.answers.length).toBe(Math.min(3, body.total));
        expect(body.next === null).toBe(body.total <= 3);
      }
  });
});

test('the list of codes to review counts what is open and decided', async () => {
  const { body } = await client.get<ReviewList>(`${base}/review`);
  const one = body.codes.find((code) => code.codeId === codeId)!;
  const { open, accepted, refused } = await review();
  expect(one).toMatchObject({ codeId, open: open.length, accepted, refused });
  const decided = one.deciders.reduce((sum, { read, bulk }) => sum + read + bulk, 0);
  expect(decided).toBe(accepted + refused);
});

test('a removed code is reviewed no more, and comes back with all that its model said', async () => {
  const list = async () => (await client.get<ReviewList>(`${base}/review`)).body.codes;
  const before = { list: await list(), review: await review() };
  await client.send('DELETE', `${studyBase()}/codes/${codeId}`);
  expect((await list()).map((one) => one.codeId)).not.toContain(codeId);
  expect((await client.get(`${base}/review/${codeId}`)).status).toBe(404);
  const { answers } = await readWholeLedger(client, base, 'show=open');
  expect(answers.flatMap((one) => one.suggestions.map((s) => s.codeId))).not.toContain(codeId);
  await client.send('POST', `${studyBase()}/undo`);
  expect({ list: await list(), review: await review() }).toEqual(before);
});

test('restricted to a group, its suggestions alone are listed, counted and settled', async () => {
  const [home] = await server.sql<{ id: number }>(`select id from variable where name = 'Home'`);
  const [tye, others] = [randomUUID(), randomUUID()];
  const put = (id: string, name: string, rule: unknown) =>
    client.send('PUT', `${studyBase()}/groups/${id}`, { body: { name, description: '', rule } });
  await put(tye, 'Tye', { is: 'value', variableId: home!.id, test: 'any_of', labels: ['Tye'] });
  await put(others, 'Not Tye', { is: 'in_group', groupId: tye, member: false });
  const { body: list } = await client.get<ReviewList>(`${base}/review`);
  const code = list.codes.find(({ open }) => open > 20)!.codeId;
  const path = `${base}/review/${code}`;
  const of = async (group?: string) =>
    (await client.get<Review>(`${path}${group ? `?group=${group}` : ''}`)).body;
  const [all, inTye, rest] = [await of(), await of(tye), await of(others)];
  expect(inTye.open.length).toBeGreaterThan(0);
  expect([...inTye.open, ...rest.open].sort()).toEqual([...all.open].sort());
  expect(inTye.known + rest.known).toBe(all.known);
  expect(inTye.unsuggested + rest.unsuggested).toBeCloseTo(all.unsuggested, 9);
  const settled = await client.send<{ decided: number }>('POST', `${path}/settle?group=${tye}`, {
    body: { runId: all.runId, threshold: 0, side: 'above' },
  });
  expect(settled.body.decided).toBe(inTye.open.length);
  expect((await of(tye)).open).toEqual([]);
  expect((await of(others)).open).toEqual(rest.open);
  const counts = (await client.get<ReviewList>(`${base}/review?group=${others}`)).body.codes;
  expect(counts.find(({ codeId: id }) => id === code)!.open).toBe(rest.open.length);
});
