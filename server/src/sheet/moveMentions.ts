import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';

/**
 * Passages of texts that an import corrected are put where their words now stand; where the words are gone
 * the mention or note rests on the whole answer. Where lines were split or joined by hand is forgotten.
 */
export async function moveMentions(em: EntityManager, importId: number): Promise<void> {
  for (const table of ['mention', 'note']) await movePassages(em, importId, table);
  await rows(
    em,
    `delete from line_cut c using import_before_response b
     where b.import_id = :importId and b.response_id = c.response_id and b.text is not null`,
    { importId },
  );
}

async function movePassages(em: EntityManager, importId: number, table: string): Promise<void> {
  const passages = await rows<{ id: string; start: number; end: number; old: string; now: string }>(
    em,
    `select m.id, m.start, m."end", b.text as old, r.text as now
     from import_before_response b join response r on r.id = b.response_id
     join ${table} m on m.response_id = r.id
     where b.import_id = :importId and m.start is not null`,
    { importId },
  );
  const moved = passages.flatMap(({ id, start, end, old, now }) => {
    const words = old.slice(start, end);
    if (now.slice(start, end) === words) return [];
    const at = now.indexOf(words);
    return [at < 0 ? { id, start: null, end: null } : { id, start: at, end: at + words.length }];
  });
  if (moved.length === 0) return;
  await rows(
    em,
    `update ${table} m set start = p.start, "end" = p."end"
     from jsonb_to_recordset(:moved::jsonb) as p (id uuid, start int, "end" int) where m.id = p.id`,
    { moved: JSON.stringify(moved) },
  );
}
