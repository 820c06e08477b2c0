import type { DrawnMap, StudyDetail } from '@yellow-thread/contract';
import type { MapEdit } from '../data/codeMaps.js';
import { asShare } from '../lib/numbers.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import type { DrawnNode } from './drawnNodes.js';
import { NodePanel } from './nodePanel.js';
import type { Proposal } from './proposals.js';
import { RelationList } from './relationList.js';
import { RelationPanel } from './relationPanel.js';
import { newRelation } from './relations.js';
import { mapPanelTexts as texts, meets } from './texts.js';

interface MapPanelProps {
  study: StudyDetail;
  map: DrawnMap;
  nodes: readonly DrawnNode[];
  proposals: readonly Proposal[];
  question: number;
  onQuestion: (id: number) => void;
  chosen: string | null;
  onChoose: (id: string | null) => void;
  onEdit: (edit: MapEdit) => void;
  onRemove: (id: string) => void;
}

/** Beside the map: what is chosen, or all relations and what might be one. */
export function MapPanel(props: MapPanelProps) {
  const { chosen, onChoose } = props;
  return (
    <aside
      aria-label={texts.panel}
      className="flex min-h-0 flex-col gap-4 overflow-y-auto border-l border-rule bg-card px-5 py-4"
    >
      {chosen !== null && (
        <button
          type="button"
          className="min-h-6 self-start text-[13px] underline"
          onClick={() => onChoose(null)}
        >
          {texts.back}
        </button>
      )}
      <Chosen {...props} />
    </aside>
  );
}

function Chosen(props: MapPanelProps) {
  const { study, map, nodes, proposals, chosen, onChoose, onEdit, onRemove } = props;
  const node = nodes.find(({ id }) => id === chosen);
  if (node)
    return <NodePanel key={node.id} {...{ study, map, node, nodes, onEdit, onChoose, onRemove }} />;
  const relation = map.relations.find(({ id }) => id === chosen);
  const one = nodes.find(({ id }) => id === relation?.fromNode);
  const other = nodes.find(({ id }) => id === relation?.toNode);
  if (relation && one && other)
    return (
      <RelationPanel
        key={relation.id}
        {...{ study, map, relation, ends: [one, other], onEdit, onRemove }}
      />
    );
  const proposal = proposals.find(({ id }) => id === chosen);
  if (proposal) return <Proposals {...props} proposals={[proposal]} />;
  return (
    <>
      <section aria-label={texts.relations}>
        <h2 className="border-b border-rule pb-1">{texts.relations}</h2>
        {map.relations.length === 0 && (
          <p className="mt-1 text-[13px] text-soft">{texts.noRelations}</p>
        )}
        <RelationList relations={map.relations} nodes={nodes} onChoose={onChoose} />
      </section>
      <Proposals {...props} />
    </>
  );
}

function Proposals({
  study,
  map,
  proposals,
  question,
  onQuestion,
  onChoose,
  onEdit,
}: MapPanelProps) {
  return (
    <section aria-label={texts.proposals}>
      <h2 className="border-b border-rule pb-1">{texts.proposals}</h2>
      <p className="mt-1 text-[13px] text-soft">{texts.proposalsWhy}</p>
      {study.questions.length > 1 && (
        <div className="mt-2">
          <Choice
            label={texts.proposalsFrom}
            value={question}
            onChange={({ target }) => onQuestion(Number(target.value))}
          >
            {study.questions.map(({ id, label }) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </Choice>
        </div>
      )}
      {proposals.length === 0 && <p className="mt-2 text-[13px]">{texts.noProposals}</p>}
      <ul>
        {proposals.map(({ id, one, other, both, jaccard, phi }) => (
          <li key={id} className="flex items-start gap-2 border-b border-rule py-1.5">
            <span className="min-w-0 flex-1">
              <span style={{ color: one.look.ink }}>{one.name}</span>
              <span className="text-soft"> + </span>
              <span style={{ color: other.look.ink }}>{other.name}</span>
              <span className="figures block text-[12px] text-soft">
                {texts.both(both, asShare(jaccard), asShare(phi))}
              </span>
            </span>
            <Button
              className="!px-2 !py-0.5"
              aria-label={texts.adoptPair(one.name, other.name)}
              onClick={() => {
                const relation = newRelation(map.id, one.id, other.id, meets, false);
                onEdit({ relations: [relation] });
                onChoose(relation.id);
              }}
            >
              {texts.adopt}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
