import type { Sheet, SheetChart, SheetSection } from '@needlecase/core';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { chartOf } from './chart.js';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';

/** The printer: large, and fetched when the first sheet is printed. */
export const printer = once(async () => {
  const { default: pdfmake } = await import('pdfmake');
  const fonts = join(
    dirname(createRequire(import.meta.url).resolve('pdfmake/package.json')),
    'fonts/Roboto',
  );
  pdfmake.setFonts({
    Roboto: {
      normal: join(fonts, 'Roboto-Regular.ttf'),
      bold: join(fonts, 'Roboto-Medium.ttf'),
      italics: join(fonts, 'Roboto-Italic.ttf'),
      bolditalics: join(fonts, 'Roboto-MediumItalic.ttf'),
    },
  });
  // A sheet is made of what it is given: nothing is read but its own fonts, nothing is fetched.
  pdfmake.setLocalAccessPolicy((path) => path.startsWith(fonts));
  pdfmake.setUrlAccessPolicy(() => false);
  return pdfmake;
});

function once<T>(make: () => Promise<T>): () => Promise<T> {
  let made: Promise<T> | undefined;
  return () => (made ??= make());
}

/** What has more on it than fits a page is a little smaller. */
const SCALES = [1, 0.93, 0.86, 0.79, 0.72] as const;

/** Prints on one page, as small as it must be; on more than one where even the smallest does not fit. */
export async function onOnePage(print: (scale: number) => Promise<Buffer>): Promise<Buffer> {
  let pdf: Buffer = Buffer.alloc(0);
  for (const scale of SCALES) {
    pdf = await print(scale);
    if (pagesIn(pdf) === 1) break;
  }
  return pdf;
}

const pagesIn = (pdf: Buffer): number => pdf.toString('latin1').split(/\/Type \/Page\b/).length - 1;

export const INK = '#222a55';
export const SEAM = '#a99d83';

/** A photo of a sheet, as JPEG, and what it shows. */
export interface Picture {
  picture: Buffer;
  said: string;
}

/** Prints a sheet on A4. */
export async function printSheet(sheet: Sheet, pictures: readonly Picture[]): Promise<Buffer> {
  const document: TDocumentDefinitions = {
    pageSize: 'A4',
    pageMargins: [44, 44, 44, 52],
    info: { title: sheet.title, creator: 'Needlecase' },
    defaultStyle: { font: 'Roboto', fontSize: 9.5, color: INK, lineHeight: 1.15 },
    footer: (page, pages) => ({
      text: `Needlecase · ${sheet.title} · ${page} of ${pages}`,
      alignment: 'center',
      fontSize: 8,
      margin: [0, 16, 0, 0],
    }),
    content: [
      { text: sheet.title, fontSize: 20, bold: true },
      { text: sheet.lead, margin: [0, 2, 0, 10] },
      {
        columns: [half(sheet.facts, 0), half(sheet.facts, 1)],
        columnGap: 18,
      },
      ...sheet.sections.flatMap(section),
      ...(pictures.length
        ? [
            heading('Photos'),
            ...pairs(pictures).map((pair): Content => ({
              columns: pair.map(({ picture, said }) => ({
                width: 246,
                stack: [
                  {
                    image: `data:image/jpeg;base64,${picture.toString('base64')}`,
                    fit: [246, 190] as [number, number],
                  },
                  {
                    text: said,
                    fontSize: 8.5,
                    margin: [0, 2, 0, 8] as [number, number, number, number],
                  },
                ],
              })),
              columnGap: 14,
              unbreakable: true,
            })),
          ]
        : []),
    ],
  };
  return (await printer()).createPdf(document).getBuffer();
}

const pairs = <T>(all: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(all.length / 2) }, (_, i) => all.slice(2 * i, 2 * i + 2));

export const heading = (text: string): Content => ({
  text,
  fontSize: 13,
  bold: true,
  margin: [0, 14, 0, 4],
});

const half = (facts: Sheet['facts'], which: 0 | 1): Content => {
  const middle = Math.ceil(facts.length / 2);
  const part = which === 0 ? facts.slice(0, middle) : facts.slice(middle);
  return {
    stack: part.map(({ name, value }) => ({
      text: [{ text: `${name}: `, bold: true }, value],
      margin: [0, 0, 0, 2],
    })),
  };
};

/** Charts, two side by side, and how they are read. */
const drawn = (charts: readonly SheetChart[]): Content[] => [
  ...pairs(charts).map((pair): Content => ({
    columns: pair.map((chart) => ({
      width: 246,
      stack: [
        { text: chart.title, bold: true },
        { svg: chartOf(chart), width: 246 },
      ],
    })),
    columnGap: 14,
    unbreakable: true,
  })),
  {
    text: 'Dashed: when clean. At the hem a stitch: cleaned; a ring: looked at; a square: a part replaced; a cross: trouble.',
    fontSize: 8,
  },
];

function section({ heading: title, columns, rows, none, charts }: SheetSection): Content[] {
  if (charts) return [heading(title), ...drawn(charts)];
  if (rows.length === 0) return [...(title ? [heading(title)] : []), { text: none }];
  const widest = columns.length - 1;
  return [
    heading(title),
    {
      table: {
        headerRows: 1,
        widths: columns.map((column, i) => (i === widest ? '*' : column === '' ? 12 : 'auto')),
        body: [columns.map((text) => ({ text, bold: true })), ...rows],
      },
      layout: {
        hLineColor: () => SEAM,
        vLineWidth: () => 0,
        hLineWidth: (line) => (line === 1 ? 1 : 0.4),
      },
    },
  ];
}
