import { asCount, asDate, counted, plural } from '../lib/numbers.js';

/** writeUps/draftOf.ts */
export const draftOfTexts = {
  zTestEffectiveSizes: (correctionWords: string, round: number) =>
    `z test at the effective sizes of the estimates, ${correctionWords}, two-sided at ${round}%`,
  raoScottCorrectedTest: 'Rao–Scott corrected test',
  twoProportionZTest: 'two-proportion z test, or Fisher’s exact test on small counts',
  twoSided: (how: string, against: string, correctionWords: string, round: number) =>
    `${how}, ${against === 'rest' ? 'each column against everyone else, ' : ''}${correctionWords}, two-sided at ${round}%`,
};

/** writeUps/nodes.tsx */
export const nodesTexts = {
  linkedTable: 'linked to its table',
  rowColumnGone: 'its row or column was deleted',
  nowTake: (now: string) => `now ${now}: update`,
  noLongerKnown: ', no longer known',
  now: (now: string) => `, now ${now}`,
  tableGone: 'This table was deleted.',
  takeTableOutText: 'Remove the table from the text',
  chartGone: 'This chart was deleted.',
  takeChartOutText: 'Remove the chart from the text',
  least: 'at least ',
  undecided: (undecided: number) => `, ${asCount(undecided)} undecided`,
  of: (value: number, answered: number) => `${asCount(value)} of ${asCount(answered)}`,
};

/** writeUps/toolbar.tsx */
export const toolbarTexts = {
  bold: 'Bold',
  italic: 'Italic',
  heading: 'Heading',
  smallerHeading: 'Smaller heading',
  list: 'List',
  numberedList: 'Numbered list',
  quote: 'Quote',
  text: 'The text',
};

/** writeUps/tray.tsx */
export const trayTexts = {
  tablesQuotes: 'Tables and quotes',
  tables: 'Tables',
  counts: 'Counts',
  columns: 'Columns',
  percent: 'Percent of',
  restricted: 'Restricted to',
  charts: 'Charts',
  quotes: 'Quotes',
  putIntoText: 'Insert into the text',
  takeOutWriteUp: 'Remove from the write-up',
  behindQuoteStands: 'Source shown after a quote',
  maskContactDetailsNames: 'mask contact details, and names after Mr, Ms …',
  otherNamesMasked: 'Other names to be masked',
  annOdell: 'Ann, Odell',
  nonePickedYetOpen:
    'No quote is picked yet. Open a number in the report: “Quote” beside an answer picks it for a code. Examples of codes are listed here too.',
  withoutTheme: 'Without a theme',
  put: (text: string) => `Insert ${text}`,
  put2: 'Insert',
};

/** writeUps/writeUpFiles.tsx */
export const writeUpFilesTexts = {
  documentDocx: 'Document (DOCX)',
  wordProcessor: 'for a word processor',
  pageHtml: 'Page (HTML)',
  shownPrintedSavedPdf: 'to be shown, printed or saved as PDF',
  workbookXlsx: 'Workbook (XLSX)',
  tablesAllAnswersCodes: 'its tables, and all answers with codes',
  csv: 'CSV',
  tables: 'its tables',
  keepDatedCopyChange: 'Keep a dated copy that no longer changes',
  keptFrozenCopy: 'Kept a frozen copy.',
  open: 'Open it',
  freezeCopy: 'Freeze a copy',
  files: 'Files',
};

/** writeUps/writeUpEditor.tsx */
export const writeUpEditorTexts = {
  textWriteUp: 'The text of the write-up',
  writeUps: 'Write-ups',
  nameWriteUp: 'Name of the write-up',
  frozen: (frozenAt: string) => `frozen ${asDate(frozenAt)}`,
  saving: 'saving …',
  draftedAnewYouWrote: (kept: number) =>
    `Redrafted. ${counted(kept, 'paragraph')} that you wrote or changed ${plural(kept, 'was', 'were')} kept.`,
  draftFindings: 'Draft the findings',
  draftAnew: 'Redraft',
  tableCouldCounted: (why: string) => `A table could not be counted: ${why}`,
  noTableYetReport:
    'There is no table yet. In the report, “Write up” puts the table that is shown in here; then the findings can be drafted from it.',
  changedSince: (old: number) => `${counted(old, 'figure')} changed since.`,
  bringUpDate: 'Update',
};

/** writeUps/writeUpList.tsx */
export const writeUpListTexts = {
  writeUps: 'the write-ups',
  findings: 'Findings',
  writeUps2: 'Write-ups',
  tablesWhatSaidThem:
    'Tables with what is to be said of them. Figures in a write-up stay linked to the study; a frozen copy keeps them as they were on its day.',
  newWriteUp: 'New write-up',
  nothingWrittenUpYet: 'Nothing is written up yet',
  reportWriteUpPuts: 'In the report, “Write up” puts the table that is shown into a write-up.',
  tableCounted: (tables: number) => counted(tables, 'table'),
  remove: 'Remove it',
  keep: 'Keep',
  remove2: 'Remove',
  removed: 'Removed',
  keptThirtyDaysGone: 'Kept for thirty days, then deleted.',
  frozen: (frozenAt: string) => `, frozen ${asDate(frozenAt)}`,
  removedKeptUntil: (by: string, at: string, until: string) =>
    `removed by ${by}, ${asDate(at)}; kept until ${asDate(until)}`,
  restore: 'Restore',
  frozen2: (frozenAt: string) => `frozen ${asDate(frozenAt)}`,
  remove3: (name: string) => `Remove ${name}`,
  restore2: (name: string) => `Restore ${name}`,
};

/** writeUps/writeUpPage.tsx */
export const writeUpPageTexts = {
  writeUp: 'the write-up',
};
