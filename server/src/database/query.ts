import { FOLDED_LETTERS } from '@yellow-thread/core/text';
import type { EntityManager, Knex } from '@mikro-orm/postgresql';

export type SqlValue = Knex.Value | readonly Knex.Value[] | null;
/** Values by the names that they have in the SQL (`:studyId`). */
export type SqlValues = Readonly<Record<string, SqlValue>>;

/** SQL with values by name as SQL with places, and the values in their order. A cast (`::int`) is no name. */
function inOrder(sql: string, values: SqlValues): [string, Knex.RawBinding[]] {
  const ordered: SqlValue[] = [];
  const placed = sql.replaceAll(/(?<![:\w[]):([a-z]\w*)/gu, (found, name: string) => {
    const value = values[name];
    if (value === undefined) throw new Error(`SQL has no value for ${found}.`);
    ordered.push(value);
    return '?';
  });
  return [placed, ordered as Knex.RawBinding[]];
}

/**
 * Runs SQL on the connection of the transaction that `em` is in, if any. Values go to PostgreSQL as parameters, never
 * into the text.
 */
export async function rows<Row>(
  em: EntityManager,
  sql: string,
  values: SqlValues = {},
): Promise<Row[]> {
  const connection = em.getTransactionContext<Knex.Transaction>() ?? em.getKnex();
  const result = await connection.raw<{ rows: Row[] }>(...inOrder(sql, values));
  return result.rows;
}

/** The one row that a query must give. */
export async function row<Row>(
  em: EntityManager,
  sql: string,
  values: SqlValues = {},
): Promise<Row> {
  const [first] = await rows<Row>(em, sql, values);
  if (!first) throw new Error('A query that must give a row gave none.');
  return first;
}

/** Whole numbers that PostgreSQL packed with `string_agg(int4send(…), '')`: ten times as fast as rows of them. */
export function unpackInts(packed: Buffer | null): Int32Array {
  if (!packed) return new Int32Array(0);
  // in the network's order of bytes, and perhaps not where a number may begin
  const aligned = new Uint8Array(packed.length);
  aligned.set(packed);
  Buffer.from(aligned.buffer).swap32();
  return new Int32Array(aligned.buffer);
}

/** A column of times as the contract gives them. */
export const isoTime = (column: string): string =>
  `to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

const inQuotes = (letters: string) => `'${letters.replaceAll("'", "''")}'`;
/** A text in SQL as it is searched: lower case and without accents (as `foldForSearch`, which folds what is looked for). */
export function foldedInSql(text: string): string {
  const plain = `normalize(regexp_replace(normalize(${text}, NFKD), '[\\u0300-\\u036F]', '', 'g'), NFC)`;
  const folded = Object.entries(FOLDED_LETTERS).reduce(
    (sql, [letter, to]) => `replace(${sql}, ${inQuotes(letter)}, ${inQuotes(to)})`,
    plain,
  );
  return `lower(case when octet_length(${text}) = length(${text}) then ${text} else ${folded} end)`;
}

interface GroupCondition {
  head: string;
  values: SqlValues;
  holds: (column: string) => string;
  gave: (column: string) => string;
}
/**
 * Restricts a query to respondents, or to nobody in particular where `within` is null: `head` stands before `select`;
 * `holds` is the condition on a column of respondents' ids, `gave` that on a column of their answers' ids.
 */
export const withinGroup = (within: readonly number[] | null): GroupCondition =>
  within
    ? {
        head: 'with within as (select unnest(:within::int[]) as id)',
        values: { within },
        holds: (column: string) => `${column} in (select id from within)`,
        gave: (column: string) =>
          `exists (select 1 from response g where g.id = ${column}
             and g.respondent_id in (select id from within))`,
      }
    : { head: '', values: {}, holds: () => 'true', gave: () => 'true' };

/** Where lines of a response `r` were cut by hand, as JSON. */
export const cutsAsJson = `coalesce((
   select jsonb_agg(jsonb_build_object('responseId', c.response_id, 'at', c.at, 'joined', c.joined)
     order by c.at)
   from line_cut c where c.response_id = r.id), '[]')`;
