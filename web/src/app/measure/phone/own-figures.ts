import { inject, signal, type Signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { takenWith } from '@needlecase/core';
import {
  againstOwn,
  type AgainstOwn,
  type OwnFigure,
} from '@needlecase/core/measure/phone/against-own';
import { trendOf, type ChartPoint } from '@needlecase/core/views/charts';
import { catchError, of } from 'rxjs';
import { ChartsService } from '../../data/charts.service';
import { Measuring } from '../parts/measuring';
import { ThisPhone } from './this-phone';

/** What this phone told of this machine before, in this place. */
export class OwnFigures {
  readonly #charts;
  readonly #phone = inject(ThisPhone);
  readonly #again = signal(0);

  constructor(readonly place: Signal<string>) {
    const measuring = inject(Measuring);
    const charts = inject(ChartsService);
    this.#charts = rxResource({
      params: () => ({ id: measuring.machineId(), again: this.#again() }),
      stream: ({ params: { id } }) =>
        id ? charts.of(id).pipe(catchError(() => of(undefined))) : of(undefined),
    });
  }

  /** Whether the record was read: before that, nothing is the first. */
  readonly known = (): boolean => this.#charts.value() !== undefined;

  /** What a figure is against its own, in words. */
  say(figure: OwnFigure, value: number): string {
    return this.known()
      ? sayAgainst(figure, this.against(figure, value))
      : 'What this phone told before cannot be read just now: there is no connection, or no machine of yours.';
  }

  /** The earlier figures of a quantity, the oldest first. */
  before(figure: OwnFigure): ChartPoint[] {
    const taken = takenWith({ device: this.#phone.name(), placement: this.place() });
    const all = this.#charts.value()?.series ?? [];
    return all.find((one) => one.taken === taken && one.id === `${figure} ${taken}`)?.points ?? [];
  }

  against(figure: OwnFigure, value: number): AgainstOwn | undefined {
    return againstOwn(figure, value, this.before(figure));
  }

  /** By which share of itself it grows in a year; nothing where the record is too short to tell. */
  growth(figure: OwnFigure): number | undefined {
    return growthOf(this.before(figure));
  }

  /** Once a figure was kept. */
  refresh(): void {
    this.#again.update((n) => n + 1);
  }
}

const MONTHS = 365.25 / 30;

/** By which share of itself a figure grows in a year. */
export function growthOf(points: readonly ChartPoint[]): number | undefined {
  const trend = trendOf(points);
  return trend && trend.start > 0 ? (MONTHS * trend.monthly) / trend.start : undefined;
}

/** For the construction of a component: what this phone told before, in a place. */
export const injectOwn = (place: Signal<string>): OwnFigures => new OwnFigures(place);

/** What it is against its own, in words. */
export function sayAgainst(figure: OwnFigure, one: AgainstOwn | undefined): string {
  if (!one) return 'The first of this phone in this place. The next is held against it.';
  const times = `${Math.round(100 * one.change)} %`;
  const of =
    figure === 'screen-light' || figure === 'sieve-light'
      ? 'its best, when it was washed'
      : one.of === 1
        ? 'the one before'
        : `the middle of the ${one.of} before`;
  const far =
    figure === 'sound-level'
      ? `${Math.abs(one.change).toFixed(0)} dB ${one.change < 0 ? 'below' : 'above'} ${of}`
      : `${times} of ${of}`;
  return {
    'as usual': `As usual: ${far}.`,
    better: `Better: ${far}.`,
    worse: `Clearly off: ${far}.`,
  }[one.is];
}
