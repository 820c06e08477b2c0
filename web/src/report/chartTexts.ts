/** report/chartConfig.ts */
export const chartConfigTexts = {
  barsIntervals: 'bars with intervals',
  sharesAllMentionsStacked: 'shares of all mentions, stacked',
  slopeBetweenTwoColumns: 'slope between two columns',
  differencesTwoColumns: 'differences of two columns',
  map: 'map of rows and columns',
  heatGrid: 'heat grid',
  difference: 'difference',
  percentagePoints: 'percentage points',
};

/** report/chartView.tsx */
export const chartViewTexts = {
  chart: 'Chart',
  ofThe: 'of the',
  n10MostMentioned: '10 most mentioned',
  n20MostMentioned: '20 most mentioned',
  wholeTable: 'whole table',
  figures: 'the figures',
  nothingDrawYet: 'Nothing to draw yet',
  codeSettleSomeAnswers: 'Code and settle some answers, then their figures can be drawn here.',
  takesThreeColumns: 'A map takes three columns',
  mapNeedsColumns: 'Choose a variable of three values or more under “Across”.',
  takesTwoColumns: 'This needs two columns',
  putGroupsWavesBackground:
    'Put groups, waves or a background variable across, and choose two columns at “Difference: … minus …” under “More choices”.',
  rowsLeastMany: '* at least this many',
  intervals: (round: number) => `${round}% intervals`,
  rows: (chartKinds: string, rows: number, columns: string) =>
    `${chartKinds}: ${rows} rows, ${columns}`,
  png: 'PNG',
  svg: 'SVG',
  copy: 'Copy',
  chart2: 'This chart',
  shareAllWhoAnswered: (answered: number, value: number) =>
    `share of all ${answered} who answered, from ${value} read`,
  percent: (baseWords: string) => `percent of ${baseWords}`,
  of: (value: string, value2: number, answered: number) => `${value}, ${value2} of ${answered}`,
  copiedPicture: 'Copied the picture.',
  browserLetPageCopy: 'The browser does not let this page copy pictures: save it as PNG.',
};

/** report/chartFigures.ts */
export const chartFiguresTexts = {
  row: 'Theme or code',
  difference: 'Difference',
  low: 'from',
  high: 'to',
  from: (column: string) => `${column}: from`,
  to: (column: string) => `${column}: to`,
};

/** report/correspondenceMap.ts */
export const correspondenceMapTexts = {
  points: 'points',
  column: (name: string, people: string) => `${name} (${people})`,
  axis: (axis: number, share: string) => `Axis ${axis}: ${share} of what differs (inertia)`,
  about:
    'Correspondence analysis (Greenacre 1984): points that stand out in the same direction go together. ° badly shown by these two axes.',
};

/** report/heatGrid.ts */
export const heatGridTexts = {
  share: 'share',
};
