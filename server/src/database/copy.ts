import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { PoolClient } from 'pg';
import { from as copyFrom } from 'pg-copy-streams';

export type CopyValue = string | number | boolean | null;

/**
 * Writes many rows by PostgreSQL's COPY on the connection of em's own transaction, so that they are
 * rolled back with it.
 *
 * @param columns names as in the database, in the order of the values
 */
export async function copyRows(
  em: EntityManager,
  table: string,
  columns: readonly string[],
  values: Iterable<readonly CopyValue[]>,
): Promise<void> {
  await copyText(em, table, columns, chunks(values));
}

/** What is being copied on a connection, which does one thing after another. */
const turns = new WeakMap<PoolClient, Promise<void>>();

/**
 * Writes rows that are in the text format of COPY already. What is handed over while something else of the same
 * transaction is being copied waits its turn.
 */
export async function copyText(
  em: EntityManager,
  table: string,
  columns: readonly string[],
  text: Iterable<string | Uint8Array>,
): Promise<void> {
  const transaction = em.getTransactionContext<Transaction>();
  if (!transaction) throw new Error('COPY needs a transaction.');
  const connection = await transaction.client.acquireConnection();
  const sql = `copy ${table} (${columns.map((name) => `"${name}"`).join(', ')}) from stdin`;
  const before = turns.get(connection) ?? Promise.resolve();
  const mine = before.then(() => pipeline(Readable.from(text), connection.query(copyFrom(sql))));
  // whoever waits behind a copy that failed is told so by the transaction, which has failed with it
  turns.set(
    connection,
    mine.catch(() => {}),
  );
  await mine;
}

interface Transaction {
  client: { acquireConnection(): Promise<PoolClient> };
}

function* chunks(values: Iterable<readonly CopyValue[]>): Generator<string> {
  let chunk = '';
  for (const record of values) {
    chunk += record.map(writeValue).join('\t') + '\n';
    if (chunk.length > 65_536) {
      yield chunk;
      chunk = '';
    }
  }
  if (chunk) yield chunk;
}

const escapes: Record<string, string> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' };

function writeValue(value: CopyValue): string {
  if (value === null) return '\\N';
  return String(value).replaceAll(/[\\\t\n\r]/g, (character) => escapes[character]!);
}
