import { hasDuct, isDryer, isWasher } from '../../model/vocabulary.js';
import type { Machine } from '../../model/schemas.js';
import { yearsBetween, type Day } from '../../units/calendar.js';
import { LASTS, moreAfter, spread } from '../../measure/repair.js';
import type { Due } from '../schedule/due.js';

/** What to look for in a next machine, and what of this one's record says so. */
export interface Wish {
  look: string;
  because: string;
}

/** Help when choosing a new machine: what to look for, and whether to repair or to replace. */
export interface Choosing {
  wishes: Wish[];
  repair: string;
}

/** A find of this grade or worse is trouble. */
const HEAVY = 3;
/** Share of its price up to which a repair of a new machine pays. Common practice. */
const PAYS_UP_TO = 0.5;

/**
 * What the record of a machine says for the choice of the next one. Common practice.
 * @param dues its tasks as they stand, with what was seen
 */
export function choosing(
  machine: Pick<Machine, 'kind' | 'features' | 'identity' | 'inUseSince'>,
  dues: readonly Pick<Due, 'task' | 'evidence'>[],
  today: Day,
): Choosing {
  const { kind, features, identity = {}, inUseSince } = machine;
  const heavy = (task: string): number =>
    dues.find((one) => one.task === task)?.evidence.filter(({ grade = 0 }) => grade >= HEAVY)
      .length ?? 0;
  const times = (n: number) => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`);
  const wishes: (Wish | false)[] = [
    isWasher(kind) &&
      features.filterAccess !== 'front-left' &&
      features.filterAccess !== 'front-right' && {
        look: 'A flap at the front with the pump filter behind it, and a thin hose to drain it by.',
        because: 'On this one the filter is not reached from the front, or was not found yet.',
      },
    isWasher(kind) &&
      features.drainDownHose === 'no' && {
        look: 'A drain-down hose beside the filter.',
        because: 'Without one the water runs straight out of the filter, and the floor gets wet.',
      },
    heavy('pump-filter') > 1 && {
      look: 'A wide pump filter that is quickly reached.',
      because: `It was found heavy or blocked ${times(heavy('pump-filter'))}.`,
    },
    heavy('gasket-folds') > 1 && {
      look: 'A gasket whose fold is rinsed, or a smooth one that is easily wiped.',
      because: `Its folds were found heavy ${times(heavy('gasket-folds'))}.`,
    },
    isDryer(kind) &&
      features.blowerAccess !== 'yes' && {
        look: 'A blower wheel that is reached from below the lint screen.',
        because: 'On this one it is reached only from inside, by a professional.',
      },
    hasDuct(kind) &&
      heavy('duct-run') + heavy('hood') > 1 && {
        look: 'A blower made for the length of your duct, by the maker’s own table; or a heat pump, which needs none.',
        because: `Duct or hood were found heavy ${times(heavy('duct-run') + heavy('hood'))}.`,
      },
    heavy('heat-exchanger') > 1 && {
      look: 'A heat exchanger that comes out and is rinsed under a shower.',
      because: `It was found heavy ${times(heavy('heat-exchanger'))}.`,
    },
  ];
  const since = identity.boughtOn ?? inUseSince;
  const age = since && since <= today ? yearsBetween(since, today) : undefined;
  return {
    wishes: wishes.filter((one) => one !== false),
    repair: sayRepair(age, identity.price, identity.warrantyUntil, today),
  };
}

/** Repair or replace: by the warranty, the age, and what a new one costs. */
function sayRepair(
  age: number | undefined,
  price: number | undefined,
  warranty: Day | undefined,
  today: Day,
): string {
  if (warranty && warranty >= today) return 'It is under warranty: the seller comes first.';
  if (age === undefined) {
    return `Enter when it was bought and for how much, and this says up to which bill a repair pays: such machines last some ${LASTS} years (common practice).`;
  }
  const left = Math.max(0, 1 - age / LASTS);
  const years = `${age.toFixed(0)} of some ${LASTS} years`;
  if (price === undefined) {
    return left > 0.3
      ? `It has run ${years}: a repair pays up to about ${Math.round(100 * PAYS_UP_TO * left)} % of what a new one costs.`
      : `It has run ${years}: only a small repair pays. What you clean yourself costs nothing and always does.`;
  }
  return `It has run ${years}: a repair pays up to about ${Math.round(spread(price, LASTS, 0) * moreAfter(age))} in your money, half of its price times what it has left. What you clean yourself costs nothing and always does.`;
}
