/** codeMaps/changeMap.ts */
export const changeMapTexts = {
  newMap: (map: string) => `the new map “${map}”`,
  renaming: (map: string) => `the renaming of the map “${map}”`,
  removal: (map: string) => `the removal of the map “${map}”`,
  moving: (map: string) => `moving codes on the map “${map}”`,
  nodes: (map: string) => `which codes are on the map “${map}”`,
  relations: (map: string) => `a relation on the map “${map}”`,
  pins: (map: string) => `an answer pinned to the map “${map}”`,
};

/** codeMaps/mapFile.ts */
export const mapFileTexts = {
  from: 'from',
  relation: 'relation',
  to: 'to',
  direction: 'direction',
  directed: 'from → to',
  undirected: 'both ways',
  note: 'note',
  answers: 'pinned answers',
};
