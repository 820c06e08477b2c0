import { counted } from '@yellow-thread/core/text';

/** exchange/qdc.ts */
export const qdcTexts = {
  noCodebookCanRead: (fileName: string, why: string) =>
    `“${fileName}” is no codebook that can be read: ${why}.`,
  joined: (code: string, parent: string, theme: string) =>
    `“${code}” stood below “${parent}”: it comes directly under the theme “${theme}”.`,
  xmlBroken: (message: string) => `its XML is broken (${message})`,
  documentType: 'it has a document type',
  codesNestedDeeperLevels: (deepest: number) =>
    `its codes are nested deeper than ${deepest} levels`,
  sayCodebook: 'it does not say that it is a codebook',
};

/** exchange/readListed.ts */
export const readListedTexts = {
  holdsCodesMostTaken: (fileName: string, listed: number, mostCodes: number) =>
    `“${fileName}” holds ${listed} codes: at most ${mostCodes} are taken in at once.`,
  codeCannotKept: (place: number, string: string) =>
    `Code ${place + 1}: its ${string} cannot be kept.`,
  codeListTwiceFirst: (place: number, code: string) =>
    `Code ${place + 1}: “${code}” is in the list twice; the first was taken.`,
  holdsNoCodesCode: (fileName: string) =>
    `“${fileName}” holds no codes: a code list has a column “code” (and may have “theme”, “definition”, “include”, “exclude”).`,
  noColumnCodeName: (fileName: string) =>
    `“${fileName}” has no column “code”: name the column with the codes so.`,
};

/** exchange/codebookFiles.ts */
export const codebookFilesTexts = {
  codebook: 'Codebook',
  peopleMentions: (people: number, mentions: number) => `${people} people, ${mentions} mentions`,
  include: 'Include: ',
  exclude: 'Exclude: ',
  withoutTheme: 'Without a theme',
  codebook2: (study: string) => `Codebook – ${study}`,
  yellowThread: 'Yellow Thread',
};

/** exchange/codeList.ts */
export const codeListTexts = {
  codeList: (codes: number) => `the code list of ${counted(codes, 'code')}`,
};

/** exchange/index.ts */
export const indexTexts = {
  noFileCameRequest: 'No file came with the request.',
};
