import { randomUUID } from 'node:crypto';
import type {
  Job,
  Ledger,
  InvitationLink,
  LedgerAnswer,
  ReadySheet,
  Role,
  Sheet,
  SheetSettings,
} from '@yellow-thread/contract';
import type { Client } from './app.js';

/** Uploads a file and waits until it was read through. */
export async function uploadSheet(
  client: Client,
  study: number,
  name: string,
  content: Uint8Array,
) {
  const { body: sheet, status } = await client.upload<Sheet>(study, name, content);
  if (status !== 200) throw new Error(`${status}`);
  return readAgain(client, study, sheet.id, sheet.reading!.id);
}

/** Waits for a reading to end. @throws Error with its problem's sentence */
export async function readAgain(client: Client, study: number, id: number, job: number) {
  const ended = await client.jobEnd(study, job);
  if (ended.state !== 'done') throw new Error(ended.problem?.sentence ?? ended.state);
  const { body } = await client.get<Sheet>(`/studies/${study}/sheets/${id}`);
  return { id, base: `/studies/${study}/sheets/${id}`, ready: body.ready! };
}

/** Uploads a file and brings it in as proposed, or as the settings are changed. */
export async function bringIn(
  client: Client,
  study: number,
  content: string | Uint8Array,
  change: (settings: SheetSettings, ready: ReadySheet) => SheetSettings = (settings) => settings,
) {
  const sheet = await uploadSheet(client, study, 'sheet.csv', Buffer.from(content));
  const { body: job } = await client.send<Job>('POST', `${sheet.base}/import`, {
    body: change(sheet.ready.settings, sheet.ready),
  });
  return client.jobEnd(study, job.id);
}

/** Lets somebody into a study, by a link that its owner makes and they open while they are signed in. */
export async function letIn(owner: Client, study: number, person: Client, role: Role = 'owner') {
  const { body } = await owner.send<InvitationLink>('POST', `/studies/${study}/invitations`, {
    body: { name: `Account ${person.accountId}`, role },
  });
  const { token } = body;
  const { status } = await person.session('POST', '/session/invitation/accepted', { token });
  if (status !== 200) throw new Error(`${status}`);
}

/** A new study with a sheet of one question and one background variable imported. */
export async function importStudy(client: Client, csv: string) {
  const { body: study } = await client.send<{ id: number }>('POST', '/studies', {
    body: { name: 'Test', purpose: '' },
  });
  const ended = await bringIn(client, study.id, csv);
  if (ended.state !== 'done') throw new Error(ended.problem?.sentence ?? ended.state);
  const { body: detail } = await client.get<{ questions: { id: number }[] }>(
    `/studies/${study.id}`,
  );
  const question = detail.questions[0]!.id;
  const base = `/studies/${study.id}`;
  return {
    id: study.id,
    question,
    base,
    /** The ledger with what stands in its first 200 answers. */
    ledger: (query = '') => readWholeLedger(client, `${base}/questions/${question}`, query),
    code: (
      responseId: number,
      code: { codeId: string } | { newCode: string },
      passage?: [number, number],
    ) => {
      const codeId = 'codeId' in code ? code.codeId : randomUUID();
      const id = randomUUID();
      return client
        .send('POST', `${base}/mentions`, {
          body: {
            id,
            responseId,
            codeId,
            start: passage?.[0] ?? null,
            end: passage?.[1] ?? null,
            ...('newCode' in code && {
              newCode: { id: codeId, name: code.newCode, themeId: null },
            }),
          },
        })
        .then((reply) => ({ ...reply, id, codeId }));
    },
    settle: (responseId: number, settled = true) =>
      client.send('PUT', `${base}/responses/${responseId}/settlement`, { body: { settled } }),
    undo: () => client.send<{ summary: string; code: string }>('POST', `${base}/undo`),
    redo: () => client.send<{ summary: string; code: string }>('POST', `${base}/redo`),
  };
}

/** Which answers a ledger lists, and what stands in the first 200 of them. */
export async function readWholeLedger(client: Client, question: string, query = '') {
  const { ids, counts, total } = (await client.get<Ledger>(`${question}/ledger?${query}`)).body;
  const shown = ids.slice(0, 200);
  const { answers } =
    shown.length === 0
      ? { answers: [] }
      : (
          await client.get<{ answers: LedgerAnswer[] }>(
            `${question}/answers?ids=${shown.join(',')}`,
          )
        ).body;
  return { ids, counts, total, answers };
}
