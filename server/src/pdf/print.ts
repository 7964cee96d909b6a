import type { Sheet, SheetSection } from '@needlecase/core';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
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

export const INK = '#222a55';
export const SEAM = '#a99d83';

/** Prints a sheet on A4. @param pictures JPEGs of its photos */
export async function printSheet(sheet: Sheet, pictures: readonly Buffer[]): Promise<Buffer> {
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
            {
              columns: pictures.map((picture) => ({
                image: `data:image/jpeg;base64,${picture.toString('base64')}`,
                fit: [Math.min(240, 500 / pictures.length), 200] as [number, number],
              })),
              columnGap: 6,
            },
          ]
        : []),
    ],
  };
  return (await printer()).createPdf(document).getBuffer();
}

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

function section({ heading: title, columns, rows, none }: SheetSection): Content[] {
  if (rows.length === 0) return [heading(title), { text: none }];
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
