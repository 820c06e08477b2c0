import {
  AlignmentType,
  BorderStyle,
  Document,
  HeadingLevel,
  ImageRun,
  LevelFormat,
  Packer,
  PageOrientation,
  Paragraph,
  Table,
  TableCell,
  TableLayoutType,
  TableRow,
  TextRun,
  WidthType,
} from 'docx';
import type { Block, Run } from './blocks.js';
import { isWide, PAGE, partsOf } from './wideTables.js';
import { docxTexts } from '../../wording/report.js';

const levels = {
  1: HeadingLevel.HEADING_1,
  2: HeadingLevel.HEADING_2,
  3: HeadingLevel.HEADING_3,
} as const;
const NUMBERS = 'numbers';
/** Between the margins of a page, in pixels. */
const PAGE_WIDTH = 600;
/** In half points. */
const SMALL = 17;

const textRuns = (runs: readonly Run[], size?: number) =>
  runs.flatMap(({ text, bold, italic }) =>
    text.split('\n').map(
      (line, i) =>
        new TextRun({
          text: line,
          ...(bold && { bold }),
          ...(italic && { italics: italic }),
          ...(size && { size }),
          ...(i > 0 && { break: 1 }),
        }),
    ),
  );

function write(block: Block, room: number): (Paragraph | Table)[] {
  switch (block.kind) {
    case 'heading':
      return [new Paragraph({ heading: levels[block.level], text: block.text })];
    case 'paragraph':
      return [new Paragraph({ children: textRuns(block.runs), spacing: { after: 120 } })];
    case 'item':
      return [
        new Paragraph({
          children: textRuns(block.runs),
          ...(block.ordered
            ? { numbering: { reference: NUMBERS, level: 0 } }
            : { bullet: { level: 0 } }),
        }),
      ];
    case 'quote':
      return [
        new Paragraph({
          children: textRuns(block.runs.map((run) => ({ ...run, italic: true }))),
          indent: { left: 500 },
          spacing: { after: 120 },
        }),
      ];
    case 'picture': {
      const shown = Math.min(1, PAGE_WIDTH / block.width);
      return [
        new Paragraph({
          spacing: { after: 120 },
          children: [
            new ImageRun({
              type: 'png',
              data: block.png,
              transformation: { width: block.width * shown, height: block.height * shown },
              altText: { name: docxTexts.chart, title: docxTexts.chart, description: block.alt },
            }),
          ],
        }),
      ];
    }
    case 'table':
      return partsOf(block, room).flatMap((part) => [
        tableOf(part),
        new Paragraph({
          children: textRuns([{ text: part.note }], SMALL),
          spacing: { before: 80, after: 240 },
        }),
      ]);
  }
}

const CENTIMETRE = 567;

function tableOf({ heads, rows, widths }: ReturnType<typeof partsOf>[number]): Table {
  const none = { style: BorderStyle.NONE, size: 0, color: 'auto' };
  const thin = { style: BorderStyle.SINGLE, size: 4, color: '999999' };
  const line = (cells: readonly string[], bold: boolean, isHead: boolean) =>
    new TableRow({
      tableHeader: isHead,
      cantSplit: true,
      children: cells.map(
        (text, c) =>
          new TableCell({
            width: { size: Math.round(widths[c]! * CENTIMETRE), type: WidthType.DXA },
            children: [
              new Paragraph({
                alignment: c === 0 ? AlignmentType.LEFT : AlignmentType.RIGHT,
                children: textRuns([{ text, bold }], SMALL),
              }),
            ],
          }),
      ),
    });
  return new Table({
    layout: TableLayoutType.FIXED,
    columnWidths: widths.map((width) => Math.round(width * CENTIMETRE)),
    borders: {
      left: none,
      right: none,
      insideVertical: none,
      top: thin,
      bottom: thin,
      insideHorizontal: thin,
    },
    rows: [
      ...heads.map((cells) => line(cells, true, true)),
      ...rows.map(({ cells, isHead }) => line(cells, isHead, false)),
    ],
  });
}

/** A document for word processors; its pages lie across where a table is wide. @param author who takes it */
export function writeDocx(
  title: string,
  blocks: readonly Block[],
  author = docxTexts.yellowThread,
): Promise<Buffer> {
  const wide = isWide(blocks);
  const room = wide ? PAGE.landscape : PAGE.portrait;
  const size = {
    // turned by the package itself
    width: '21cm' as const,
    height: '29.7cm' as const,
    orientation: wide ? PageOrientation.LANDSCAPE : PageOrientation.PORTRAIT,
  };
  const margin = { top: '2.2cm', right: '2.2cm', bottom: '2.2cm', left: '2.2cm' } as const;
  return Packer.toBuffer(
    new Document({
      title,
      creator: author,
      lastModifiedBy: author,
      description: docxTexts.writtenBy,
      numbering: {
        config: [
          {
            reference: NUMBERS,
            levels: [
              { level: 0, format: LevelFormat.DECIMAL, text: '%1.', alignment: AlignmentType.LEFT },
            ],
          },
        ],
      },
      sections: [
        {
          properties: { page: { size, margin } },
          children: blocks.flatMap((block) => write(block, room)),
        },
      ],
    }),
  );
}
