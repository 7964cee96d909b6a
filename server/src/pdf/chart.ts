import type { SheetChart } from '@needlecase/core/print/sheet';
import { PAPER, svg } from './drawings.js';

const [WIDE, HIGH] = [250, 120];
const PLOT = { left: 34, right: 246, top: 8, bottom: 92 } as const;

/** A figure along time for paper: its thread, what it is when clean, what was done as marks at the hem. */
export function chartOf({ points, marks, from, to, clean, thread, ends }: SheetChart): string {
  const values = [...points.map(({ value }) => value), ...(clean === undefined ? [] : [clean])];
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const room = 0.1 * (high - low || Math.abs(high) || 1);
  const [floor, ceiling] = [low - room, high + room];
  const x = (at: number): string =>
    (PLOT.left + ((PLOT.right - PLOT.left) * (at - from)) / Math.max(1, to - from)).toFixed(1);
  const y = (value: number): string =>
    (PLOT.bottom - ((PLOT.bottom - PLOT.top) * (value - floor)) / (ceiling - floor)).toFixed(1);
  const { ink, soft, seam, never } = PAPER;
  const say = (value: number): string => String(Number(value.toPrecision(3)));
  const words = (at: string, up: string, text: string, anchor: string): string =>
    `<text x="${at}" y="${up}" font-size="8" fill="${soft}" text-anchor="${anchor}">${text}</text>`;
  const colour = PAPER[thread];
  const line = points.map(({ at, value }) => `${x(at)} ${y(value)}`).join('L');
  const hem = PLOT.bottom + 4;
  return svg(
    WIDE,
    HIGH,
    [
      `<path d="M${PLOT.left} ${PLOT.bottom}H${PLOT.right}" stroke="${ink}" stroke-width="1" fill="none"/>`,
      ...[low, high].map(
        (value) =>
          `<path d="M${PLOT.left} ${y(value)}H${PLOT.right}" stroke="${seam}" stroke-width="0.4" fill="none"/>${words(String(PLOT.left - 3), String(Number(y(value)) + 3), say(value), 'end')}`,
      ),
      clean === undefined
        ? ''
        : `<path d="M${PLOT.left} ${y(clean)}H${PLOT.right}" stroke="${ink}" stroke-width="0.8" stroke-dasharray="4 3" fill="none"/>`,
      `<path d="M${line}" stroke="${colour}" stroke-width="1.8" fill="none" stroke-linejoin="round"/>`,
      ...(points.length > 60
        ? []
        : points.map(
            ({ at, value }) => `<circle cx="${x(at)}" cy="${y(value)}" r="1.8" fill="${colour}"/>`,
          )),
      ...marks.map(({ at, kind }) => {
        const left = Number(x(at));
        switch (kind) {
          case 'cleaned':
            return `<path d="M${left - 1.5} ${hem + 8}L${left + 1.5} ${hem}" stroke="${ink}" stroke-width="1.8"/>`;
          case 'looked':
            return `<circle cx="${left}" cy="${hem + 4}" r="2.2" stroke="${ink}" fill="none" stroke-width="0.8"/>`;
          case 'replaced':
            return `<path d="M${left - 2.5} ${hem + 1.5}h5v5h-5z" fill="${ink}"/>`;
          case 'case':
            return `<path d="M${left - 3} ${hem + 1}l6 6m0 -6l-6 6" stroke="${never}" stroke-width="1.2"/>`;
        }
      }),
      words(String(PLOT.left), '116', ends[0], 'start'),
      words(String(PLOT.right), '116', ends[1], 'end'),
    ].join(''),
  );
}
