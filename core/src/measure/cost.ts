import { dryLoad, type DrumLoad } from './air/drum.js';
import { ROOM_DRY } from './air/moisture.js';
import {
  MeasureProblem,
  readFields,
  type Fields,
  type Given,
  type Working,
} from './input/fields.js';

export const COST_FIELDS = {
  flowNow: { label: 'Air now', dimension: 'flow', least: 0.004, most: 0.2 },
  flowClean: { label: 'Air when clean', dimension: 'flow', least: 0.004, most: 0.2 },
  dry: { label: 'Dry cloth a load', dimension: 'mass', least: 0.2, most: 15 },
  moisture: {
    label: 'Moisture at the start',
    dimension: 'ratio',
    least: 0.1,
    most: 3,
    seldom: true,
  },
  heater: { label: 'Heater', dimension: 'power', least: 500, most: 8000, seldom: true },
  room: { label: 'Room', dimension: 'temperature', least: -10, most: 45, seldom: true },
} as const satisfies Fields;

export interface CostQuestion {
  /** Price of a kWh, in the household's money. */
  price: number;
  loadsPerWeek: number;
}

export interface RunningCost {
  now: { minutes: number; energy: number };
  clean: { minutes: number; energy: number };
  /** Both get dry within five hours; where not, there is nothing to compare. */
  dries: boolean;
  /** What stands in the way of a comparison, in a sentence. */
  says?: string;
  /** A year, at this many loads; absent where it does not get dry. */
  year?: {
    loads: number;
    energy: number;
    money: number;
    hours: number;
    extraEnergy: number;
    extraMoney: number;
    extraHours: number;
  };
  working: Working[];
}

/** Weeks of a year: 365.25 days. */
const WEEKS = 52.18;
/** Moisture of cloth that is dry enough to be put away, kg/kg of bone-dry cloth. */
const TARGET = ROOM_DRY;
/** Less air saves at most so much of a load's energy: past that it is the model's own coarseness. Judgement. */
const MOST_SAVED = 0.02;

/** What today's restriction costs a year against a clean way, by the drum model. @throws MeasureProblem */
export function runningCost(
  given: Given<typeof COST_FIELDS>,
  { price, loadsPerWeek }: CostQuestion,
): RunningCost {
  const { flowNow, flowClean, dry, moisture, heater, room } = readFields(given, COST_FIELDS);
  const problems = [];
  if (flowNow > flowClean * (1 + 1e-9)) {
    problems.push({ field: 'flowNow', message: 'Give at most the air of the clean way.' });
  }
  if (!(price >= 0 && price <= 10)) {
    problems.push({ field: 'price', message: 'Give a number from 0 to 10 a kWh.' });
  }
  if (!(loadsPerWeek >= 0 && loadsPerWeek <= 70)) {
    problems.push({ field: 'loadsPerWeek', message: 'Give a number from 0 to 70.' });
  }
  if (problems.length) throw new MeasureProblem(problems);
  const at = (flow: number) => {
    const load: DrumLoad = { dry, moisture, target: TARGET, flow, heater, room, humidity: 0.5 };
    const { minutes, energy, dried } = dryLoad(load);
    return { minutes, energy, dried };
  };
  const [now, clean] = [at(flowNow), at(flowClean)];
  const dries = now.dried && clean.dried;
  const loads = loadsPerWeek * WEEKS;
  const extra = Math.max(now.energy - clean.energy, -MOST_SAVED * clean.energy);
  const extraEnergy = extra * loads;
  const year = {
    loads,
    energy: now.energy * loads,
    money: now.energy * loads * price,
    hours: (now.minutes * loads) / 60,
    extraEnergy,
    extraMoney: extraEnergy * price,
    extraHours: ((now.minutes - clean.minutes) * loads) / 60,
  };
  const load = ({ minutes, energy, dried }: typeof now) =>
    dried ? `${Math.round(minutes)} min, ${energy.toFixed(2)} kWh` : 'not dry after 5 h';
  const bare = ({ minutes, energy }: typeof now) => ({ minutes, energy });
  return {
    now: bare(now),
    clean: bare(clean),
    dries,
    ...(dries
      ? { year }
      : {
          says: now.dried
            ? 'Even with the air of the clean way this load does not get dry in five hours. Give less cloth, or what it weighs wet.'
            : 'With this air the load does not get dry in five hours: no money is saved, it is not done. Clear the way first.',
        }),
    working: [
      { what: 'A load', how: `now ${load(now)}; clean ${load(clean)} (drum model)` },
      { what: 'A year', how: `${Math.round(loads)} loads at ${price} a kWh` },
    ],
  };
}
