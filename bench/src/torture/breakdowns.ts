import { readFileSync } from 'node:fs';
import { enter, FOLDER, type Product } from '../product.js';
import { newCode, save, smallStudy, waits, type Trial } from './people.js';

const ROUNDS = 5;

/** Kills and cuts while somebody codes; afterwards everything that was acknowledged must be there. */
export async function breakdowns(product: Product, hard: number): Promise<Trial[]> {
  const ways: Record<string, () => unknown> = {
    'the server is killed': () => {
      process.kill(Number(product.pid()), 'SIGKILL');
      return product.again();
    },
    'PostgreSQL is killed': () =>
      process.kill(Number(readFileSync(postmaster(), 'utf8').split('\n')[0]), 'SIGKILL'),
    'a process of PostgreSQL is killed': () =>
      process.kill(
        Number(
          product.sql(`select pid from pg_stat_activity where backend_type = 'client backend'
            and pid <> pg_backend_pid() order by random() limit 1`),
        ),
        'SIGKILL',
      ),
    'every connection is cut': () =>
      product.sql(`select pg_terminate_backend(pid) from pg_stat_activity
        where pid <> pg_backend_pid() and datname = current_database()`),
  };
  const trials: Trial[] = [];
  for (const [what, strike] of Object.entries(ways)) {
    const { call } = await enter();
    const study = await smallStudy(call, 200);
    const code = await newCode(call, study.id, 'Late');
    const waited = waits();
    const acknowledged: string[] = [];
    for (let round = 0; round < ROUNDS * hard; round++) {
      const answers = study.answers.slice(round * 8, round * 8 + 8);
      const saves = answers.map((answer) =>
        waited
          .of(() => save(call, study.id, answer, code))
          .then((id) => id !== null && acknowledged.push(id)),
      );
      await strike();
      await Promise.all(saves);
    }
    const kept = new Set(
      product.sql(`select id from mention where code_id = '${code}'`).trim().split('\n'),
    );
    const lost = acknowledged.filter((id) => !kept.has(id)).length;
    trials.push({ ...waited.told(what), lost });
  }
  return trials;
}

const postmaster = () => `${FOLDER}/data/postgres/cluster/postmaster.pid`;
