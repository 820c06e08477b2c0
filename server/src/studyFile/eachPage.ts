import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, type SqlValues } from '../database/index.js';

const ROWS_AT_ONCE = 1000;

/**
 * Reads what a query gives page by page: not more at a time than others can wait for.
 *
 * @param tx in a transaction, in which one such reading is at work at a time
 */
export async function eachPage<Row>(
  tx: EntityManager,
  query: string,
  values: SqlValues,
  use: (page: Row[]) => void | Promise<void>,
): Promise<void> {
  await rows(tx, `declare paged cursor for ${query}`, values);
  for (;;) {
    const page = await rows<Row>(tx, `fetch ${ROWS_AT_ONCE} from paged`);
    if (page.length === 0) break;
    await use(page);
  }
  await rows(tx, 'close paged');
}
