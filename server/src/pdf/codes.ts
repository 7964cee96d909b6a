import type { CodeCard } from '@needlecase/core/print/code-card';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { PAPER, qr } from './drawings.js';
import { onOnePage, printer } from './print.js';
import { PAGE, type Paper } from './wall.js';

/** From so many codes on they stand in two columns. */
const TWO_FROM = 13;

/** Prints a sheet of codes for the wall: the codes large, what is done about them beside; on one page where it can be. */
export const printCodes = (card: CodeCard, paper: Paper): Promise<Buffer> =>
  onOnePage((scale) => printAt(card, paper, scale));

async function printAt(card: CodeCard, paper: Paper, scale: number): Promise<Buffer> {
  const { rows } = card;
  const half = Math.ceil(rows.length / 2);
  const table = (some: CodeCard['rows']): Content => ({
    table: {
      widths: ['auto', '*'],
      dontBreakRows: true,
      body: some.map(({ shows, says, where, clears }): TableCell[] => [
        {
          text: shows,
          bold: true,
          fontSize: (shows.length > 9 ? 12 : 17) * scale,
          margin: [0, 2, 6, 2],
          noWrap: shows.length <= 12,
        },
        {
          stack: [
            { text: says, bold: true },
            ...(where ? [{ text: `Look at: ${where}`, color: PAPER.soft }] : []),
            ...(clears ? [{ text: clears }] : []),
          ],
          margin: [0, 3, 0, 3],
        },
      ]),
    },
    layout: {
      hLineColor: () => PAPER.seam,
      vLineWidth: () => 0,
      hLineWidth: () => 0.6,
    },
  });
  const document: TDocumentDefinitions = {
    pageSize: PAGE[paper],
    pageMargins: [36, 30, 36, 26],
    info: { title: `Codes: ${card.title}`, creator: 'Needlecase' },
    defaultStyle: { font: 'Roboto', fontSize: 11.5 * scale, color: PAPER.ink, lineHeight: 1.1 },
    content: [
      {
        columns: [
          {
            width: '*',
            stack: [
              { text: card.title, fontSize: 26 * scale, bold: true },
              { text: card.lead, color: PAPER.soft, margin: [0, 2, 0, 0] },
              { text: card.first, color: PAPER.never, bold: true, margin: [0, 6, 8, 8] },
            ],
          },
          { width: 78, text: 'Another code,\nor none', alignment: 'right', margin: [0, 18, 8, 0] },
          { width: 84, svg: qr(card.address), fit: [84 * scale, 84 * scale] },
        ],
      },
      rows.length === 0
        ? { text: 'No codes are on this sheet yet.' }
        : rows.length < TWO_FROM
          ? table(rows)
          : { columns: [table(rows.slice(0, half)), table(rows.slice(half))], columnGap: 16 },
      {
        text: 'In short; the manual comes first. What clears it is not what caused it: a code that comes back is looked into.',
        fontSize: 9.5 * scale,
        color: PAPER.soft,
        margin: [0, 8, 0, 0],
      },
    ],
  };
  return (await printer()).createPdf(document).getBuffer();
}
