import { randomUUID } from 'node:crypto';
import type { LedgerPage, Sheet } from '@yellow-thread/contract';
import type { Client } from './app.js';

/** A new study with a sheet of one question and one background variable brought in. */
export async function importStudy(client: Client, csv: string) {
  const { body: study } = await client.send<{ id: number }>('POST', '/studies', {
    body: { name: 'Test', purpose: '' },
  });
  const { body: sheet } = await client.upload<Sheet>(study.id, 'sheet.csv', Buffer.from(csv));
  const roles = sheet.columns.map((column) => column.role);
  const { body: job } = await client.send<{ id: number }>(
    'POST',
    `/studies/${study.id}/sheets/${sheet.id}/import`,
    { body: { roles } },
  );
  const ended = await client.jobEnd(study.id, job.id);
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
    ledger: async (query = '') =>
      (await client.get<LedgerPage>(`${base}/questions/${question}/ledger?${query}`)).body,
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
