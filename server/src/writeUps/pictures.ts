import type { WriteUpContent } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, PictureEntity } from '../database/index.js';
import { problems } from '../wording/problems.js';

/** What every PNG begins with (W3C, Portable Network Graphics, § 5.2). */
const SIGNATURE = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);

/** Keeps a picture; one that comes twice is kept once. @throws Problem not_a_picture */
export async function keepPicture(
  em: EntityManager,
  studyId: number,
  id: string,
  base64: string,
): Promise<void> {
  const png = Buffer.from(base64, 'base64');
  if (!png.subarray(0, SIGNATURE.length).equals(SIGNATURE)) throw problems.notAPicture();
  await rows(
    em,
    'insert into picture (id, study_id, png) values (:id, :studyId, :png) on conflict (id) do nothing',
    { id, studyId, png },
  );
}

/** @throws Problem not_found */
export async function readPicture(em: EntityManager, studyId: number, id: string): Promise<Buffer> {
  const found = await em.findOne(PictureEntity, { studyId, id });
  if (!found) throw problems.notFound('picture');
  return found.png;
}

/** The pictures of a write-up by their ids; those that were never kept are left out. */
export async function readPictures(
  em: EntityManager,
  studyId: number,
  { pictures }: WriteUpContent,
): Promise<Map<string, Buffer>> {
  const ids = pictures.map(({ id }) => id);
  const found = await em.find(PictureEntity, { studyId, id: { $in: ids } });
  return new Map(found.map(({ id, png }) => [id, png]));
}

/** Deletes pictures that no write-up shows any more; those that were just kept may still be put into one. @param studyId null for all */
export const dropLoosePictures = (em: EntityManager, studyId: number | null = null) =>
  rows(
    em,
    `delete from picture p where p.study_id = coalesce(:studyId, p.study_id) and p.kept_at < now() - interval '1 day'
       and not exists (select 1 from write_up w where w.study_id = p.study_id
         and w.content->'pictures' @> jsonb_build_array(jsonb_build_object('id', p.id)))`,
    { studyId },
  );
