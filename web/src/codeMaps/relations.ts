import type { MapRelation } from '@yellow-thread/contract';

/** A relation that is not on the map yet. */
export const newRelation = (
  mapId: string,
  fromNode: string,
  toNode: string,
  label: string,
  directed = true,
): MapRelation => ({ id: crypto.randomUUID(), mapId, fromNode, toNode, label, directed, note: '' });
