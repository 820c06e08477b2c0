import type { DrawnMap, MapRelation, StudyDetail } from '@yellow-thread/contract';
import { useState } from 'react';
import type { MapEdit } from '../data/codeMaps.js';
import { Button } from '../parts/button.js';
import { Choice, TextField } from '../parts/field.js';
import type { DrawnNode } from './drawnNodes.js';
import { Pins } from './pins.js';
import { RelationName } from './relationName.js';
import { relationPanelTexts as texts } from './texts.js';

/** One relation: what it is called, which way it goes, why, and what people said of it. */
export function RelationPanel({
  study,
  map,
  relation,
  ends: [one, other],
  onEdit,
  onRemove,
}: {
  study: StudyDetail;
  map: DrawnMap;
  relation: MapRelation;
  ends: [DrawnNode, DrawnNode];
  onEdit: (edit: MapEdit) => void;
  onRemove: (id: string) => void;
}) {
  // what is being written; null while one does not write, and what is stored is shown
  const [label, setLabel] = useState<string | null>(null);
  const [note, setNote] = useState<string | null>(null);
  const save = (to: Partial<MapRelation>) => {
    const changed = { ...relation, ...to };
    if (JSON.stringify(changed) !== JSON.stringify(relation)) onEdit({ relations: [changed] });
  };
  const way = relation.directed ? 'forth' : 'both';
  return (
    <div className="flex flex-col gap-4">
      <h2>
        <span style={{ color: one.look.ink }}>{one.name}</span>{' '}
        <span className="text-soft">{relation.directed ? '→' : '—'}</span>{' '}
        <span style={{ color: other.look.ink }}>{other.name}</span>
      </h2>
      <div className="flex flex-wrap items-end gap-2">
        <RelationName
          label={texts.label}
          value={label ?? relation.label}
          onChange={setLabel}
          onBlur={() => {
            if (label !== null) save({ label: label.trim() });
            setLabel(null);
          }}
        />
        <Choice
          label={texts.direction}
          value={way}
          onChange={({ target }) => {
            if (target.value === 'back')
              save({ directed: true, fromNode: other.id, toNode: one.id });
            else save({ directed: target.value === 'forth' });
          }}
        >
          <option value="forth">{texts.directed(one.name, other.name)}</option>
          <option value="back">{texts.directed(other.name, one.name)}</option>
          <option value="both">{texts.undirected}</option>
        </Choice>
      </div>
      <TextField
        label={texts.note}
        placeholder={texts.notePlaceholder}
        rows={3}
        maxLength={4000}
        value={note ?? relation.note}
        onChange={({ target }) => setNote(target.value)}
        onBlur={() => {
          if (note !== null) save({ note });
          setNote(null);
        }}
      />
      <Button className="self-start" onClick={() => onRemove(relation.id)}>
        {texts.remove}
      </Button>
      <Pins
        study={study}
        mapId={map.id}
        on={{ relationId: relation.id }}
        of={[one, other]}
        pins={map.pins.filter(({ relationId }) => relationId === relation.id)}
        onEdit={onEdit}
      />
    </div>
  );
}
