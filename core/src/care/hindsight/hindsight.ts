import type { House } from '../schedule/year.js';
import { foretold, type Foretold } from './foretold.js';
import { insideOf, judge, widthFor, type Judged } from './judged.js';

/** How well was foretold what openings showed: as it would have been with nothing changed, and with the own width. */
export interface Hindsight {
  /** How many times wider this household's ranges are held. */
  widened: number;
  /** Without and with it; not there where nothing was opened. */
  before?: Judged;
  after?: Judged;
  /** With it, by line. */
  lines: Partial<Record<Foretold['line'], Judged>>;
}

/** Goes through all openings of a house once more. */
export function hindsight({ machines, histories, household, now }: House): Hindsight {
  const at = (width: number): Foretold[] =>
    machines.flatMap((machine, i) => foretold(machine, histories[i]!, household, now, width));
  const plain = at(1);
  const before = judge(plain);
  if (!before) return { widened: 1, lines: {} };
  const shareAt = (width: number): number => {
    const all = width === 1 ? plain : at(width);
    return all.reduce((sum, one) => sum + insideOf(one), 0) / all.length;
  };
  const widened = Math.round(100 * widthFor(shareAt, before.openings)) / 100;
  const wide = at(widened);
  const after = judge(wide);
  const lines = [...new Set(wide.map(({ line }) => line))].sort();
  return {
    ...{ widened, before },
    ...(after ? { after } : {}),
    lines: Object.fromEntries(
      lines.map((line) => [line, judge(wide.filter((one) => one.line === line))!]),
    ),
  };
}
