import { fileNameOf } from '@yellow-thread/core/exchange';
import { Download } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { DrawnMap, MapNode, StudyDetail } from '@yellow-thread/contract';
import { useDrawnCodebook, type DrawnCodebook } from '../data/codebook.js';
import {
  mapFileAddress,
  useChangeCodeMap,
  useCodeMap,
  usePutCodeMap,
  useRemoveCodeMap,
  type MapEdit,
} from '../data/codeMaps.js';
import { useTogether } from '../data/report.js';
import { useAddressPart } from '../frame/address.js';
import { useCommands } from '../frame/commands.js';
import { SaveStatus } from '../frame/saveStatus.js';
import { useStudyDetail } from '../frame/studyLocation.js';
import { download } from '../lib/download.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { Menu, MenuFile, MenuItem, MenuRule } from '../parts/menu.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { wholeCodebook } from './arrange.js';
import { mapCommands, mapHelp } from './commands.js';
import { drawnNodes, sizeOf, type DrawnNode } from './drawnNodes.js';
import { freePlace } from './geometry.js';
import { MapCanvas } from './mapCanvas.js';
import { mapAsPng, mapAsSvg } from './mapDrawing.js';
import { MapPanel } from './mapPanel.js';
import { proposalsOf } from './proposals.js';
import { newRelation } from './relations.js';
import { OFFERED_RELATIONS, openMapTexts as texts } from './texts.js';

/** A map with what stands on it, and what is chosen of it at the right. */
export function OpenMap({ id }: { id: string }) {
  const study = useStudyDetail();
  const map = useCodeMap(study.id, id);
  const codebook = useDrawnCodebook(study.id);
  if (map.isError) return <PageProblem error={map.error} />;
  if (!map.data || !codebook) return <Waiting what={texts.map} />;
  return <MapEditor study={study} map={map.data} codebook={codebook} />;
}

interface EditorProps {
  study: StudyDetail;
  map: DrawnMap;
  codebook: DrawnCodebook;
}

function MapEditor({ study, map, codebook }: EditorProps) {
  const { mutate: edit } = useChangeCodeMap(study.id, map.id);
  const [chosen, choose] = useAddressPart('at');
  const [question, setQuestion] = useState(study.questions[0]?.id ?? 0);
  const together = useTogether(study.id, question, 'answer');
  const nodes = useMemo(() => drawnNodes(map, codebook), [map, codebook]);
  const proposals = useMemo(
    () => (together.data ? proposalsOf(together.data, nodes, map.relations) : []),
    [together.data, nodes, map.relations],
  );
  const connect = (from: string, to: string) => {
    if (from === to) return;
    const relation = newRelation(map.id, from, to, OFFERED_RELATIONS[0]);
    edit({ relations: [relation] });
    choose(relation.id);
  };
  const remove = (id: string) => {
    edit({ removed: [id] });
    if (id === chosen) choose(null);
  };
  const has = (id: string) => [...map.nodes, ...map.relations].some((one) => one.id === id);
  useCommands(mapCommands, { has, chosen, remove }, mapHelp);
  return (
    <main className="work-list grid grid-rows-[auto_minmax(0,1fr)]">
      <MapHead study={study} map={map} codebook={codebook} nodes={nodes} onEdit={edit} />
      <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_340px] max-[900px]:grid-cols-1 max-[900px]:grid-rows-[480px_auto]">
        {nodes.length === 0 ? (
          <div className="flex max-w-lg flex-col items-start gap-3 px-6 py-10">
            <h2>{texts.empty}</h2>
            <p className="text-soft">{texts.emptyWhy}</p>
            <Button look="main" onClick={() => edit({ nodes: wholeCodebook(map.id, codebook) })}>
              {texts.putAll}
            </Button>
          </div>
        ) : (
          <MapCanvas
            key={map.id}
            nodes={nodes}
            relations={map.relations}
            proposals={proposals}
            chosen={chosen}
            onChoose={choose}
            onMove={(places) =>
              edit({
                nodes: map.nodes.flatMap((node) => {
                  const place = places.get(node.id);
                  return place ? [{ ...node, ...place }] : [];
                }),
              })
            }
            onConnect={connect}
          />
        )}
        <MapPanel
          {...{ study, map, nodes, proposals, question, chosen }}
          onQuestion={setQuestion}
          onChoose={choose}
          onEdit={edit}
          onRemove={remove}
        />
      </div>
    </main>
  );
}

