import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { buffer } from 'node:stream/consumers';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { PoolClient } from 'pg';
import { from as copyFrom, to as copyTo } from 'pg-copy-streams';

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

/** Signature, flags and length of what may stand before the rows, then how many columns the row has. */
const BEFORE_FIELD = 11 + 4 + 4 + 2;

/**
 * The one `bytea` that a query gives, outside any transaction of em's: in COPY's binary format, since a query's own
 * result has two digits a byte.
 *
 * @param sql without parameters, which COPY has none of
 * @returns null where there is no such row
 */
export async function copyBytes(em: EntityManager, sql: string): Promise<Uint8Array | null> {
  const pool = em.getKnex().client as Pool;
  const connection = await pool.acquireConnection();
  try {
    const copied = await buffer(
      connection.query(copyTo(`copy (${sql}) to stdout (format binary)`)),
    );
    const noRow = copied.readInt16BE(BEFORE_FIELD - 2) === -1;
    if (noRow) return null;
    const start = BEFORE_FIELD + 4;
    return copied.subarray(start, start + copied.readInt32BE(BEFORE_FIELD));
  } finally {
    await pool.releaseConnection(connection);
  }
}

interface Pool {
  acquireConnection(): Promise<PoolClient>;
  releaseConnection(connection: PoolClient): Promise<void>;
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
