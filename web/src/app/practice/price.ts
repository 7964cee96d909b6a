import { inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { Household, PracticeAction } from '@needlecase/core';
import { BenchService } from '../data/bench.service';
import { sayMoney } from '../shared/say-money';

type Money = Partial<Pick<Household, 'currency' | 'energyPrice'>>;
type Priced = Pick<PracticeAction, 'minutes' | 'waits' | 'spills' | 'money' | 'done' | 'back'>;

/** Price of a kWh where an hour of a technician costs what practice says; other money is worth more or less. Judgement. */
const USUAL_KWH = 0.3;
const DIGITS = 2;

const litres = (value: number): string => `${Math.round(10 * value) / 10} L`;

/** About so much, in the household's own money: what a kWh costs there tells what its money is worth. */
export function sayAbout(money: number, { currency, energyPrice }: Money = {}): string {
  const worth = currency && energyPrice ? energyPrice / USUAL_KWH : 1;
  return `about ${sayMoney(Number((money * worth).toPrecision(DIGITS)), currency)}`;
}

/** What something costs, in a few words: minutes, what is waited, what runs on the floor, money. */
export function sayPrice(
  { minutes, waits, spills, money, done, back }: Priced,
  household?: Money,
): string {
  if (done && !back) return '';
  return [
    ...(back ? [back.toLowerCase()] : []),
    `${Math.round(minutes)} min`,
    ...(waits >= 1 ? [`waits ${sayWait(waits)}`] : []),
    ...(spills > 0 ? [`spills ${litres(spills)}`] : []),
    ...(money > 0 ? [sayAbout(money, household)] : []),
  ].join(', ');
}

/** Says prices in the money of this household. */
export function injectPrice(): (one: Priced) => string {
  const household = injectHousehold();
  return (one) => sayPrice(one, household());
}

/** Says money as this household has it. */
export function injectAbout(): (money: number) => string {
  const household = injectHousehold();
  return (money) => sayAbout(money, household());
}

function injectHousehold(): () => Household | undefined {
  const loaded = toSignal(inject(BenchService).bench$);
  return () => loaded()?.value?.household;
}

const sayWait = (minutes: number): string =>
  minutes < 90 ? `${Math.round(minutes)} min` : `${Math.round(minutes / 60)} h`;
