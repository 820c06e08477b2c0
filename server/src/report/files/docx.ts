import {
  AlignmentType,
  BorderStyle,
  Document,
  HeadingLevel,
  ImageRun,
  LevelFormat,
  Packer,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
} from 'docx';
import type { Block, Run } from './blocks.js';
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

function write(block: Block): (Paragraph | Table)[] {
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
      return [
        tableOf(block),
        new Paragraph({
          children: textRuns([{ text: block.note }], SMALL),
          spacing: { before: 80, after: 240 },
        }),
      ];
  }
}

function tableOf({ heads, rows }: Extract<Block, { kind: 'table' }>): Table {
  const none = { style: BorderStyle.NONE, size: 0, color: 'auto' };
  const thin = { style: BorderStyle.SINGLE, size: 4, color: '999999' };
  const line = (cells: readonly string[], bold: boolean, isHead: boolean) =>
    new TableRow({
      tableHeader: isHead,
      cantSplit: true,
      children: cells.map(
        (text, c) =>
          new TableCell({
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
    width: { size: 100, type: WidthType.PERCENTAGE },
    borders: {
      ...{ left: none, right: none, insideVertical: none },
      ...{ top: thin, bottom: thin, insideHorizontal: thin },
    },
    rows: [
      ...heads.map((cells) => line(cells, true, true)),
      ...rows.map(({ cells, isHead }) => line(cells, isHead, false)),
    ],
  });
}

/** A document for word processors. */
export const writeDocx = (title: string, blocks: readonly Block[]): Promise<Buffer> =>
  Packer.toBuffer(
    new Document({
      title,
      creator: docxTexts.yellowThread,
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
      sections: [{ children: blocks.flatMap(write) }],
    }),
  );
