import type { WallDrawing } from '@needlecase/core/print/wall-sheet';
import { create } from 'qrcode';

/** On paper: dark on white, so that it prints in black and white too. */
export const PAPER = {
  ink: '#222a55',
  soft: '#484f75',
  seam: '#a99d83',
  water: '#0b6163',
  air: '#a3420e',
  never: '#98183b',
} as const;

const { ink, seam, water, air, never } = PAPER;
const line = (d: string, stroke: string = ink, width = 3) =>
  `<path d="${d}" fill="none" stroke="${stroke}" stroke-width="${width}" stroke-linecap="round" stroke-linejoin="round"/>`;
const circle = (x: number, y: number, r: number, fill = 'none') =>
  `<circle cx="${x}" cy="${y}" r="${r}" fill="${fill}" stroke="${ink}" stroke-width="3"/>`;
const box = (x: number, y: number, w: number, h: number) =>
  `<rect x="${x}" y="${y}" width="${w}" height="${h}" rx="6" fill="none" stroke="${ink}" stroke-width="3"/>`;
const filled = (d: string, fill: string) => `<path d="${d}" fill="${fill}" fill-opacity="0.25"/>`;
const no = (x: number, y: number) =>
  line(`M${x - 9} ${y - 9}L${x + 9} ${y + 9}M${x + 9} ${y - 9}L${x - 9} ${y + 9}`, never, 4);

/** Small drawings of what is done with each load, 130 by 96. */
const DRAWINGS: Record<WallDrawing, string> = {
  pockets: [
    line('M22 12L44 6q20 14 42 0L108 12L116 40L100 46V88H30V46L14 40Z'),
    line('M58 46H88V66Q73 78 58 66Z'),
    line('M73 58C78 30 96 36 104 58M98 52l7 8l5 -9', water),
  ].join(''),
  dose: [
    line('M30 30L38 88H78L86 30'),
    filled('M34 58L38 88H78L82 58Z', water),
    line('M34 58q6 -5 12 0t12 0t12 0t12 0', water),
    line('M92 58H112M98 52l-8 6l8 6'),
    line('M34 44h8M36 72h8', seam),
  ].join(''),
  ajar: [
    box(20, 8, 70, 80),
    line('M20 22H90', seam),
    circle(52, 54, 22),
    line('M74 36C92 30 108 36 112 54C108 72 92 78 74 72'),
    line('M34 54c6 -5 10 5 16 0s10 5 16 0', air),
  ].join(''),
  fold: [
    circle(52, 48, 38),
    circle(52, 48, 26),
    filled('M32 72a32 32 0 0 0 40 0l-5 -7a24 24 0 0 1 -30 0Z', water),
    `<path d="M60 66L96 54Q110 52 112 64T98 84L74 88Z" fill="#fff" stroke="${ink}" stroke-width="3"/>`,
    line('M74 72l24 -8M78 80l22 -8', seam),
  ].join(''),
  screen: [
    line('M22 30H76V82Q49 92 22 82Z'),
    line('M22 42H76M22 54H76M22 66H76M22 78H76M36 30V84M49 30V86M62 30V84', seam, 2),
    line('M40 30V16H58V30'),
    line('M66 66c14 -16 30 -10 34 -2s-4 18 -14 14s-6 -14 4 -12s8 8 3 8', air),
    line('M96 44C104 36 106 26 104 18M97 24l7 -8l7 9'),
  ].join(''),
  flap: [
    line('M30 6V90M44 6V90M32 18l10 8M32 38l10 8M32 58l10 8M32 76l10 8', seam),
    line('M44 22Q82 24 86 62H44Z'),
    line('M46 62L62 84M60 66L74 88'),
    line('M82 70c8 4 4 10 12 14M94 62c8 4 4 10 14 14', air),
  ].join(''),
  tank: [
    box(16, 34, 66, 34),
    filled('M18 52H80V66H18Z', water),
    line('M18 52q8 -5 16 0t16 0t16 0t14 0', water),
    line('M82 51H112M104 43l8 8l-8 8'),
    line('M38 34V26H58V34', seam),
  ].join(''),
  oil: [
    line('M18 28L38 14q14 12 28 0L86 28L78 46L70 42V86H34V42L26 46Z'),
    line('M98 20c9 13 11 17 11 23a11 11 0 0 1 -22 0c0 -6 2 -10 11 -23Z', air),
    line('M48 58c5 7 6 9 6 12a6 6 0 0 1 -12 0c0 -3 1 -5 6 -12Z', air),
    no(98, 74),
  ].join(''),
  awake: [
    box(16, 22, 56, 66),
    line('M16 36H72', seam),
    circle(44, 60, 17),
    line('M108 22a20 20 0 1 0 10 28a16 16 0 0 1 -10 -28Z'),
    no(100, 74),
  ].join(''),
};

/** A drawing of its own. */
export const svg = (width: number, height: number, inside: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">${inside}</svg>`;

export const drawing = (name: WallDrawing): string => svg(130, 96, DRAWINGS[name]);

export const cross = (): string => svg(30, 30, no(15, 15));

/** A stitch: water is ribbed, air has a line along its middle; a knot at its head keeps people safe. */
export function stitch(thread: 'water' | 'air', knot: boolean): string {
  const colour = thread === 'water' ? water : air;
  const ply =
    thread === 'water'
      ? '<path d="M5.2 20.8L8.3 8.6" stroke="#fff" stroke-width="5" stroke-dasharray="1.3 3.4" stroke-opacity="0.7"/>'
      : '<path d="M5 21.500L8.500 7" stroke="#fff" stroke-width="1.500"/>';
  const head = knot ? `<circle cx="9" cy="5" r="4.4" fill="${ink}"/>` : '';
  return svg(16, 25, `${line('M5 21.500L8.500 7', colour, 5)}${ply}${head}`);
}

/** A thread that hangs beside the name of a machine. */
export const hanging = (thread: 'water' | 'air'): string =>
  svg(
    22,
    120,
    `${line('M11 2C16 40 6 80 11 118', thread === 'water' ? water : air, 7)}<path d="M11 2C16 40 6 80 11 118" fill="none" stroke="#fff" stroke-opacity="0.7" stroke-width="${thread === 'water' ? 7 : 2.1}" stroke-dasharray="${thread === 'water' ? '1.6 4.2' : '9 2.2'}"/>`,
  );

/** Modules of quiet round it: the standard asks for four (ISO/IEC 18004). */
const QUIET = 4;

/** An address as a QR code, dark on white. */
export function qr(address: string): string {
  const { modules } = create(address, { errorCorrectionLevel: 'M' });
  const { size } = modules;
  const edge = size + 2 * QUIET;
  const dark = Array.from({ length: size * size }, (_, i) =>
    modules.get(Math.floor(i / size), i % size)
      ? `M${(i % size) + QUIET} ${Math.floor(i / size) + QUIET}h1v1h-1z`
      : '',
  ).join('');
  return svg(
    edge,
    edge,
    `<path d="M0 0H${edge}V${edge}H0Z" fill="#fff"/><path d="${dark}" fill="#000"/>`,
  );
}
