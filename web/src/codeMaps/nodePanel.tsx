import type { DrawnMap, StudyDetail } from '@yellow-thread/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import type { MapEdit } from '../data/codeMaps.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { StitchMark } from '../parts/stitch.js';
import type { DrawnNode } from './drawnNodes.js';
import { Pins } from './pins.js';
import { RelationList } from './relationList.js';
import { RelationName } from './relationName.js';
import { newRelation } from './relations.js';
import { nodePanelTexts as texts, OFFERED_RELATIONS } from './texts.js';

interface NodePanelProps {
  study: StudyDetail;
  map: DrawnMap;
  node: DrawnNode;
  nodes: readonly DrawnNode[];
  onEdit: (edit: MapEdit) => void;
  onChoose: (id: string | null) => void;
  onRemove: (id: string) => void;
}

/** One code or theme of the map: how it is related, and what is pinned to it. */
export function NodePanel({ study, map, node, nodes, onEdit, onChoose, onRemove }: NodePanelProps) {
  const its = map.relations.filter(
    ({ fromNode, toNode }) => fromNode === node.id || toNode === node.id,
  );
  return (
    <div className="flex flex-col gap-4">
      <header>
        <h2 className="flex items-center gap-2" style={{ color: node.look.ink }}>
          <StitchMark look={node.look} /> {node.name}
        </h2>
        <p className="figures text-[13px] text-soft">{node.about}</p>
        <p className="mt-1 flex items-center gap-4 text-[13px]">
          <Link
            to={`/studies/${study.id}/codebook${node.node.codeId ? `?code=${node.node.codeId}` : ''}`}
            className="inline-flex min-h-6 items-center underline"
          >
            {texts.toCodebook}
          </Link>
          <button type="button" className="min-h-6 underline" onClick={() => onRemove(node.id)}>
            {texts.takeOff}
          </button>
        </p>
      </header>
      <section aria-label={texts.its}>
        <h3 className="border-b border-rule pb-1 font-semibold">{texts.its}</h3>
        {its.length === 0 && <p className="mt-1 text-[13px] text-soft">{texts.none}</p>}
        <RelationList relations={its} nodes={nodes} onChoose={onChoose} />
        <Relate map={map} node={node} nodes={nodes} onEdit={onEdit} />
      </section>
      <Pins
        study={study}
        mapId={map.id}
        on={{ nodeId: node.id }}
        of={[node]}
        pins={map.pins.filter(({ nodeId }) => nodeId === node.id)}
        onEdit={onEdit}
      />
    </div>
  );
}

/** Joins the node to another without a mouse. */
function Relate({
  map,
  node,
  nodes,
  onEdit,
}: Pick<NodePanelProps, 'map' | 'node' | 'nodes' | 'onEdit'>) {
  const [to, setTo] = useState('');
  const [label, setLabel] = useState<string>(OFFERED_RELATIONS[0]);
  const others = nodes.filter(({ id }) => id !== node.id);
  if (others.length === 0) return null;
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (to === '') return;
        onEdit({ relations: [newRelation(map.id, node.id, to, label.trim())] });
        setTo('');
      }}
    >
      <RelationName label={texts.relation} value={label} onChange={setLabel} />
      <Choice label={texts.relate} value={to} onChange={({ target }) => setTo(target.value)}>
        <option value="" />
        {others
          .toSorted((x, y) => x.name.localeCompare(y.name))
          .map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
      </Choice>
      <Button type="submit" disabled={to === ''}>
        {texts.add}
      </Button>
    </form>
  );
}
