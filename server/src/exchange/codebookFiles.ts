import type { Codebook, CodebookFormat } from '@yellow-thread/contract';
import { writeCsv, type CsvValue } from '@yellow-thread/core/exchange';
import { escapeUTF8 } from 'entities';
import { Document, HeadingLevel, Packer, Paragraph, TextRun } from 'docx';
import Excel from 'exceljs';
import { writeQdc } from './qdc.js';
import { codebookFilesTexts } from '../wording/exchange.js';

interface StudyText {
  name: string;
  purpose: string;
}

/** The codebook in a format of other programs. @param examples what people said, by the code's id */
export async function writeCodebook(
  format: CodebookFormat,
  study: StudyText,
  codebook: Codebook,
  examples: ReadonlyMap<string, string[]>,
): Promise<string | Buffer> {
  switch (format) {
    case 'csv':
      return `\uFEFF${writeCsv(asTable(codebook))}`;
    case 'xlsx':
      return asWorkbook(codebook);
    case 'html':
      return asHtml(study, codebook, examples);
    case 'docx':
      return asDocument(study, codebook, examples);
    case 'qdc':
      return writeQdc(codebook);
  }
}

const head = [
  'theme',
  'code',
  'definition',
  'include',
  'exclude',
  'bundles',
  'people',
  'mentions',
  'archived',
];

function asTable({ themes, codes, bundles }: Codebook): CsvValue[][] {
  const nameOf = new Map(themes.map((theme) => [theme.id, theme.name]));
  return [
    head,
    ...inOrder({ themes, codes }).map((code) => [
      code.themeId ? nameOf.get(code.themeId)! : '',
      code.name,
      code.definition,
      code.include,
      code.exclude,
      bundles
        .filter((bundle) => bundle.codeIds.includes(code.id))
        .map((bundle) => bundle.name)
        .join('; '),
      code.people,
      code.mentions,
      code.archived ? 'yes' : '',
    ]),
  ];
}

/** Codes as the codebook has them: by theme, those without one at the end. */
const inOrder = ({ themes, codes }: Pick<Codebook, 'themes' | 'codes'>) =>
  [...themes.map((theme) => theme.id), null].flatMap((theme) =>
    codes.filter((code) => code.themeId === theme),
  );

async function asWorkbook(codebook: Codebook): Promise<Buffer> {
  const workbook = new Excel.Workbook();
  workbook.creator = codebookFilesTexts.yellowThread;
  workbook.created = new Date();
  const sheet = workbook.addWorksheet(codebookFilesTexts.codebook, {
    views: [{ state: 'frozen', ySplit: 1 }],
  });
  sheet.addRows(asTable(codebook));
  sheet.getRow(1).font = { bold: true };
  sheet.columns.forEach((column, c) => {
    column.width = c >= 2 && c <= 4 ? 48 : 22;
    column.alignment = { wrapText: true, vertical: 'top' };
  });
  return Buffer.from(await workbook.xlsx.writeBuffer());
}

/** What the document says of each code, whichever program it is for. */
function entries(
  { codes }: Codebook,
  themeId: string | null,
  examples: ReadonlyMap<string, string[]>,
) {
  return codes
    .filter((code) => code.themeId === themeId && !code.archived)
    .map((code) => ({
      name: code.name,
      counts: codebookFilesTexts.peopleMentions(code.people, code.mentions),
      texts: [
        { label: '', text: code.definition },
        { label: codebookFilesTexts.include, text: code.include },
        { label: codebookFilesTexts.exclude, text: code.exclude },
      ].filter(({ text }) => text !== ''),
      examples: examples.get(code.id) ?? [],
    }));
}

/** Themes with their codes, and the codes without a theme. */
const sections = (codebook: Codebook, examples: ReadonlyMap<string, string[]>) =>
  [...codebook.themes, null]
    .map((theme) => ({
      title: theme?.name ?? codebookFilesTexts.withoutTheme,
      counts: theme ? codebookFilesTexts.peopleMentions(theme.people, theme.mentions) : '',
      codes: entries(codebook, theme?.id ?? null, examples),
    }))
    .filter(({ codes }) => codes.length > 0);

function asHtml(study: StudyText, codebook: Codebook, examples: ReadonlyMap<string, string[]>) {
  const body = sections(codebook, examples).map(
    ({ title, counts, codes }) => `<section>
<h2>${escapeUTF8(title)} <small>${escapeUTF8(counts)}</small></h2>
${codes
  .map(
    (code) => `<h3>${escapeUTF8(code.name)} <small>${escapeUTF8(code.counts)}</small></h3>
${code.texts.map(({ label, text }) => `<p>${label && `<b>${label}</b>`}${escapeUTF8(text).replaceAll('\n', '<br>')}</p>`).join('\n')}
${code.examples.map((one) => `<blockquote>${escapeUTF8(one)}</blockquote>`).join('\n')}`,
  )
  .join('\n')}
</section>`,
  );
  return `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<title>Codebook – ${escapeUTF8(study.name)}</title>
<style>
body { font: 16px/1.5 Georgia, serif; max-width: 44em; margin: 3em auto; padding: 0 1em; color: #23211c }
h1, h2, h3, small { font-family: system-ui, sans-serif } h2 { border-bottom: 1px solid #e3dfd4 }
small { font-weight: normal; color: #655f53; font-size: 13px }
blockquote { margin: .4em 0 .4em 1em; padding-left: .8em; border-left: 3px solid #f2b600 }
</style>
<h1>Codebook</h1>
<p>${escapeUTF8(study.name)}</p>
${study.purpose ? `<p>${escapeUTF8(study.purpose)}</p>` : ''}
${body.join('\n')}
</html>
`;
}

function asDocument(
  study: StudyText,
  codebook: Codebook,
  examples: ReadonlyMap<string, string[]>,
): Promise<Buffer> {
  const plain = (text: string) =>
    text.split('\n').map((line, i) => new TextRun({ text: line, ...(i > 0 && { break: 1 }) }));
  const headed = (text: string, counts: string, heading: 'Heading1' | 'Heading2') =>
    new Paragraph({
      heading: heading === 'Heading1' ? HeadingLevel.HEADING_1 : HeadingLevel.HEADING_2,
      children: [
        new TextRun(text),
        ...(counts ? [new TextRun({ text: `  ${counts}`, size: 18, bold: false })] : []),
      ],
    });
  const document = new Document({
    title: codebookFilesTexts.codebook2(study.name),
    creator: codebookFilesTexts.yellowThread,
    sections: [
      {
        children: [
          new Paragraph({ heading: HeadingLevel.TITLE, text: codebookFilesTexts.codebook }),
          new Paragraph(study.name),
          ...(study.purpose ? [new Paragraph({ children: plain(study.purpose) })] : []),
          ...sections(codebook, examples).flatMap(({ title, counts, codes }) => [
            headed(title, counts, 'Heading1'),
            ...codes.flatMap((code) => [
              headed(code.name, code.counts, 'Heading2'),
              ...code.texts.map(
                ({ label, text }) =>
                  new Paragraph({
                    children: [new TextRun({ text: label, bold: true }), ...plain(text)],
                  }),
              ),
              ...code.examples.map(
                (one) =>
                  new Paragraph({
                    indent: { left: 400 },
                    children: [new TextRun({ text: `“${one}”`, italics: true })],
                  }),
              ),
            ]),
          ]),
        ],
      },
    ],
  });
  return Packer.toBuffer(document);
}