function MapHead({
  study,
  map,
  codebook,
  nodes,
  onEdit,
}: EditorProps & { nodes: readonly DrawnNode[]; onEdit: (edit: MapEdit) => void }) {
  const navigate = useNavigate();
  const put = usePutCodeMap(study.id);
  const remove = useRemoveCodeMap(study.id);
  const keep = async (format: 'png' | 'svg') => {
    const drawing = await mapAsSvg(nodes, map.relations, map.name);
    const today = new Date().toISOString().slice(0, 10);
    download(
      format === 'svg' ? drawing.svg : await mapAsPng(drawing),
      fileNameOf([study.name, map.name], today, format),
    );
  };
  return (
    <header className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-rule px-6 py-3 max-sm:px-3">
      <Link to={`/studies/${study.id}/maps`} className="text-[13px] underline">
        {texts.allMaps}
      </Link>
      <h1 className="sr-only">{map.name}</h1>
      <input
        key={map.name}
        aria-label={texts.name}
        defaultValue={map.name}
        maxLength={120}
        className="mr-auto min-w-0 flex-1 rounded border border-transparent bg-transparent px-1 text-[18px] font-semibold hover:border-rule"
        onBlur={({ target }) => {
          const name = target.value.trim();
          if (name === '') target.value = map.name;
          else if (name !== map.name) put.mutate({ id: map.id, name });
        }}
        onKeyDown={({ key, currentTarget }) => {
          if (key === 'Enter') currentTarget.blur();
        }}
      />
      <SaveStatus />
      <AddNode map={map} codebook={codebook} nodes={nodes} onEdit={onEdit} />
      <Menu
        name={
          <>
            <Download size={15} aria-hidden /> {texts.files}
          </>
        }
      >
        <MenuItem name={texts.png} about={texts.forDocuments} onSelect={() => void keep('png')} />
        <MenuItem name={texts.svg} about={texts.forDrawing} onSelect={() => void keep('svg')} />
        <MenuFile
          name={texts.graphml}
          about={texts.forNetworks}
          address={mapFileAddress(study.id, map.id, 'graphml')}
          isPage={false}
        />
        <MenuFile
          name={texts.csv}
          about={texts.forSpreadsheets}
          address={mapFileAddress(study.id, map.id, 'csv')}
          isPage={false}
        />
        <MenuRule />
        <MenuItem
          name={texts.remove}
          onSelect={() =>
            remove.mutate(map.id, {
              onSuccess: () => {
                toast(texts.removed);
                void navigate(`/studies/${study.id}/maps`);
              },
            })
          }
        />
      </Menu>
    </header>
  );
}

/** Puts a code or theme that is not on the map yet where there is room. */
function AddNode({
  map,
  codebook,
  nodes,
  onEdit,
}: Omit<EditorProps, 'study'> & {
  nodes: readonly DrawnNode[];
  onEdit: (edit: MapEdit) => void;
}) {
  const stands = new Set(map.nodes.map(({ codeId, themeId }) => codeId ?? themeId));
  const codes = codebook.codes.filter(({ id, archived }) => !archived && !stands.has(id));
  const themes = codebook.themes.filter(({ id }) => !stands.has(id));
  if (codes.length + themes.length === 0) return null;
  const add = (of: Pick<MapNode, 'codeId' | 'themeId'>, name: string) => {
    const place = freePlace({ x: nodes[0]?.x ?? 0, y: nodes[0]?.y ?? 0, ...sizeOf(name) }, nodes);
    onEdit({ nodes: [{ id: crypto.randomUUID(), mapId: map.id, ...of, ...place }] });
  };
  return (
    <Choice
      label={texts.codes}
      hideLabel
      value=""
      onChange={({ target }) => {
        const code = codes.find(({ id }) => id === target.value);
        const theme = themes.find(({ id }) => id === target.value);
        if (code) add({ codeId: code.id, themeId: null }, code.name);
        else if (theme) add({ codeId: null, themeId: theme.id }, theme.name);
      }}
    >
      <option value="">{texts.addCode}</option>
      {themes.map(({ id, name }) => (
        <option key={id} value={id}>
          {texts.addTheme(name)}
        </option>
      ))}
      {codes.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </Choice>
  );
}
