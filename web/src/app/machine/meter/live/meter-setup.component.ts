import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  model,
  output,
} from '@angular/core';
import { isWasher, type BenchView, type FieldProblem } from '@needlecase/core';
import type { Meter, MeterDraft } from '@needlecase/core/model/meters';
import { STAND_IN_BROKER } from '@needlecase/core/model/stand-ins';
import { newId } from '../../../data/platform';
import { fieldsOf } from '../../../shared/form-of';
import { SelectComponent } from '../../../shared/select.component';

type Machine = BenchView['machines'][number];
type Way = 'sends' | 'broker' | 'stand-in';
const WAYS: Readonly<Record<Way, string>> = {
  sends: 'A script or the plug sends it (HTTP)',
  broker: 'It speaks to a broker (MQTT)',
  'stand-in': 'None yet: one that stands in',
};
const UNITS = ['W', 'kW', 'Wh', 'kWh'] as const;

/** What a broker is listened to for. */
const FIELDS = [
  { name: 'broker', say: 'The broker’s address', such: 'mqtt://broker.example:1883' },
  { name: 'topic', say: 'The topic of this plug alone', such: 'cellar/plug/power' },
  { name: 'figure', say: 'Where the figure is, if it is JSON', such: '/energy/power' },
  { name: 'instant', say: 'Where its time is, if it tells one', such: '/time' },
] as const;

/** Setting up a meter that speaks as it goes on. */
@Component({
  selector: 'nc-meter-setup',
  imports: [SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './meter-setup.component.html',
  styleUrl: './meter-setup.component.scss',
})
export class MeterSetupComponent {
  readonly machine = input.required<Machine>();
  /** The one that is changed; none where one is set up. */
  readonly meter = input<Meter>();
  readonly machines = input.required<readonly Machine[]>();
  /** A plug is at hand that stands in for a real one. */
  readonly standIn = input(false);
  readonly problems = input<readonly FieldProblem[]>([]);
  readonly busy = input(false);
  readonly open = model(false);
  readonly setUp = output<MeterDraft>();

  protected readonly fields = FIELDS;
  protected readonly way = linkedSignal((): Way => (this.meter()?.mqtt ? 'broker' : 'sends'));
  /** A retry names the same meter. */
  readonly #id = newId();
  protected readonly ways = computed((): readonly Way[] =>
    this.standIn() ? ['sends', 'broker', 'stand-in'] : ['sends', 'broker'],
  );
  protected readonly sayWay = (way: Way): string => WAYS[way];
  protected readonly unit = linkedSignal(() => this.meter()?.mqtt?.unit ?? 'W');
  protected readonly given = (field: (typeof FIELDS)[number]['name']): string =>
    this.meter()?.mqtt?.[field] ?? '';
  protected readonly units = UNITS;
  protected readonly sayUnit = (unit: string): string =>
    unit.endsWith('h') ? `${unit}, a counter that runs on` : unit;

  readonly #placed = computed(
    () => this.machines().find(({ id }) => id === this.place()) ?? this.machine(),
  );
  /** Dryers that may share the socket of a washer. */
  protected readonly dryers = computed(() =>
    isWasher(this.#placed().kind) ? this.machines().filter(({ kind }) => !isWasher(kind)) : [],
  );
  protected readonly dryer = linkedSignal(() => this.meter()?.dryerId);
  protected readonly dryerIds = computed(() => [undefined, ...this.dryers().map(({ id }) => id)]);
  /** Where it is: it may have gone to another machine. */
  protected readonly place = linkedSignal(() => this.meter()?.machineId ?? this.machine().id);
  protected readonly placeIds = computed(() => this.machines().map(({ id }) => id));
  protected readonly sayPlace = (id: string): string =>
    this.machines().find((one) => one.id === id)?.name ?? '';
  protected readonly sayDryer = (id: string | undefined): string =>
    this.dryers().find((one) => one.id === id)?.name ?? 'none';

  protected problemIn(field: string): string {
    return this.problems().find((one) => one.field === field)?.message ?? '';
  }
  /** What is wrong with nothing that is shown here. */
  protected readonly rest = computed(() => {
    const shown = ['name', ...FIELDS.map(({ name }) => `mqtt.${name}`)];
    return this.problems().find(({ field }) => !shown.includes(field))?.message ?? '';
  });

  protected send(event: Event): void {
    const of = fieldsOf(event);
    const dryerId = this.dryers().some(({ id }) => id === this.dryer()) ? this.dryer() : undefined;
    const base = {
      ...(this.meter() ? {} : { id: this.#id }),
      ...{ name: of('name'), machineId: this.place() },
      ...(dryerId === undefined ? {} : { dryerId }),
    };
    this.setUp.emit({ ...base, ...this.#through(of) });
  }

  #through(of: (name: string) => string): Pick<MeterDraft, 'mqtt'> {
    switch (this.way()) {
      case 'sends':
        return {};
      case 'stand-in':
        return {
          mqtt: {
            ...{ broker: STAND_IN_BROKER, topic: `stand-in/${this.machine().id}` },
            ...{ figure: '/power', instant: '/at', unit: 'W' },
          },
        };
      case 'broker': {
        const given = ['figure', 'instant', 'user', 'password'].filter((name) => of(name));
        return {
          mqtt: {
            ...{ broker: of('broker'), topic: of('topic'), unit: this.unit() },
            ...Object.fromEntries(given.map((name) => [name, of(name)])),
          },
        };
      }
    }
  }
}
