import type { EntityManager } from '@mikro-orm/postgresql';

/** Runs SQL with `?` placeholders on the connection of the transaction that `em` is in, if any. */
export async function rows<Row>(
  em: EntityManager,
  sql: string,
  values: readonly unknown[] = [],
): Promise<Row[]> {
  return em.getConnection().execute<Row[]>(sql, [...values], 'all', em.getTransactionContext());
}

/** The one row that a query must give. */
export async function row<Row>(
  em: EntityManager,
  sql: string,
  values: readonly unknown[] = [],
): Promise<Row> {
  const [first] = await rows<Row>(em, sql, values);
  if (!first) throw new Error('A query that must give a row gave none.');
  return first;
}
