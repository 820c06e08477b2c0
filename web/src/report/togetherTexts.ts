import { asCount, counted } from '../lib/numbers.js';

/** report/togetherView.tsx */
export const togetherViewTexts = {
  as: 'As',
  list: 'list of pairs',
  grid: 'grid',
  listAbout:
    '. The strongest pairs stand first, by phi; p is of the unweighted numbers, corrected for all pairs (Benjamini–Hochberg).',
  howManyBoth: 'how many have both',
  jaccardBothAmongEither: 'Jaccard: both among either',
  phiCorrelation11: 'phi: correlation, −1 to 1',
  liftTimesOftenChance: 'lift: times as often as by chance',
  codes: 'the codes',
  one: 'In one',
  answer: 'answer',
  lineSettledAnswer: 'line of a settled answer',
  shown: 'Shown',
  allCodes: (codes: number) => `all ${codes} codes`,
  files: 'Files',
  everyTwoCodesOccur: 'Every two codes that occur together',
  workbookXlsx: 'Workbook (XLSX)',
  csv: 'CSV',
  noTwoCodesYet: 'No two codes yet',
  whenSettledAnswersMention:
    'When settled answers mention at least two codes, this shows which go together.',
  oneLine: ', in one line',
  counts: (ruleNames: string) => `Counts ${ruleNames}`,
  line: ', by line',
  weighted: ', weighted',
  unweightedNumberShows: '; point at a cell for the unweighted number',
  darkerCellMoreStands:
    '. The darker a cell, the more it stands out among the others; the diagonal shows how many mention the code at all.',
  jaccard: 'Jaccard',
  n1901PhiYule1912: '(1901), phi (Yule 1912) and ',
  lift: 'lift',
  descriptionsTests: 'say how strongly, p how surely.',
  mentionCounted: (found: number) => counted(found, 'mention'),
  with: (code: string, other: string, text: string) => `${code} with ${other}: ${text}`,
  with2: (name: string, other: string, inOne: string, oneLine: string) =>
    `${name} with ${other}${inOne === 'line' ? oneLine : ''}`,
  of: (mentionCounted: string, n: number, weighted: boolean) =>
    `${mentionCounted} of ${asCount(n)}${weighted ? ', unweighted' : ''}`,
};

/** report/togetherList.tsx */
export const togetherListTexts = {
  pairs: 'Pairs of codes',
  pair: 'Codes',
  both: 'Both',
  bothTitle: 'How many have both, of those for whom both codes are decided',
  first: 'The first',
  second: 'The second',
  jaccard: 'Jaccard',
  phi: 'Phi',
  lift: 'Lift',
  p: 'p, corrected',
  none: 'No two codes occur together yet.',
  all: (pairs: number) => `All ${asCount(pairs)} pairs`,
};
