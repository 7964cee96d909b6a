import { historyUpTo } from '../care/record/up-to.js';
import { hindsight, type Hindsight } from '../care/hindsight/hindsight.js';
import type { House } from '../care/schedule/year.js';
import type { CaseRecord } from '../model/schemas.js';
import { firstSuspected } from '../trouble/cases/first-suspects.js';
import { situationOf } from '../trouble/diagnosis/situation.js';

/** How well the program foretold: what openings showed, and what was wrong. */
export interface HindsightView extends Hindsight {
  /** Of cases that were put right: how many, of how many the cause was suspected first or among the first three. */
  cases: {
    count: number;
    first: number;
    third: number;
    /** Mean chance that was said of what was suspected first, and its Brier score: 0 is sure and right, 1 sure and wrong. */
    said?: number;
    brier?: number;
  };
}

/** Goes through the record of a house once more. It takes its time. */
export function hindsightView(house: House, cases: readonly CaseRecord[]): HindsightView {
  const judged = cases.flatMap((record) => {
    const i = house.machines.findIndex(({ id }) => id === record.machineId);
    const opened = Date.parse(record.events[0]?.at ?? '');
    if (i < 0 || Number.isNaN(opened)) return [];
    const history = historyUpTo(house.histories[i]!, opened);
    const { situation } = situationOf(house.machines[i]!, house.household, history, opened);
    return firstSuspected(record, situation) ?? [];
  });
  const upTo = (place: number) => judged.filter((one) => (one.place ?? Infinity) <= place).length;
  const squares = judged.map(({ said, place }) => (said - (place === 1 ? 1 : 0)) ** 2);
  return {
    ...hindsight(house),
    cases: {
      ...{ count: judged.length, first: upTo(1), third: upTo(3) },
      ...(judged.length
        ? { said: mean(judged.map(({ said }) => said)), brier: mean(squares) }
        : {}),
    },
  };
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;
