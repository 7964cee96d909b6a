import { stationById, taskById } from '../../care/catalogue/lookup.js';
import type { LoadCycle } from '../../model/schemas.js';
import {
  CONDENSING,
  DRYERS,
  isWasher,
  WASHERS,
  type MachineKind,
  type SignalFigure,
} from '../../model/vocabulary.js';
import type { PriorSpread } from './baseline.js';
import { DRIFT_LIMITS } from './drift.js';
import type { CusumLimits } from './cusum.js';

/** A load that a meter told, as drift looks at it. UTC milliseconds. */
export interface MeteredLoad {
  id: string;
  from: number;
  to: number;
  cycle: Pick<LoadCycle, 'to' | 'wattHours' | 'unread' | 'peak' | 'duty' | 'wash' | 'name'>;
}

/** A figure of loads that is watched for a change to the worse; larger is worse. */
export interface Watched {
  figure: Exclude<SignalFigure, 'drain'>;
  kinds: readonly MachineKind[];
  /** What is told of it in a case of trouble. */
  finding: string;
  /** Between loads of one machine, of the figure's natural logarithm. Judgement; checked in the specs. */
  prior: PriorSpread;
  limits: CusumLimits;
  /** Less of a change is within what nobody would do anything about, per cent. Judgement. */
  least: number;
  /** The figure, and what of it is shown where that is another; nothing where a load does not tell it. */
  of: (load: MeteredLoad, kind: MachineKind) => { value: number; shown: number } | undefined;
  /** Compared with loads of the same programme only. */
  byProgramme?: true;
  /** It goes with the warmth of the room. */
  seasonal?: true;
}

const MINUTE = 60_000;
/** A drying that is shorter or takes less tells nothing. */
const LEAST_MINUTES = 15;
const LEAST_WATT_HOURS = 300;
/** Three figures of a washer are watched, with as many false signals together as the one of a dryer has. */
const OF_THREE: CusumLimits = { k: 0.5, h: 6.4 };

const minutesOf = ({ from, to }: MeteredLoad): number => (to - from) / MINUTE;
/** In a machine that washes as well, only what heats all along is dried. */
const dries = (load: MeteredLoad, kind: MachineKind): boolean =>
  minutesOf(load) >= LEAST_MINUTES &&
  load.cycle.wattHours >= LEAST_WATT_HOURS &&
  (!isWasher(kind) || load.cycle.duty !== undefined);
const plain = (value: number | undefined): { value: number; shown: number } | undefined =>
  value === undefined || value <= 0 ? undefined : { value, shown: value };

export const WATCHED: readonly Watched[] = [
  {
    figure: 'drying',
    kinds: DRYERS,
    finding: 'slow-drift',
    prior: { sigma: 0.1, loads: 10 },
    limits: DRIFT_LIMITS,
    least: 8,
    seasonal: true,
    // The energy stands for the water in the load.
    of: (load, kind) => {
      const minutes = minutesOf(load);
      return dries(load, kind)
        ? { value: minutes / (load.cycle.wattHours / 1000), shown: minutes }
        : undefined;
    },
  },
  {
    // A compressor works against more pressure where its air is short.
    figure: 'power',
    kinds: CONDENSING,
    finding: 'slow-drift',
    prior: { sigma: 0.05, loads: 10 },
    limits: OF_THREE,
    least: 8,
    seasonal: true,
    of: (load, kind) => (dries(load, kind) ? plain(load.cycle.peak) : undefined),
  },
  {
    figure: 'heating',
    kinds: WASHERS,
    finding: 'long-heating',
    prior: { sigma: 0.05, loads: 10 },
    limits: OF_THREE,
    least: 10,
    byProgramme: true,
    of: ({ cycle }) => plain(cycle.wash?.perKwh),
  },
  {
    figure: 'filling',
    kinds: WASHERS,
    finding: 'slow-fill',
    prior: { sigma: 0.2, loads: 10 },
    limits: OF_THREE,
    least: 25,
    byProgramme: true,
    of: ({ cycle }) => plain(cycle.wash?.toHeat),
  },
  {
    figure: 'spins',
    kinds: WASHERS,
    finding: 'spin-tries',
    prior: { sigma: 0.2, loads: 10 },
    limits: OF_THREE,
    least: 40,
    byProgramme: true,
    // One more, since a programme may have none.
    of: ({ cycle }) =>
      cycle.wash?.spins === undefined
        ? undefined
        : { value: cycle.wash.spins + 1, shown: cycle.wash.spins },
  },
];

/** Programmes that end with the pump running. */
export const DRAIN = { figure: 'drain', kinds: WASHERS, finding: 'code-drain' } as const;

const OF_WATER: Record<string, readonly string[]> = {
  heating: ['descale'],
  filling: ['inlet-screen', 'fill-hose'],
  spins: ['level', 'pump-filter', 'drain-hose'],
  drain: ['pump-filter', 'drain-hose'],
};

/** Whether a clean that was proved makes what is usual of a figure another: of the air, or of the station itself. */
export function endedBy(figure: SignalFigure, task: string): boolean {
  const own = OF_WATER[figure];
  if (own) return own.includes(task);
  try {
    return stationById(taskById(task).station).line === 'air';
  } catch {
    return false;
  }
}
