import { counted } from '../lib/numbers.js';

/** exchange/inAndOut.tsx */
export const inAndOutTexts = {
  csv: 'CSV',
  xlsx: 'XLSX',
  html: 'HTML',
  docx: 'DOCX',
  refiQdaQdc: 'REFI-QDA (.qdc)',
  out: 'Import and export',
  file: 'As a file',
  download: 'Download:',
  codeListsFile: 'File with a code list',
  bringCodeList: 'Import a code list …',
  already: 'already there',
  alreadyBlankTextsFilled: 'already there; blank texts are filled in',
  blankTextsFilled: (fresh: number, newThemes: number, filled: number) =>
    `${counted(fresh, 'new code')}, ${counted(newThemes, 'new theme')}, ${counted(filled, 'code')} with blank texts filled in`,
  codesPutIntoBundles: (newBundles: number, intoBundles: number) =>
    `, ${counted(newBundles, 'new bundle')}, codes put into bundles ${counted(intoBundles, 'time')}`,
  whatYouWroteYourself: '. What you wrote yourself is kept.',
  take: 'Import',
  in: (bundles: string) => `in ${bundles}`,
};
