import type { RespondentField } from './respondentTypes.js';

/** The file that the syntax reads, in the folder where it is run. */
const FILE = 'respondents.csv';
/** The longest text of an id or a category, and of an answer, that SPSS is told to expect, in bytes. */
const [SHORT_TEXT, LONG_TEXT] = [250, 8000];

const oneLine = (text: string): string => text.replaceAll(/\s+/gu, ' ').trim();
const inR = (text: string): string =>
  `"${oneLine(text).replaceAll('\\', '\\\\').replaceAll('"', '\\"')}"`;
const inSpss = (text: string): string => `'${oneLine(text).replaceAll("'", "''").slice(0, 250)}'`;
/** Stata keeps 80 letters of a label; what would be replaced in its quotes is left out. */
const inStata = (text: string): string =>
  `"${oneLine(text).replaceAll(/["`$]/gu, '').slice(0, 80)}"`;

const isCoded = ({ values }: RespondentField): boolean =>
  values.length > 0 && values.every(({ value }) => typeof value === 'number');

/** Reads the CSV in R, with the titles of columns as labels and categories in their order. */
export function asRSyntax(fields: readonly RespondentField[]): string {
  const types = {
    string: 'character',
    number: 'numeric',
    integer: 'integer',
    date: 'Date',
  } as const;
  const lines = [
    `respondents <- read.csv("${FILE}", encoding = "UTF-8", na.strings = "",`,
    `  colClasses = c(${fields.map(({ name, type }) => `${name} = "${types[type]}"`).join(', ')}))`,
    ...fields.flatMap((field) => [
      ...(field.values.length > 0 && !isCoded(field)
        ? [
            `respondents$${field.name} <- factor(respondents$${field.name}, levels = c(${field.values.map(({ value }) => inR(String(value))).join(', ')}))`,
          ]
        : []),
      `attr(respondents$${field.name}, "label") <- ${inR(field.title)}`,
      ...(isCoded(field)
        ? [
            `attr(respondents$${field.name}, "labels") <- c(${field.values.map(({ value, label }) => `${inR(label)} = ${value}`).join(', ')})`,
          ]
        : []),
    ]),
  ];
  return `${lines.join('\n')}\n`;
}

/** Reads the CSV in SPSS or PSPP, with labels of variables and values. */
export function asSpssSyntax(fields: readonly RespondentField[]): string {
  const formatOf = ({ type, isLong }: RespondentField): string =>
    ({
      string: `A${isLong ? LONG_TEXT : SHORT_TEXT}`,
      number: 'F12.6',
      integer: 'F8.0',
      date: 'SDATE10',
    })[type];
  const coded = fields.filter(isCoded);
  const lines = [
    `GET DATA /TYPE=TXT /FILE='${FILE}' /ENCODING='UTF-8'`,
    `  /ARRANGEMENT=DELIMITED /DELIMITERS=',' /QUALIFIER='"' /FIRSTCASE=2`,
    '  /VARIABLES=',
    ...fields.map((field) => `    ${field.name} ${formatOf(field)}`),
    '  .',
    ...fields.map(({ name, title }) => `VARIABLE LABELS ${name} ${inSpss(title)}.`),
    ...coded.map(
      ({ name, values }) =>
        `VALUE LABELS ${name} ${values.map(({ value, label }) => `${value} ${inSpss(label)}`).join(' ')}.`,
    ),
    'EXECUTE.',
  ];
  return `${lines.join('\n')}\n`;
}

/** Reads the CSV in Stata, with labels of variables and values, and dates as dates. */
export function asStataSyntax(fields: readonly RespondentField[]): string {
  const texts = fields.flatMap(({ type }, f) =>
    type === 'string' || type === 'date' ? [f + 1] : [],
  );
  const lines = [
    `import delimited using "${FILE}", clear varnames(1) case(preserve) encoding("UTF-8") bindquote(strict) maxquotedrows(unlimited) stringcols(${texts.join(' ')})`,
    ...fields.flatMap((field) => [
      ...(field.type === 'date'
        ? [
            `generate double temporary_date = date(${field.name}, "YMD")`,
            `drop ${field.name}`,
            `rename temporary_date ${field.name}`,
            `format ${field.name} %td`,
          ]
        : []),
      `label variable ${field.name} ${inStata(field.title)}`,
      ...(isCoded(field)
        ? [
            `label define ${field.name} ${field.values.map(({ value, label }) => `${value} ${inStata(label)}`).join(' ')}`,
            `label values ${field.name} ${field.name}`,
          ]
        : []),
    ]),
  ];
  return `${lines.join('\n')}\n`;
}
