import type { EntityManager } from '@mikro-orm/postgresql';
import { keepBefore, rows } from '../database/index.js';

/** What an import of details or corrections overwrote, and what was written since on top of what returns. */
const OVERWRITTEN = {
  respondent: 'select respondent_id from import_before where import_id = :importId',
  response:
    'select response_id from import_before_response where import_id = :importId and text is not null',
};

/** Keeps what an import of details or corrections brought, before what it overwrote returns. */
export async function keepImportedValues(em: EntityManager, importId: number): Promise<void> {
  for (const [table, which] of Object.entries(OVERWRITTEN))
    await keepBefore(em, importId, { table, where: `t.id in (${which})`, values: { importId } });
  for (const table of ['mention', 'note'])
    await keepBefore(em, importId, {
      table,
      where: `t.start is not null and t.response_id in (${OVERWRITTEN.response})`,
      values: { importId },
    });
}

/** Puts what an import of details or corrections brought back in place, but for what was changed since. */
export async function writeImportedValues(em: EntityManager, importId: number): Promise<void> {
  await rows(
    em,
    `update respondent r set background = b.row->'background', weight = (b.row->>'weight')::float8
     from bin_row b join import_before f on f.import_id = b.import_id
       and f.respondent_id = (b.row->>'id')::int
     where b.import_id = :importId and b.what = 'overwritten' and b."table" = 'respondent'
       and r.id = f.respondent_id and r.background = f.background
       and r.weight is not distinct from f.weight`,
    { importId },
  );
  await rows(
    em,
    `update response r set text = b.row->>'text', no_answer = (b.row->>'no_answer')::boolean,
       same = (b.row->>'same')::bigint, changed_at = (b.row->>'changed_at')::timestamptz
     from bin_row b join import_before_response f on f.import_id = b.import_id
       and f.response_id = (b.row->>'id')::int
     where b.import_id = :importId and b.what = 'overwritten' and b."table" = 'response'
       and r.id = f.response_id and r.text = f.text`,
    { importId },
  );
  for (const table of ['mention', 'note'])
    await rows(
      em,
      `update ${table} m set start = (b.row->>'start')::int, "end" = (b.row->>'end')::int
       from bin_row b, response r
       where b.import_id = :importId and b.what = 'overwritten' and b."table" = '${table}'
         and m.id = (b.row->>'id')::uuid and m.start is null
         and r.id = m.response_id and (b.row->>'end')::int <= length(r.text)`,
      { importId },
    );
}
