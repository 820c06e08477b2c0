import { defineEntity, p } from '@mikro-orm/core';

export const CodeMapEntity = defineEntity({
  name: 'CodeMap',
  tableName: 'code_map',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    name: p.text(),
    position: p.integer(),
  },
});

export const MapNodeEntity = defineEntity({
  name: 'MapNode',
  tableName: 'map_node',
  properties: {
    id: p.uuid().primary(),
    mapId: p.uuid(),
    codeId: p.uuid().nullable(),
    themeId: p.uuid().nullable(),
    x: p.integer(),
    y: p.integer(),
  },
});

export const MapRelationEntity = defineEntity({
  name: 'MapRelation',
  tableName: 'map_relation',
  properties: {
    id: p.uuid().primary(),
    mapId: p.uuid(),
    fromNode: p.uuid(),
    toNode: p.uuid(),
    label: p.text(),
    directed: p.boolean(),
    note: p.text(),
  },
});

export const MapPinEntity = defineEntity({
  name: 'MapPin',
  tableName: 'map_pin',
  properties: {
    id: p.uuid().primary(),
    mapId: p.uuid(),
    nodeId: p.uuid().nullable(),
    relationId: p.uuid().nullable(),
    responseId: p.integer(),
    start: p.integer().nullable(),
    end: p.integer().nullable(),
  },
});
