import type { Machine, Supply, Used } from '../../model/schemas.js';
import { dayOf, daysBetween, type Day } from '../../units/calendar.js';
import { SUPPLIES } from '../catalogue/data/supplies.js';
import { many } from '../../units/many.js';
import { sayAmount } from '../../units/quantity.js';
import { knowsTask, taskOf } from '../catalogue/lookup.js';
import type { ProposedVisit } from '../visit/next.js';
import { usesOf, usuallyUsed } from '../catalogue/uses.js';
import { workAhead, type House, type WorkAhead } from '../schedule/year.js';
import { inOneGo } from '../../units/steps.js';

/** Something that changed a stock: counted, bought, or work that used some. */
export interface StockEvent {
  /** UTC instant, milliseconds. */
  at: number;
  kind: 'stock' | 'bought' | 'done';
  /** Of `stock` and `bought`. */
  supply?: string;
  value?: number;
  /** Of `done`. */
  machineId?: string;
  task?: string;
  used?: readonly Used[];
}

/** How a supply stands and when it has to be bought. */
export interface SupplyState {
  supply: Supply;
  /** In its unit; absent where it was never counted or bought. */
  left?: number;
  /** Used in a year at the intervals in force. */
  perYear: number;
  /** Tasks that use it, with how often what is left is enough. */
  uses: { task: string; name: string; amount: number; share: number; times?: number }[];
  /** The work that would run out of it, and when. */
  runsOut?: { on: Day; task: string; name: string; machineId: string };
  /** `now`: before the next work that needs it, or within a month. */
  buy: 'now' | 'later' | 'no';
}

/** A supply that a visit needs more of than is left. */
export interface ShortSupply {
  item: string;
  name: string;
  unit: Supply['unit'];
  needed: number;
  left: number;
  /** How much of it a person takes, and what there is, in words. */
  said: string;
}

const YEAR = 365;
const BUY_AHEAD_DAYS = 30;

/**
 * What is left of each supply: the last count, with what was bought since and less what was used.
 * @returns by item, in the supply's unit; no entry for what was never counted or bought
 */
export function stocks(
  events: readonly StockEvent[],
  machines: readonly Machine[],
): Map<string, number> {
  const left = new Map<string, number>();
  for (const event of [...events].sort((a, b) => a.at - b.at)) {
    if (event.kind === 'done') {
      for (const { supply, amount } of usedBy(event, machines)) {
        const before = left.get(supply);
        if (before !== undefined) left.set(supply, Math.max(0, before - amount));
      }
    } else if (event.supply !== undefined && event.value !== undefined) {
      const before = event.kind === 'bought' ? (left.get(event.supply) ?? 0) : 0;
      left.set(event.supply, before + event.value);
    }
  }
  return left;
}

function usedBy(
  { used, task, machineId }: StockEvent,
  machines: readonly Machine[],
): readonly Used[] {
  if (used) return used;
  const machine = machines.find(({ id }) => id === machineId);
  if (!machine || task === undefined || !knowsTask(machine, task)) return [];
  return usuallyUsed(usesOf(taskOf(machine, task), machine));
}

/** How the supplies stand, the most pressing first. */
export const supplyStates = (
  supplies: readonly Supply[],
  events: readonly StockEvent[],
  house: House,
): SupplyState[] => inOneGo(supplySteps(supplies, events, house));

/** The same, in steps. */
export function* supplySteps(
  supplies: readonly Supply[],
  events: readonly StockEvent[],
  house: House,
): Generator<undefined, SupplyState[]> {
  const left = stocks(events, house.machines);
  const today = dayOf(house.now, house.household.zone);
  const machines = new Map(house.machines.map((machine) => [machine.id, machine]));
  const work = (yield* workAhead(house, YEAR)).map((one) => {
    const machine = machines.get(one.machineId)!;
    return { ...one, uses: usesOf(one.task, machine) };
  });
  return supplies
    .map((supply) => stateOf(supply, left.get(supply.item), work, today))
    .sort((a, b) => RANK[a.buy] - RANK[b.buy] || byRunOut(a, b));
}

const RANK: Record<SupplyState['buy'], number> = { now: 0, later: 1, no: 2 };
const byRunOut = (a: SupplyState, b: SupplyState): number =>
  (a.runsOut?.on ?? '9999').localeCompare(b.runsOut?.on ?? '9999') ||
  a.supply.name.localeCompare(b.supply.name);

