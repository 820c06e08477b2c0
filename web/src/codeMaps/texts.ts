import { asCount, counted } from '../lib/numbers.js';

const people = (count: number) => counted(count, 'person', 'people');

/** codeMaps/codeMapsPage.tsx */
export const codeMapsPageTexts = {
  maps: 'Maps of codes',
  theMaps: 'the maps',
  about:
    'Lay codes and themes out on a map and join them: what leads to what, what is part of what, what contradicts what. A map is yours to draw; it changes no code and no figure.',
  codebook: 'Codebook',
  nodeCounted: (nodes: number) => counted(nodes, 'code or theme', 'codes and themes'),
  nameNew: 'Name of a new map',
  newName: 'a new map',
  add: 'Add map',
};

/** codeMaps/openMap.tsx */
export const openMapTexts = {
  map: 'the map',
  name: 'Name of the map',
  codes: 'Add a code',
  addCode: 'add a code or theme …',
  files: 'Save as',
  png: 'Picture (PNG)',
  svg: 'Drawing (SVG)',
  graphml: 'Graph (GraphML)',
  csv: 'Relations (CSV)',
  forDocuments: 'for documents',
  forDrawing: 'for drawing programs',
  forNetworks: 'for network programs',
  forSpreadsheets: 'for spreadsheets',
  remove: 'Remove the map',
  removed: 'The map is removed. Ctrl+Z brings it back.',
  allMaps: 'All maps',
  empty: 'Nothing is on this map yet',
  emptyWhy:
    'Put the whole codebook on it, each theme with its codes beneath, and remove what you do not need; or add codes one by one.',
  putAll: 'Put all themes and codes on it',
  addTheme: (theme: string) => `Theme: ${theme}`,
};

/** codeMaps/mapCanvas.tsx */
export const mapCanvasTexts = {
  map: 'Map of codes',
  together: (both: number) => `${asCount(both)} together`,
  view: 'Part of the map that is shown',
  toChoose: 'Enter chooses it, the arrow keys move it, Delete removes it from the map.',
  closer: 'Closer',
  further: 'Further away',
  whole: 'Whole map',
};

/** codeMaps/mapNode.tsx */
export const mapNodeTexts = {
  code: (people_: number) => people(people_),
  theme: (people_: number) => `theme · ${people(people_)}`,
  pinned: (pins: number) => counted(pins, 'quote'),
};

/** codeMaps/mapPanel.tsx */
export const mapPanelTexts = {
  panel: 'What is on the map',
  relations: 'Relations',
  noRelations:
    'None yet. Drag from the edge of one code to another, or choose a code and relate it here.',
  back: 'All relations',
  proposals: 'Often mentioned together',
  proposalsFrom: 'In answers to',
  proposalsWhy:
    'Drawn as faint threads until you make one a relation. That two codes meet says nothing about why.',
  noProposals: 'No two codes on the map meet more often than by chance.',
  both: (both: number, jaccard: string, phi: string) =>
    `${asCount(both)} together, Jaccard ${jaccard}, phi ${phi}`,
  adopt: 'Relate',
  adoptPair: (one: string, other: string) => `Relate ${one} and ${other}`,
};

/** codeMaps/nodePanel.tsx */
export const nodePanelTexts = {
  takeOff: 'Remove from the map',
  toCodebook: 'In the codebook',
  relate: 'Relate to',
  relation: 'How',
  add: 'Add relation',
  its: 'Its relations',
  none: 'It stands alone.',
};

/** codeMaps/relationPanel.tsx */
export const relationPanelTexts = {
  label: 'Relation',
  direction: 'Direction',
  directed: (from: string, to: string) => `${from} → ${to}`,
  undirected: 'both ways',
  note: 'Note',
  notePlaceholder: 'what makes you think so …',
  remove: 'Remove the relation',
};

/** codeMaps/pins.tsx */
export const pinsTexts = {
  pinned: 'Pinned quotes',
  none: 'None yet.',
  unpin: 'Unpin',
  unpinQuote: (text: string) => `Unpin “${text.slice(0, 40)}”`,
  choose: 'Pin what people said',
  ofRelation: 'From answers that mention both',
  noneToPin: 'Nobody said anything to be pinned here.',
  pin: 'Pin',
  more: 'Show more',
  pinQuote: (text: string) => `Pin “${text.slice(0, 40)}”`,
};

/** The relations that are offered; any other words will do. */
export const OFFERED_RELATIONS = ['leads to', 'is part of', 'contradicts', 'goes with'] as const;
export const meets = 'goes with';

/** codeMaps/commands.ts */
export const mapCommandTexts = {
  node: 'another code, in the direction of the arrow (with Tab), or move the chosen one',
  choose: 'choose a code or relation',
  remove: 'remove the one in focus, or the chosen one, from the map',
  none: 'choose nothing',
};
