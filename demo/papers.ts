/* Papers of the demo household, made up like everything in it: as small as a PDF can be, and a real one. */

const escaped = (text: string): string => text.replaceAll(/[\\()]/g, '\\$&');

/** A page: its heading and its lines. */
type Page = readonly [heading: string, ...lines: string[]];

/** A PDF of plain pages, A5, in one of the fonts that every reader has (ISO 32000-1, 7.5 and 9.6.2.2). */
function pdfOf(pages: readonly Page[]): Buffer {
  const objects: string[] = ['<< /Type /Catalog /Pages 2 0 R >>', ''];
  const font = '<< /Font << /F << /Type /Font /Subtype /Type1 /BaseFont /Helvetica >> >> >>';
  const kids: string[] = [];
  pages.forEach(([heading, ...lines], i) => {
    const drawn = [
      `BT /F 16 Tf 40 540 Td (${escaped(heading)}) Tj`,
      ...lines.map((line, n) => `/F 10 Tf 0 ${n ? -16 : -30} Td (${escaped(line)}) Tj`),
      `ET BT /F 9 Tf 205 24 Td (${i + 1}) Tj ET`,
    ].join('\n');
    objects.push(
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 420 595] /Resources ${font} /Contents ${objects.length + 2} 0 R >>`,
      `<< /Length ${drawn.length} >>\nstream\n${drawn}\nendstream`,
    );
    kids.push(`${objects.length - 1} 0 R`);
  });
  objects[1] = `<< /Type /Pages /Kids [${kids.join(' ')}] /Count ${pages.length} >>`;
  let text = '%PDF-1.4\n';
  const places = objects.map((object, i) => {
    const at = text.length;
    text += `${i + 1} 0 obj\n${object}\nendobj\n`;
    return at;
  });
  const table = places.map((at) => `${String(at).padStart(10, '0')} 00000 n \n`).join('');
  const size = objects.length + 1;
  const end = `xref\n0 ${size}\n0000000000 65535 f \n${table}trailer\n<< /Size ${size} /Root 1 0 R >>\nstartxref\n${text.length}\n%%EOF\n`;
  return Buffer.from(text + end, 'latin1');
}

/** The washer's manual, and where it tells of what. */
export const MANUAL = {
  name: 'Fennowick washer, instructions for use',
  file: pdfOf([
    ['Instructions for use', 'Fennowick front-load washer', 'Keep them with the machine.'],
    [
      'Before you clean',
      'Pull the plug. Let hot water cool.',
      'Shut the tap before a hose comes off.',
    ],
    [
      'Pump filter',
      'Every three months, or when draining gets slow.',
      'Let the water out by the thin hose beside it.',
      'Turn the filter to the left, half a turn at a time.',
    ],
    ['Door gasket', 'Wipe the fold with each wash day.', 'No bleach: it hardens the rubber.'],
  ]),
  pages: [
    { task: 'pump-filter', page: 3 },
    { task: 'gasket-folds', page: 4 },
  ],
} as const;

export const RECEIPT = {
  name: 'Receipt of the Top-floor dryer',
  file: pdfOf([['Receipt', 'One condenser dryer, Ostrelle: 529.00 EUR', 'Two years of warranty.']]),
} as const;
