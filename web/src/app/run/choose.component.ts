import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { many, planRun, taskOf, withoutCovered } from '@needlecase/core';
import { BenchService } from '../data/bench.service';
import { RunsService } from '../data/runs.service';
import { sayMinutes } from '../bench/minutes';

/** Choosing what to do in a visit. What is due is ticked beforehand. */
@Component({
  selector: 'nc-choose',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './choose.component.html',
  styleUrl: './choose.component.scss',
})
export class ChooseComponent {
  protected readonly runs = inject(RunsService);
  readonly #loaded = toSignal(inject(BenchService).bench$);

  /** From the address: one task asked for. */
  readonly machine = input<string>();
  readonly task = input<string>();

  protected readonly bench = computed(() => this.#loaded()?.value);
  protected readonly unread = computed(() => this.#loaded()?.problem);
  protected readonly groups = computed(() => {
    const bench = this.bench();
    return (bench?.machines ?? []).map((machine) => ({
      machine,
      dues: bench!.states.find(({ machineId }) => machineId === machine.id)!.dues,
    }));
  });

  readonly #ready = computed(() => this.bench() !== undefined);
  protected readonly chosen = linkedSignal<ReadonlySet<string>>(() => {
    if (!this.#ready()) return new Set();
    if (this.machine() && this.task()) return new Set([`${this.machine()}/${this.task()}`]);
    const visit = this.#loaded()?.value?.visit;
    return new Set(visit?.tasks.map(({ machineId, task }) => `${machineId}/${task}`));
  });

  protected readonly plan = computed(() => {
    const tasks = withoutCovered(this.#tasks());
    return tasks.length ? planRun(tasks, this.bench()!.machines) : undefined;
  });
  /** Tasks ticked that another one does along the way. */
  protected readonly along = computed(() => {
    const all = this.#tasks();
    const kept = new Set(withoutCovered(all));
    return all
      .filter((one) => !kept.has(one))
      .map(({ machineId, task }) => {
        const machine = this.bench()!.machines.find(({ id }) => id === machineId)!;
        return taskOf(machine, task).name.toLowerCase();
      });
  });
  protected readonly sayMinutes = sayMinutes;
  protected readonly many = many;

  protected turn(key: string): void {
    this.chosen.update((chosen) => {
      const next = new Set(chosen);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  }

  protected start(): void {
    this.runs.start(withoutCovered(this.#tasks()));
  }

  #tasks() {
    return [...this.chosen()].map((key) => {
      const [machineId, task] = key.split('/') as [string, string];
      return { machineId, task };
    });
  }
}
