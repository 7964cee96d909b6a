import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { KIND_NAMES, many, type BenchView, type Machine, type Run } from '@needlecase/core';
import { BenchService } from '../data/bench.service';
import { LoadsService } from '../data/loads.service';
import { RunsService } from '../data/runs.service';
import { LineComponent } from '../thread/line.component';
import { TapeComponent, type Pin } from './tape.component';
import { sayMinutes } from './minutes';

/** Home: the next visit, every machine's line, loads with one tap, what is due when. */
@Component({
  selector: 'nc-bench',
  imports: [LineComponent, TapeComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bench.component.html',
  styleUrl: './bench.component.scss',
})
export class BenchComponent {
  readonly #bench = inject(BenchService);
  readonly #loads = inject(LoadsService);
  readonly #router = inject(Router);
  protected readonly runs = inject(RunsService);

  readonly #loaded = toSignal(this.#bench.bench$);
  protected readonly problem = computed(() => this.#loaded()?.problem);
  protected readonly bench = computed(() => this.#loaded()?.value);

  protected readonly rows = computed(() => {
    const bench = this.bench();
    if (!bench) return [];
    const pending = this.#loads.pending();
    return bench.machines.map((machine) => {
      const state = bench.states.find(({ machineId }) => machineId === machine.id)!;
      const counted = bench.loads.find(({ machineId }) => machineId === machine.id)!;
      const waiting = pending.filter(({ machineId }) => machineId === machine.id).length;
      return {
        machine,
        stations: state.stations,
        first: state.dues[0],
        firstStation: state.stations.find(({ id }) => id === state.dues[0]?.station)?.name,
        today: counted.today + waiting,
        week: counted.week + waiting,
      };
    });
  });

  protected readonly pins = computed<Pin[]>(() => {
    const bench = this.bench();
    if (!bench) return [];
    return bench.states.flatMap(({ machineId, dues }) =>
      dues.flatMap(({ task, name, on, status, station }) => {
        const machine = this.nameOf(machineId);
        const line = stationLine(bench, machineId, station);
        return on
          ? [{ key: `${machineId}/${task}`, machineId, station, name, machine, on, status, line }]
          : [];
      }),
    );
  });
  protected readonly unknown = computed(
    () =>
      this.bench()
        ?.states.flatMap(({ dues }) => dues)
        .filter(({ status }) => status === 'unknown') ?? [],
  );

  protected readonly kindNames = KIND_NAMES;
  protected readonly sayMinutes = sayMinutes;
  protected readonly many = many;

  constructor() {
    this.#loads.settled$.pipe(takeUntilDestroyed()).subscribe(() => this.#bench.refresh());
  }

  protected nameOf(machineId: string): string {
    return this.bench()?.machines.find(({ id }) => id === machineId)?.name ?? '';
  }

  protected count(machine: Machine): void {
    void this.#loads.count(machine);
  }

  protected open(machine: Machine, station: string): void {
    void this.#router.navigate(['/machine', machine.id, station]);
  }

  protected tasksOf(run: Run): string {
    const machines = [...new Set(run.tasks.map(({ machineId }) => this.nameOf(machineId)))];
    return `${many(run.tasks.length, 'task')} at ${machines.join(' and ')}`;
  }

  protected start(): void {
    this.runs.start(this.bench()?.visit?.tasks ?? []);
  }

  protected again(): void {
    this.#bench.refresh();
  }
}

function stationLine(bench: BenchView, machineId: string, station: string): 'water' | 'air' {
  const state = bench.states.find((one) => one.machineId === machineId);
  return state?.stations.find(({ id }) => id === station)?.line === 'air' ? 'air' : 'water';
}
