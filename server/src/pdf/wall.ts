import type { WallSheet, WallVisit } from '@needlecase/core/print/wall-sheet';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { cross, drawing, hanging, PAPER, qr, stitch } from './drawings.js';
import { onOnePage, printer } from './print.js';

export type Paper = 'a4' | 'letter';
export const PAGE = { a4: 'A4', letter: 'LETTER' } as const;
/** Points. */
const WIDE = { a4: 595.28, letter: 612 } as const;
const MARGIN = 36;

/** Prints the sheet for a wall: read from a metre off, and on one page. */
export const printWall = (sheet: WallSheet, paper: Paper): Promise<Buffer> =>
  onOnePage((scale) => printAt(sheet, paper, scale));

async function printAt(sheet: WallSheet, paper: Paper, scale: number): Promise<Buffer> {
  const width = WIDE[paper] - 2 * MARGIN;
  const seam: Content = {
    canvas: [
      {
        ...{ type: 'line', x1: 0, y1: 0, x2: width, y2: 0, lineWidth: 1.2 },
        ...{ lineColor: PAPER.seam, dash: { length: 5, space: 3 } },
      },
    ],
    margin: [0, 9 * scale, 0, 6 * scale],
  };
  const title = (text: string): Content => ({
    text,
    fontSize: 18 * scale,
    bold: true,
    margin: [0, 0, 0, 4],
  });
  const document: TDocumentDefinitions = {
    pageSize: PAGE[paper],
    pageMargins: [MARGIN, 30, MARGIN, 26],
    info: { title: `${sheet.place}: wall sheet`, creator: 'Needlecase' },
    defaultStyle: { font: 'Roboto', fontSize: 13.5 * scale, color: PAPER.ink, lineHeight: 1.12 },
    content: [
      {
        columns: [
          {
            width: '*',
            stack: [
              { text: sheet.place, fontSize: 34 * scale, bold: true },
              { text: sheet.lead, color: PAPER.soft, margin: [0, 2, 0, 0] },
              {
                text: sheet.printed,
                color: PAPER.soft,
                fontSize: 11 * scale,
                margin: [0, 2, 0, 0],
              },
            ],
          },
          {
            width: 96,
            text: 'What is due,\nwhat is wrong,\none load more',
            alignment: 'right',
            bold: true,
            fontSize: 11.5 * scale,
            margin: [0, 24, 8, 0],
          },
          { width: 92, svg: qr(sheet.address), fit: [92 * scale, 92 * scale] },
        ],
      },
      seam,
      title('With each load'),
      ...sheet.habits.map(({ line, who, each }): Content => ({
        columns: [
          { width: 16, svg: hanging(line), fit: [14 * scale, 74 * scale] },
          { width: 60, text: who, fontSize: 14 * scale, margin: [4, 30 * scale, 0, 0] },
          ...each.map(({ drawing: name, caption }): Content & { width: string } => ({
            width: '*',
            stack: [
              { svg: drawing(name), fit: [92 * scale, 68 * scale], alignment: 'center' },
              {
                text: caption,
                bold: true,
                alignment: 'center',
                fontSize: 11.5 * scale,
                margin: [0, 1, 0, 0],
              },
            ],
          })),
        ],
        margin: [0, 0, 0, 4],
      })),
      seam,
      title('The next three visits'),
      sheet.visits.length
        ? { columns: sheet.visits.map((one) => visit(one, scale)), columnGap: 14 }
        : { text: 'Nothing falls due here in the year ahead.' },
      {
        text: 'Ribbed, blue-green: water. Double, orange: air. Knot: keeps people safe, not to be left out.',
        fontSize: 10 * scale,
        color: PAPER.soft,
        margin: [0, 5, 0, 0],
      },
      seam,
      {
        columns: [
          {
            width: '46%',
            stack: [
              title('Where to stop it'),
              standing(sheet.machines, width * 0.44, scale),
              ...sheet.stops.map(({ name, where }, i): Content => ({
                columns: [
                  { width: 18, text: String(i + 1), bold: true },
                  {
                    width: '*',
                    text: [
                      { text: `${name}: `, bold: true },
                      where || { text: '.'.repeat(34), color: PAPER.seam },
                    ],
                  },
                ],
                columnGap: 2,
                margin: [0, 4, 0, 0],
              })),
            ],
          },
          {
            width: '*',
            stack: [
              title('Never'),
              ...sheet.never.map((text): Content => ({
                columns: [
                  { width: 22, svg: cross(), fit: [16 * scale, 16 * scale] },
                  { width: '*', text },
                ],
                columnGap: 2,
                margin: [0, 2, 0, 3],
              })),
            ],
          },
        ],
        columnGap: 18,
      },
      seam,
      { text: sheet.alarm, bold: true, fontSize: 16 * scale },
    ],
  };
  return (await printer()).createPdf(document).getBuffer();
}

function visit({ day, said, tasks, more }: WallVisit, scale: number): Content {
  return {
    stack: [
      { text: day, fontSize: 15 * scale, bold: true },
      { text: said, color: PAPER.soft, margin: [0, 0, 0, 3] },
      ...tasks.map(({ name, line, safety }): Content => ({
        columns: [
          { width: 17, ...tick(10) },
          { width: 14, svg: stitch(line, safety), fit: [9 * scale, 14 * scale] },
          { width: '*', text: name, fontSize: 12.5 * scale },
        ],
        columnGap: 2,
        margin: [0, 2, 0, 0],
      })),
      ...(more
        ? [{ text: `and ${more} more`, color: PAPER.soft, margin: [17, 3, 0, 0] } as Content]
        : []),
    ],
  };
}

/** A box to tick, stitched round. */
export const tick = (
  size: number,
): { canvas: NonNullable<Extract<Content, { canvas: unknown }>['canvas']> } => ({
  canvas: [
    {
      ...{ type: 'rect', x: 1, y: 1, w: size, h: size, r: 2, lineWidth: 1.2 },
      ...{ lineColor: PAPER.ink, dash: { length: 2.6, space: 1.6 } },
    },
  ],
});

/** Who stands here, side by side. */
function standing(machines: readonly string[], width: number, scale: number): Content {
  const each = Math.min(96, (width - 8 * (machines.length - 1)) / Math.max(1, machines.length));
  return {
    columns: machines.map((name) => ({
      width: each,
      table: {
        widths: [each - 12],
        heights: 34,
        body: [[{ text: name, fontSize: 10 * scale, alignment: 'center', margin: [0, 10, 0, 0] }]],
      },
      layout: {
        hLineColor: () => PAPER.soft,
        vLineColor: () => PAPER.soft,
        hLineStyle: () => ({ dash: { length: 4, space: 3 } }),
        vLineStyle: () => ({ dash: { length: 4, space: 3 } }),
      },
    })),
    columnGap: 8,
    margin: [0, 0, 0, 4],
  };
}
