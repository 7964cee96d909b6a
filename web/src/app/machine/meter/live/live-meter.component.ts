import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import type { Meter, StandInDraft } from '@needlecase/core/model/meters';
import { STAND_IN_BROKER, type STAND_INS } from '@needlecase/core/model/stand-ins';
import { scaleLinear } from 'd3-scale';
import { area, curveStepAfter } from 'd3-shape';
import { ReadableDirective } from '../../../charts/readable.directive';
import { RoleService } from '../../../data/role.service';
import { SelectComponent } from '../../../shared/select.component';
import { clockOf } from '../power-day.component';

type Programme = (typeof STAND_INS)[number];

const [WIDTH, HEIGHT, TOP] = [400, 96, 8];
const LEAST_TOP = 60;
/** Who has said nothing for so long is silent, ms. */
const SILENT = 5 * 60_000;

const isOld = (at: string | undefined): boolean =>
  at !== undefined && Date.now() - Date.parse(at) > SILENT;

/** A meter that speaks as it goes on: its watts now, the last hour of them, and how it is reached. */
@Component({
  selector: 'nc-live-meter',
  imports: [ReadableDirective, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './live-meter.component.html',
  styleUrl: './live-meter.component.scss',
})
export class LiveMeterComponent {
  readonly meter = input.required<Meter>();
  readonly zone = input('UTC');
  readonly line = input<'water' | 'air'>('water');
  /** Told this once. */
  readonly token = input<string>();
  readonly busy = input(false);
  protected readonly role = inject(RoleService);
  protected readonly leaving = signal(false);
  readonly renew = output();
  readonly alter = output();
  readonly remove = output();
  readonly run = output<StandInDraft>();

  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;
  readonly #clock = computed(() => clockOf(this.zone()));

  protected readonly watts = computed(() => {
    const { newest, lately } = this.meter();
    return newest && Math.round(newest.watts ?? lately.findLast((one) => one !== null) ?? 0);
  });
  protected readonly silent = computed(() => isOld(this.meter().heard));
  protected readonly said = computed(() => {
    const { newest, running, heard } = this.meter();
    if (!newest || !heard) return 'Nothing has come from it yet.';
    const clock = this.#clock();
    if (this.silent()) return `Nothing since ${clock.format(Date.parse(heard))}.`;
    const at = `${isOld(newest.at) ? 'Catching up, at' : 'At'} ${clock.format(Date.parse(newest.at))}.`;
    if (!running) return `${at} No load runs.`;
    const { from, wattHours } = running;
    const kWh = (wattHours / 1000).toFixed(2);
    return `${at} A load runs since ${clock.format(Date.parse(from))}: ${kWh} kWh so far.`;
  });
  protected readonly brokerSays = computed(() => {
    const { broker } = this.meter();
    if (!broker) return '';
    const since = this.#clock().format(Date.parse(broker.since));
    return {
      calls: 'Calling the broker.',
      listens: broker.says ?? '',
      refused: broker.says ?? 'The broker lets nobody in.',
      away: `The broker is away since ${since}, and is called again. ${broker.says ?? ''}`,
    }[broker.state];
  });
  protected readonly standsIn = computed(() => this.meter().mqtt?.broker === STAND_IN_BROKER);
  protected readonly programmes = computed((): readonly Programme[] =>
    this.line() === 'air'
      ? ['vented', 'condenser', 'heat-pump']
      : ['cotton', 'quick', 'hot', 'cold', 'soak'],
  );
  protected readonly programme = linkedSignal(() => this.programmes()[0]!);
  protected readonly speed = signal<number>(60);
  protected readonly speeds = [1, 60, 300];
  protected readonly sayProgramme = (one: string): string => one.replace('-', ' ');
  protected readonly saySpeed = (one: number): string =>
    one === 1 ? 'as fast as the clock' : `${one} times as fast`;
  /** An instant for the line that shows how to send one. */
  protected readonly seconds = Math.floor(Date.now() / 1000);

  protected readonly top = computed(() =>
    Math.max(LEAST_TOP, ...this.meter().lately.map((one) => one ?? 0)),
  );
  protected readonly path = computed(() => {
    const { lately } = this.meter();
    const x = scaleLinear([0, Math.max(1, lately.length)], [0, WIDTH]);
    const y = scaleLinear([0, this.top()], [HEIGHT, TOP]);
    return (
      area<number | null>()
        .defined((watts) => watts !== null)
        .x((_, i) => x(i))
        .y0(HEIGHT)
        .y1((watts) => y(watts ?? 0))
        .curve(curveStepAfter)([...lately]) ?? ''
    );
  });
  /** At which a script elsewhere in the house reaches it. */
  protected readonly address = computed(
    () => `${this.role.me()?.origin ?? location.origin}/api/v1/meters/${this.meter().id}/samples`,
  );
}
