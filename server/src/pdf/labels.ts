import type { Machine } from '@needlecase/core';
import type { TableCell } from 'pdfmake/interfaces.js';
import { PAPER, qr } from './drawings.js';
import { printer } from './print.js';
import { PAGE, type Paper } from './wall.js';

/** Sizes of a label in columns and rows of a sheet, its height and its code's edge in points. */
export const LABELS = {
  small: { across: 3, down: 8, height: 92, edge: 70, name: 12 },
  medium: { across: 2, down: 7, height: 106, edge: 86, name: 15 },
  large: { across: 2, down: 4, height: 188, edge: 150, name: 19 },
} as const;
export type LabelSize = keyof typeof LABELS;

/** A label and where its code leads. */
export interface Label {
  machine: Pick<Machine, 'name' | 'place'>;
  address: string;
}

/** Prints stickers: the name of each machine with a code that a phone opens. */
export async function printLabels(
  labels: readonly Label[],
  size: LabelSize,
  paper: Paper,
): Promise<Buffer> {
  const { across, height, edge, name } = LABELS[size];
  const cell = ({ machine, address }: Label): TableCell => ({
    columns: [
      { width: edge, svg: qr(address), fit: [edge, edge] },
      {
        width: '*',
        stack: [
          { text: machine.name, bold: true, fontSize: name },
          { text: machine.place, color: PAPER.soft },
          {
            text: 'What is due, one load more,\nsomething is wrong',
            margin: [0, 5, 0, 0],
            fontSize: 8.5,
          },
        ],
        margin: [8, 8, 0, 0],
      },
    ],
    margin: [4, (height - edge) / 2 - 6, 4, 0],
  });
  const rows: TableCell[][] = [];
  for (let i = 0; i < labels.length; i += across) {
    const row = labels.slice(i, i + across).map(cell);
    while (row.length < across) row.push('');
    rows.push(row);
  }
  return (await printer())
    .createPdf({
      pageSize: PAGE[paper],
      pageMargins: [22, 26, 22, 22],
      info: { title: 'Labels', creator: 'Needlecase' },
      defaultStyle: { font: 'Roboto', fontSize: 10, color: PAPER.ink },
      content: [
        {
          table: {
            widths: Array.from({ length: across }, () => '*'),
            heights: height,
            dontBreakRows: true,
            body: rows,
          },
          layout: {
            hLineColor: () => PAPER.seam,
            vLineColor: () => PAPER.seam,
            hLineStyle: () => ({ dash: { length: 4, space: 3 } }),
            vLineStyle: () => ({ dash: { length: 4, space: 3 } }),
          },
        },
      ],
    })
    .getBuffer();
}