function stateOf(
  supply: Supply,
  left: number | undefined,
  work: readonly (WorkAhead & { uses: ReturnType<typeof usesOf> })[],
  today: Day,
): SupplyState {
  const using = work.flatMap((one) => {
    const use = one.uses.find((each) => each.supply === supply.item);
    return use ? [{ ...one, use }] : [];
  });
  const perYear = using.reduce((sum, { use }) => sum + use.expected, 0);
  const tasks = new Map(using.map(({ task, use }) => [task.id, { task, use }]));
  const uses = [...tasks.values()].map(({ task, use: { amount, share } }) => ({
    task: task.id,
    name: task.name,
    amount,
    share,
    ...(left === undefined ? {} : { times: Math.floor(left / amount + 1e-9) }),
  }));
  let rest = left ?? 0;
  // What is needed only now and then must still be there when it is.
  const out = using.find(({ use }) => {
    if (rest < use.amount - 1e-9) return true;
    rest -= use.expected;
    return false;
  });
  const runsOut = out && {
    on: out.on,
    task: out.task.id,
    name: out.task.name,
    machineId: out.machineId,
  };
  const buy = !runsOut ? 'no' : daysBetween(today, runsOut.on) <= BUY_AHEAD_DAYS ? 'now' : 'later';
  return {
    supply,
    ...(left === undefined ? {} : { left }),
    perYear,
    uses,
    ...(runsOut ? { runsOut } : {}),
    buy: supply.putAway ? 'no' : buy,
  };
}

/** Stands for a good amount of so many grams or millilitres. */
const SPOONFUL = 15;
const CUP = 250;

/**
 * How much a person takes of a supply, so that it can be pictured: `a strip of tape`, `2 pieces`, `10 ml, a spoonful`.
 * @param amount in the supply’s unit
 */
export function pictured(item: string, amount: number, unit: Supply['unit']): string {
  if (unit === 'pieces') {
    const portion = SUPPLIES.find(({ id }) => id === item)?.portion;
    if (amount < 1) return portion ?? 'part of one';
    return many(Math.ceil(amount - 1e-9), 'piece');
  }
  const told = sayAmount(amount, unit);
  if (amount <= 0 || amount > 2 * CUP) return told;
  const cups = Math.round((4 * amount) / CUP) / 4;
  if (unit === 'ml' && cups >= 0.25) {
    return `${told}, ${{ 0.25: 'a quarter of a cup', 0.5: 'half a cup', 0.75: 'three quarters of a cup', 1: 'a cup' }[cups] ?? `${cups} cups`}`;
  }
  const spoons = Math.round(amount / SPOONFUL);
  return spoons <= 1 ? `${told}, a spoonful` : `${told}, ${spoons} spoonfuls`;
}

/** What a visit always needs and is not enough of in the house. Supplies not kept are not spoken of. */
export function shortFor(
  visit: Pick<ProposedVisit, 'tasks'>,
  supplies: readonly Supply[],
  events: readonly StockEvent[],
  machines: readonly Machine[],
): ShortSupply[] {
  const kept = supplies.filter(({ putAway }) => !putAway);
  if (kept.length === 0) return [];
  const left = stocks(events, machines);
  const needed = new Map<string, number>();
  for (const { machineId, task } of visit.tasks) {
    const machine = machines.find(({ id }) => id === machineId)!;
    for (const { supply, amount } of usuallyUsed(usesOf(taskOf(machine, task), machine))) {
      needed.set(supply, (needed.get(supply) ?? 0) + amount);
    }
  }
  return kept.flatMap(({ item, name, unit }): ShortSupply[] => {
    const need = needed.get(item) ?? 0;
    const rest = left.get(item);
    return rest !== undefined && rest < need
      ? [{ item, name, unit, needed: need, left: rest, said: sayShort(item, unit, need, rest) }]
      : [];
  });
}

/** What a year of a school costs in supplies. */
export interface YearCost {
  /** In the household's money, for the supplies whose price is known. */
  money: number;
  /** Supplies in use whose price is not known. */
  unpriced: number;
}

/** Money for the supplies that a year uses up, by the price of a pack. */
export function costOf(
  { supplies: used }: { supplies: Record<string, number> },
  kept: readonly Supply[],
): YearCost {
  return Object.entries(used).reduce<YearCost>(
    (sum, [item, amount]) => {
      const supply = kept.find((one) => one.item === item);
      return supply?.price === undefined
        ? { ...sum, unpriced: sum.unpriced + 1 }
        : { ...sum, money: sum.money + (amount / supply.pack) * supply.price };
    },
    { money: 0, unpriced: 0 },
  );
}

const sayShort = (item: string, unit: Supply['unit'], need: number, left: number): string =>
  left <= 0
    ? `is used up; this visit takes ${pictured(item, need, unit)}`
    : `${pictured(item, left, unit)} left; this visit takes ${pictured(item, need, unit)}`;
