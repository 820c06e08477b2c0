import { Download, Maximize, ZoomIn, ZoomOut } from 'lucide-react';
import { useRef } from 'react';
import type { WordNetwork } from '@yellow-thread/contract';
import { fileNameOf } from '@yellow-thread/core/exchange';
import { networkFileAddress, useWordNetwork } from '../data/look.js';
import { useAddress } from '../frame/address.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { Menu, MenuFile, MenuItem, MenuTitle } from '../parts/menu.js';
import { EmptyState, PageProblem, Waiting } from '../parts/notices.js';
import { download } from '../lib/download.js';
import { networkAsPng, networkAsSvg } from './networkFiles.js';
import type { NetworkLayout } from './networkLayout.js';
import { NetworkPicture } from './networkPicture.js';
import { StruckWords } from './struckWords.js';
import { networkViewTexts } from './texts.js';
import { GapList, LinkTable, TopicTable } from './topicTables.js';
import { useHitsOf } from './useHitsOf.js';
import { useNetworkLayout } from './useNetworkLayout.js';
import { useZoom } from './useZoom.js';

/** What has more values than this makes no columns. */
const MOST_COLUMNS = 12;

/** Words that stand in one line, as a picture and as tables that say the same. */
export function NetworkView() {
  const { study, question } = useStudyLocation();
  const [address, changeAddress] = useAddress();
  const hidden = address.getAll('hidden');
  const by = address.get('by') ?? '';
  const query = new URLSearchParams([
    ...hidden.map((word) => ['hidden', word]),
    ...(by === '' ? [] : [['by', by]]),
  ]).toString();
  const network = useWordNetwork(study.id, question.id, query);
  const layout = useNetworkLayout(network.data);
  const change = (to: (next: URLSearchParams) => void) =>
    changeAddress((next) => {
      to(next);
      return next;
    });
  const hide = (word: string) => change((next) => next.append('hidden', word));
  const bringBack = (word: string) => change((next) => next.delete('hidden', word));
  const chooseBy = (id: string) =>
    change((next) => (id === '' ? next.delete('by') : next.set('by', id)));
  if (network.isError) return <PageProblem error={network.error} />;
  if (!network.data) return <Waiting what={networkViewTexts.network} />;
  const { links, lines, words } = network.data;
  const alone = words.filter(({ topic }) => topic === null);
  return (
    <div className="flex flex-col gap-6 px-6 py-5 max-sm:px-4">
      <StruckWords label={networkViewTexts.hidden} words={hidden} onBringBack={bringBack} />
      {links.length === 0 ? (
        <EmptyState title={networkViewTexts.noCompany}>
          <p>{networkViewTexts.noCompanyWhy}</p>
        </EmptyState>
      ) : (
        <>
          {layout ? (
            <Pictured
              key={query}
              network={network.data}
              layout={layout}
              query={query}
              onHide={hide}
            />
          ) : (
            <div className="h-[clamp(480px,72vh,900px)]">
              <Waiting what={networkViewTexts.network} />
            </div>
          )}
          <p className="max-w-prose text-[13px] text-soft">
            {networkViewTexts.about(links.length, lines)} {networkViewTexts.keys}
          </p>
          <span>
            <Choice
              label={networkViewTexts.by}
              value={by}
              onChange={({ target }) => chooseBy(target.value)}
            >
              <option value="">{networkViewTexts.nothing}</option>
              {study.variables
                .filter(({ values }) => values <= MOST_COLUMNS)
                .map((variable) => (
                  <option key={variable.id} value={variable.id}>
                    {variable.name}
                  </option>
                ))}
            </Choice>
          </span>
          <TopicTable network={network.data} />
          <GapList network={network.data} />
          <LinkTable network={network.data} />
        </>
      )}
      {alone.length > 0 && (
        <section>
          <h2>{networkViewTexts.alone(alone.length)}</h2>
          <p className="mt-1 font-serif text-[16px]">{alone.map(({ word }) => word).join(', ')}</p>
        </section>
      )}
    </div>
  );
}

function Pictured({
  network,
  layout,
  query,
  onHide,
}: {
  network: WordNetwork;
  layout: NetworkLayout;
  query: string;
  onHide: (word: string) => void;
}) {
  const { study, question } = useStudyLocation();
  const drawing = useRef<SVGSVGElement>(null);
  const zoom = useZoom(drawing, layout);
  const openHits = useHitsOf();
  const keep = async (format: 'png' | 'svg') => {
    const svg = networkAsSvg(drawing.current!, layout);
    const blob = format === 'svg' ? await svg : await networkAsPng(await svg, layout);
    const today = new Date().toISOString().slice(0, 10);
    download(blob, fileNameOf([study.name, 'words-together', question.label], today, format));
  };
  return (
    <section aria-label={networkViewTexts.picture}>
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="mr-auto">{networkViewTexts.picture}</h2>
        <Button look="plain" onClick={() => zoom.by(0.8)} aria-label={networkViewTexts.further}>
          <ZoomOut size={15} aria-hidden />
        </Button>
        <Button look="plain" onClick={() => zoom.by(1.25)} aria-label={networkViewTexts.closer}>
          <ZoomIn size={15} aria-hidden />
        </Button>
        <Button look="plain" onClick={zoom.whole} disabled={zoom.isWhole}>
          <Maximize size={15} aria-hidden /> {networkViewTexts.whole}
        </Button>
        <Menu
          name={
            <>
              <Download size={15} aria-hidden /> {networkViewTexts.files}
            </>
          }
        >
          <MenuTitle>{networkViewTexts.allFiles}</MenuTitle>
          <MenuItem
            name={networkViewTexts.png}
            about={networkViewTexts.forDocuments}
            onSelect={() => void keep('png')}
          />
          <MenuItem
            name={networkViewTexts.svg}
            about={networkViewTexts.forDrawing}
            onSelect={() => void keep('svg')}
          />
          {(
            [
              ['words.csv', networkViewTexts.wordsCsv, networkViewTexts.forSpreadsheets],
              ['links.csv', networkViewTexts.linksCsv, networkViewTexts.forSpreadsheets],
              ['topics.csv', networkViewTexts.topicsCsv, networkViewTexts.forSpreadsheets],
              ['graphml', networkViewTexts.graphml, networkViewTexts.forNetworks],
            ] as const
          ).map(([format, name, about]) => (
            <MenuFile
              key={format}
              name={name}
              about={about}
              address={networkFileAddress(study.id, question.id, format, query)}
              isPage={false}
            />
          ))}
        </Menu>
      </div>
      <div
        className="mt-2 max-h-[max(480px,72vh)] w-full overflow-hidden rounded border border-rule"
        style={{ aspectRatio: `${layout.width} / ${layout.height}` }}
      >
        <NetworkPicture
          network={network}
          layout={layout}
          drawing={drawing}
          zoom={zoom}
          onHide={onHide}
          onOpen={(word) => openHits({ title: word, words: word, match: 'stem' })}
          onOpenLink={(one, other) =>
            openHits({ title: `${one} · ${other}`, words: `${one} ${other}`, match: 'line' })
          }
        />
      </div>
    </section>
  );
}
