import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import {
  isWasher,
  loadCareOf,
  entryOfFullRinse,
  KIND_NAMES,
  RETIRED_WORDS,
  sayDay,
  sayState,
  stationsOf,
  taskOf,
  type Machine,
  type MachineView,
} from '@needlecase/core';
import { switchMap } from 'rxjs';
import { SignalComponent } from '../bench/signal.component';
import { snagsOf } from '../bench/snags';
import { BenchService } from '../data/bench.service';
import { RoleService } from '../data/role.service';
import { ChemicalsService } from '../data/chemicals.service';
import { LineKeyComponent } from '../thread/line-key.component';
import { LineComponent } from '../thread/line.component';
import { HabitStripComponent } from './habit-strip.component';
import { StillInComponent } from '../shared/still-in.component';
import { ProductUsedComponent } from './product-used.component';
import { narrow } from '../shared/narrow';
import { StationComponent } from './station.component';
import { instantNow } from '../data/clock';

/** One machine: its line drawn large, and the station chosen on it. */
@Component({
  selector: 'nc-machine',
  imports: [
    SignalComponent,
    LineComponent,
    LineKeyComponent,
    StationComponent,
    HabitStripComponent,
    ProductUsedComponent,
    StillInComponent,
    RouterLink,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './machine.component.html',
  styleUrl: './machine.component.scss',
})
export class MachineComponent {
  readonly #bench = inject(BenchService);
  protected readonly role = inject(RoleService);
  readonly #router = inject(Router);
  readonly #chemicals = inject(ChemicalsService);

  /** From the address. */
  readonly id = input.required<string>();
  readonly station = input<string>();

  readonly #house = toSignal(this.#bench.bench$);
  protected readonly signals = computed(
    () => this.#house()?.value?.signals?.filter(({ machineId }) => machineId === this.id()) ?? [],
  );
  protected readonly snags = computed(() => snagsOf(this.signals(), this.id()));
  readonly #loaded = toSignal(toObservable(this.id).pipe(switchMap((id) => this.#bench.line$(id))));
  protected readonly line = computed(() => this.#loaded()?.value);
  protected readonly problem = computed(() => this.#loaded()?.problem);
  protected readonly narrow = narrow;
  protected readonly kindNames = KIND_NAMES;
  protected readonly retiredWords = RETIRED_WORDS;
  protected readonly retiredOn = (day: string, { today }: MachineView): string =>
    sayDay(day, today);
  protected readonly isWasher = isWasher;
  protected readonly loadCare = loadCareOf;

  /** The station in the address, else the most urgent one. */
  protected readonly chosen = computed(() => {
    const line = this.line();
    if (!line) return undefined;
    const wanted = this.station() ?? line.state.dues[0]?.station ?? line.state.stations[0]!.id;
    const station = stationsOf(line.machine).find(({ id }) => id === wanted);
    const state = line.state.stations.find(({ id }) => id === wanted);
    if (!station || !state) return undefined;
    const tasks = line.tasks
      .filter((task) => task.station === wanted)
      .map((due) => ({
        due,
        task: taskOf(line.machine, due.task),
        said: sayState(due, line.machine, line.today),
      }));
    return { station, state, tasks };
  });

  protected rinsed({ id }: Machine): void {
    this.#chemicals.add(entryOfFullRinse(id, instantNow(), 'machine'));
  }

  protected choose(station: string): void {
    void this.#router.navigate(['/machine', this.id(), station], { replaceUrl: true }).then(() => {
      if (this.narrow()) document.querySelector('nc-station')?.scrollIntoView();
    });
  }
}
