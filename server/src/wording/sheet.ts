/** sheet/files/text.ts */
export const textTexts = {
  quotationMarkOpensRow: (fileName: string, row: number, row2: undefined | number) =>
    `In “${fileName}” a quotation mark that opens in row ${row + (row2 ?? 0)} is never closed: correct it there, or choose another separator.`,
  rowMoreCharactersPerhaps: (row: number, fileName: string, longestRow: string) =>
    `Row ${row} of “${fileName}” has more than ${longestRow} characters: perhaps a quotation mark that opens there is never closed. Correct it, or choose another separator.`,
};

/** sheet/files/jsonLines.ts */
export const jsonLinesTexts = {
  objectsMoreDifferentKeys: (fileName: string, mostKeys: string) =>
    `The objects of “${fileName}” have more than ${mostKeys} different keys: remove what is not needed.`,
  lineMoreCharactersNo: (line: number, fileName: string, longestRow: string) =>
    `Line ${line + 1} of “${fileName}” has more than ${longestRow} characters: no answer is that long.`,
  lineObjectsWithinEach: (line: number, fileName: string, deepest: number) =>
    `Line ${line} of “${fileName}” has nested objects, more than ${deepest} deep.`,
};

/** sheet/files/worksheets.ts */
export const worksheetsTexts = {
  moreWorksheetsSaveOne: (fileName: string, mostWorksheets: number) =>
    `“${fileName}” has more than ${mostWorksheets} worksheets: save the one with the answers by itself.`,
};

/** sheet/files/zip.ts */
export const zipTexts = {
  damagedCutOffWay: (fileName: string) =>
    `“${fileName}” is damaged or was cut off on its way: save or download it again.`,
  wouldUnpackMbFar: (fileName: string, round: string) =>
    `“${fileName}” would unpack to ${round} MB, far more than a sheet of answers holds: it was not opened. Save it as CSV.`,
};

/** sheet/files/openDocument.ts */
export const openDocumentTexts = {
  spreadsheetRepeatsOneRow: (repeats: string) =>
    `The spreadsheet repeats one row or cell ${repeats} times, as no sheet of answers does: save it as CSV.`,
};

/** sheet/files/worksheetRows.ts */
export const worksheetRowsTexts = {
  rowFilledCellColumn: (done: number, fileName: string, column: number, mostFilled: string) =>
    `Row ${done + 1} of “${fileName}” has a filled cell in column ${column + 1}: at most ${mostFilled} columns are read. Clear it, or save the columns that are needed by themselves.`,
};

/** sheet/files/workbook.ts */
export const workbookTexts = {
  holdsNoWorksheetNothing: (fileName: string) =>
    `“${fileName}” holds no worksheet: there is nothing to read.`,
  noWorksheet: (fileName: string, worksheet: string) =>
    `“${fileName}” has no worksheet “${worksheet}”.`,
};

/** sheet/files/openFile.ts */
export const openFileTexts = {
  empty: (fileName: string) => `“${fileName}” is empty.`,
  writtenUtf32Which: (fileName: string) =>
    `“${fileName}” is written in UTF-32, which hardly anything reads: save it in UTF-8.`,
  saveAs: {
    sav: 'an SPSS file: in SPSS save it as .xlsx or CSV, with value labels instead of codes',
    dta: 'a Stata file: in Stata use “export delimited” or “export excel”',
    sas: 'a SAS file: export it as CSV',
    pdf: 'a PDF: import the sheet that it was made from',
    fods: 'a flat OpenDocument spreadsheet: save it as .ods, .xlsx or CSV',
    html: 'a web page: open it in a spreadsheet program and save it as .xlsx or CSV',
    rtf: 'a text document: copy its table into a spreadsheet and save that',
    numbers: 'a Numbers file: export it as .xlsx or CSV',
  },
  otherProgram(fileName: string, kind: keyof typeof this.saveAs): string {
    return `“${fileName}” is ${this.saveAs[kind]}.`;
  },
  oldXlsFormatSave: (fileName: string) =>
    `“${fileName}” is in the old .xls format: save it as .xlsx or CSV.`,
  zipFileButNo: (fileName: string) =>
    `“${fileName}” is a zip file but no workbook: unpack it, and import the sheet that is inside.`,
  holdsNoFilledWorksheet: (fileName: string) => `“${fileName}” holds no filled worksheet.`,
  neitherTextFileNor: (fileName: string) =>
    `“${fileName}” is neither a text file nor a workbook: choose the file that your survey service exported.`,
};

/** sheet/readTable.ts */
export const readTableTexts = {
  moreRows: (fileName: string, mostRows: number) => `“${fileName}” has more than ${mostRows} rows.`,
};

/** sheet/readSheet.ts */
export const readSheetTexts = {
  moreRowsSplit: (fileName: string, mostRows: string) =>
    `“${fileName}” has more than ${mostRows} rows: split it.`,
  holdsNoTableOne: (fileName: string) =>
    `“${fileName}” holds no table: one of its first rows must name the columns.`,
  moreColumnsExcludeWhat: (fileName: string, mostColumns: string) =>
    `“${fileName}” has more than ${mostColumns} columns: exclude what is not needed.`,
  rowCellCharactersAnswer: (row: number, fileName: string, length: string, longestCell: string) =>
    `Row ${row} of “${fileName}” has a cell of ${length} characters: an answer has at most ${longestCell}.`,
};

/** sheet/studyColumns.ts */
export const studyColumnsTexts = {
  wave: 'Wave',
};

/** sheet/decisions.ts */
export const decisionsTexts = {
  commaBetweenThousands: 'with a comma between thousands',
  pointBetweenThousands: 'with a point between thousands',
  monthFirst: 'with the month first',
  readSeparated: (encoding: string, separators: undefined | string, separator: string) =>
    `read as ${encoding}, separated by ${separators ?? separator}`,
  worksheet: (worksheet: string) => `worksheet “${worksheet}”`,
  headTwoRows: 'a header of two rows',
  read: (name: string, writings: string) => `“${name}” was read ${writings}`,
  repeatedIdsFirstRow: 'of repeated ids the first row was kept',
  repeatedIdsLastRow: 'of repeated ids the last row was kept',
  repeatedIdsKeptApart: 'repeated ids were kept apart by a number',
  spellingsKeptApart: (name: string) => `spellings of “${name}” were kept apart`,
  countsAnswer: (text: string) => `“${text}” counts as an answer`,
  idsMatchedWrittenDifferently: (matches: number) =>
    `${matches} ids were matched that are written differently`,
  interviewersWordsMarked: (value: string) => `interviewer’s words marked by ${value}`,
};
