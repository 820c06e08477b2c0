import { fileURLToPath } from 'node:url';
import type { StudyDetail } from '@yellow-thread/contract';
import { loadDemoStudy } from '../src/demo/index.js';
import type { Client, TestServer } from './app.js';

/** The demo study, loaded for whoever is at the client. */
export async function enterDemo(server: TestServer, client: Client): Promise<StudyDetail> {
  const folder = fileURLToPath(new URL('../../demo', import.meta.url));
  await loadDemoStudy(server.orm.em.fork(), folder, [client.accountId]);
  const { body } = await client.get<{ studies: { id: number }[] }>('/studies');
  return (await client.get<StudyDetail>(`/studies/${body.studies[0]!.id}`)).body;
}

/** Waits until the demo's models are trained. */
export async function trainedDemo(server: TestServer, client: Client): Promise<StudyDetail> {
  const study = await enterDemo(server, client);
  for (const job of await server.sql<{ id: number }>('select id from job order by id'))
    if ((await client.jobEnd(study.id, job.id)).state !== 'done')
      throw new Error('The demo could not be trained.');
  return (await client.get<StudyDetail>(`/studies/${study.id}`)).body;
}
