import type { Bundle, BundleCreate } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  asRecord,
  inChange,
  makeChange,
  row,
  BundleEntity,
  BundleCodeEntity,
} from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { refuseTakenName } from './codebook.js';
import { codesOf } from './records.js';
import { bundlesTexts } from '../wording/codebook.js';

/** Makes a bundle or changes what it is called and holds; a request that comes twice does so once. */
export async function putBundle(em: EntityManager, maker: Maker, wanted: BundleCreate) {
  await inChange(em, async (tx) => {
    const { studyId } = maker;
    await refuseTakenName(tx, { what: 'bundle', studyId, name: wanted.name, id: wanted.id });
    const codes = new Set((await codesOf(tx, studyId)).map((code) => code.id));
    if (wanted.codeIds.some((id) => !codes.has(id))) throw problems.notFound('code');
    const { position } = await row<{ position: number }>(
      tx,
      'select coalesce(max(position), 0) + 1 as position from bundle where study_id = :studyId',
      { studyId },
    );
    const stored = await findBundle(tx, studyId, wanted.id);
    const held = new Set(stored?.codeIds);
    const asRecord = (codeId: string) => ({ bundleId: wanted.id, codeId });
    const from = stored?.bundle;
    const to: Bundle = { ...(from ?? { id: wanted.id, studyId, position }), name: wanted.name };
    await makeChange(tx, {
      ...maker,
      summary: from ? bundlesTexts.bundle(from.name) : bundlesTexts.newBundle(to.name),
      diff: {
        bundle: {
          added: from ? [] : [to],
          updated: from && from.name !== to.name ? [{ from, to }] : [],
          removed: [],
        },
        bundle_code: {
          added: [...new Set(wanted.codeIds)].filter((id) => !held.has(id)).map(asRecord),
          updated: [],
          removed: [...held].filter((id) => !wanted.codeIds.includes(id)).map(asRecord),
        },
      },
    });
  });
}

export async function removeBundle(em: EntityManager, maker: Maker, id: string) {
  await inChange(em, async (tx) => {
    const stored = await findBundle(tx, maker.studyId, id);
    if (!stored) throw problems.notFound('bundle');
    await makeChange(tx, {
      ...maker,
      summary: bundlesTexts.removalBundle(stored.bundle.name),
      diff: {
        bundle: { added: [], updated: [], removed: [stored.bundle] },
        bundle_code: {
          added: [],
          updated: [],
          removed: stored.codeIds.map((codeId) => ({ bundleId: id, codeId })),
        },
      },
    });
  });
}

async function findBundle(em: EntityManager, studyId: number, id: string) {
  const bundle = await em.findOne(BundleEntity, { id, studyId });
  if (!bundle) return null;
  const codes = await em.find(BundleCodeEntity, { bundleId: id }, { orderBy: { codeId: 'asc' } });
  return { bundle: asRecord('bundle', bundle), codeIds: codes.map((code) => code.codeId) };
}
