import { computed, effect, inject, Injectable, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  isProof,
  leftOpen,
  hindersRinse,
  outcomeOf,
  planVisit,
  procedureOf,
  stationOf,
  taskKey,
  taskOf,
  usedIn,
  usesOf,
  waitsFor,
  type ChemicalEvent,
  type Machine,
  type TaskRecord,
  type Wait,
} from '@needlecase/core';
import { sameData } from '../data/same-data';
import { lookNear } from '../data/near';
import { BenchService } from '../data/bench.service';
import type { TaskEnd } from './ending.component';
import { sayClock } from './timer.component';
import { VisitChemicals } from './visit-chemicals';
import { VisitKeeper } from './visit-keeper';
import { timeNow } from '../data/clock';

const WAIT_WORDS: Record<Wait['for'], string> = {
  answer: 'Answer first',
  rinse: 'Rinse first',
  soak: 'Wait',
  dry: 'Wait',
};

/** Where a visit stands when all its steps were passed. */
export const END = 'end';

/** Where a visit stands: its plan, the step on screen, and what that step waits for. */
@Injectable()
export class VisitPlace {
  readonly #keeper = inject(VisitKeeper);
  readonly #chemicals = inject(VisitChemicals);
  readonly #loaded = toSignal(inject(BenchService).bench$);

  readonly bench = computed(() => this.#loaded()?.value);
  /** Why the machines could not be read, where nothing of them is at hand. */
  readonly unread = computed(() => (this.bench() ? undefined : this.#loaded()?.problem));
  readonly run = this.#keeper.run;
  readonly #tasks = computed(() => this.run()?.tasks, { equal: sameData });
  readonly #machines = computed(() => this.bench()?.machines);
  readonly plan = computed(() => {
    const [tasks, machines] = [this.#tasks(), this.#machines()];
    return tasks && machines ? planVisit(tasks, machines) : undefined;
  });

  readonly at = computed(() => this.#keeper.progress()?.at);
  readonly index = computed(
    () => this.plan()?.steps.findIndex(({ key }) => key === this.at()) ?? -1,
  );
  readonly step = computed(() => this.plan()?.steps[this.index()]);
  /** Whether it is finished, here or on the server. */
  readonly done = computed(
    () =>
      this.#keeper.entries() !== undefined ||
      this.#keeper.later() ||
      this.run()?.state === 'finished',
  );
  readonly atEnd = computed(() => this.at() === END);

  readonly machine = computed(() =>
    this.bench()?.machines.find(({ id }) => id === this.step()?.machineId),
  );
  readonly stations = computed(
    () =>
      this.bench()?.states.find(({ machineId }) => machineId === this.step()?.machineId)?.stations,
  );
  readonly station = computed(() => {
    const step = this.step();
    const machine = this.machine();
    return step && machine && stationOf(step, machine);
  });
  /** Cleaning products in the machine on screen that were not rinsed out. */
  readonly present = computed(() => {
    const machine = this.machine();
    return machine ? this.#presentIn(machine) : [];
  });
  /** UTC instant, milliseconds; it goes on while something soaks or dries. */
  readonly #now = signal(timeNow());
  /** What has to be answered, done or waited for before this step can be ticked. */
  readonly wait = computed(() => {
    const [step, plan] = [this.step(), this.plan()];
    return step && plan
      ? waitsFor(step, plan, this.#keeper.progress() ?? {}, this.present(), this.#now())
      : undefined;
  });
  /** The same in words, for the button; empty when nothing. */
  readonly waitsFor = computed(() => {
    const wait = this.wait();
    if (!wait) return '';
    const words = WAIT_WORDS[wait.for];
    if (!('until' in wait)) return words;
    return `${words} ${sayClock(Math.max(0, Math.ceil((wait.until - this.#now()) / 1000)))}`;
  });
  /** Why no full rinse can have run in the machine on screen. */
  readonly hindersRinse = computed(() => {
    const machine = this.machine();
    return machine ? this.#hinders(machine) : '';
  });
  readonly proving = computed(() => {
    const step = this.step();
    return step !== undefined && isProof(step);
  });
  /** The key under which this step's task keeps its record. */
  readonly taskKey = computed(() => {
    const step = this.step();
    return step?.task && taskKey({ machineId: step.machineId, task: step.task });
  });
  readonly record = computed<TaskRecord>(
    () => this.#keeper.progress()?.tasks[this.taskKey() ?? ''] ?? {},
  );
  /** The figure noted at the step on screen. */
  readonly reading = computed(
    () => this.#keeper.progress()?.readings[this.step()?.key ?? '']?.value,
  );
  readonly finds = computed(() => {
    const task = this.step()?.task;
    const machine = this.machine();
    return (task && machine && procedureOf(machine, task).finds) || [];
  });

  /** How each task of the visit ended, as far as it is told. */
  readonly ends = computed<TaskEnd[]>(() => {
    const [plan, visit, bench] = [this.plan(), this.run(), this.bench()];
    if (!plan || !visit || !bench) return [];
    return visit.tasks.map((task) => {
      const machine = bench.machines.find(({ id }) => id === task.machineId)!;
      const known = taskOf(machine, task.task);
      return {
        key: taskKey(task),
        name: known.name,
        machine: machine.name,
        graded: !known.ungraded,
        uses: usesOf(known, machine),
        ...outcomeOf(task, plan, visit.progress),
        used: usedIn(
          task,
          machine,
          plan,
          visit.progress,
          visit.progress.tasks[taskKey(task)] ?? {},
        ),
      };
    });
  });
  /** Steps of putting back and undoing that were not ticked, before finishing. */
  readonly leftOpen = computed(() => {
    const [plan, progress] = [this.plan(), this.#keeper.progress()];
    if (!plan || !progress) return [];
    return leftOpen(plan, progress);
  });
  /** Machines of this visit with something that was not rinsed out. */
  readonly unrinsed = computed(() => {
    const ids = new Set(this.run()?.tasks.map(({ machineId }) => machineId));
    return (this.bench()?.machines ?? [])
      .filter(({ id }) => ids.has(id))
      .map((machine) => ({
        machine,
        present: this.#presentIn(machine),
        hinders: this.#hinders(machine),
      }))
      .filter(({ present }) => present.length > 0);
  });

  constructor() {
    lookNear(() => this.step()?.machineId);
    effect((onCleanup) => {
      const wait = this.wait();
      if (!wait || !('until' in wait)) return;
      const clock = setInterval(() => this.#now.set(timeNow()), 500);
      onCleanup(() => clearInterval(clock));
    });
    // Another step is asked about at its own time.
    effect(() => {
      this.step();
      this.#keeper.progress();
      this.#now.set(timeNow());
    });
  }

  nameOf(machineId: string): string {
    return this.bench()?.machines.find(({ id }) => id === machineId)?.name ?? '';
  }

  #hinders(machine: Machine): string {
    const [plan, progress] = [this.plan(), this.#keeper.progress()];
    return plan && progress ? hindersRinse(plan, progress, machine).join(', ') : '';
  }

  #presentIn(machine: Machine): ChemicalEvent[] {
    const known = this.bench()?.states.find(({ machineId }) => machineId === machine.id)?.chemicals;
    const plan = this.plan();
    return plan && known ? this.#chemicals.presentIn(plan, machine, known) : [];
  }
}
