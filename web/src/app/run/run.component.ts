import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import {
  many,
  outcomeOf,
  PHASE_NAMES,
  planRun,
  procedureFor,
  sayEntry,
  stationOf,
  taskOf,
  taskKey,
  type Entry,
  type Features,
  type Grade,
  type Machine,
  type Outcome,
  type Run,
  type RunTask,
  type TaskRecord,
  type Used,
  usesOf,
} from '@needlecase/core';
import { sayMinutes } from '../bench/minutes';
import { BenchService } from '../data/bench.service';
import { HouseholdService } from '../data/household.service';
import { withoutVersion } from '../forms/machine-form';
import type { ApiProblem } from '../data/api.service';
import { ToastsService } from '../data/toasts.service';
import { LineComponent } from '../thread/line.component';
import { OpeningComponent } from './opening.component';
import { EndingComponent, type TaskEnd } from './ending.component';
import { RunKeeper } from './run-keeper';
import { StepComponent } from './step.component';
import { keepAwake } from './wake-lock';

const END = 'end';

/** A visit being carried out: one step fills the screen. */
@Component({
  selector: 'nc-run',
  imports: [LineComponent, OpeningComponent, StepComponent, EndingComponent, RouterLink],
  providers: [RunKeeper],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './run.component.html',
  styleUrl: './run.component.scss',
  host: { '(document:keydown)': 'onKey($event)' },
})
export class RunComponent {
  protected readonly keeper = inject(RunKeeper);
  readonly #bench = inject(BenchService);
  readonly #households = inject(HouseholdService);
  readonly #router = inject(Router);
  readonly #toasts = inject(ToastsService);
  readonly #loaded = toSignal(this.#bench.bench$);

  /** From the address. */
  readonly id = input.required<string>();

  protected readonly bench = computed(() => this.#loaded()?.value);
  protected readonly run = this.keeper.run;
  readonly #tasks = computed(() => this.run()?.tasks, { equal: sameTasks });
  readonly #machines = computed(() => this.bench()?.machines);
  protected readonly plan = computed(() => {
    const [tasks, machines] = [this.#tasks(), this.#machines()];
    return tasks && machines ? planRun(tasks, machines) : undefined;
  });

  protected readonly at = computed(() => this.keeper.progress()?.at);
  protected readonly index = computed(
    () => this.plan()?.steps.findIndex(({ key }) => key === this.at()) ?? -1,
  );
  protected readonly step = computed(() => this.plan()?.steps[this.index()]);
  protected readonly atEnd = computed(() => this.at() === END);
  protected readonly finished = signal<Entry[] | undefined>(undefined);
  protected readonly failed = signal<ApiProblem | undefined>(undefined);
  protected readonly busy = signal(false);

  protected readonly machine = computed(() =>
    this.bench()?.machines.find(({ id }) => id === this.step()?.machineId),
  );
  protected readonly stations = computed(
    () =>
      this.bench()?.states.find(({ machineId }) => machineId === this.step()?.machineId)?.stations,
  );
  protected readonly station = computed(() => {
    const step = this.step();
    const machine = this.machine();
    return step && machine && stationOf(step, machine);
  });
  /** The key under which this step's task keeps its record. */
  readonly #taskKey = computed(() => {
    const step = this.step();
    return step?.task && taskKey({ machineId: step.machineId, task: step.task });
  });
  protected readonly record = computed<TaskRecord>(
    () => this.keeper.progress()?.tasks[this.#taskKey() ?? ''] ?? {},
  );
  protected readonly finds = computed(() => {
    const task = this.step()?.task;
    const machine = this.machine();
    return (task && machine && procedureFor(machine, task).finds) || [];
  });

  protected readonly ends = computed<TaskEnd[]>(() => {
    const [plan, run, bench] = [this.plan(), this.run(), this.bench()];
    if (!plan || !run || !bench) return [];
    return run.tasks.map((task) => {
      const machine = bench.machines.find(({ id }) => id === task.machineId)!;
      const known = taskOf(machine, task.task);
      return {
        key: taskKey(task),
        name: known.name,
        machine: machine.name,
        graded: !known.ungraded,
        uses: usesOf(known, machine),
        ...outcomeOf(task, plan, run.progress),
      };
    });
  });
  /** Steps of putting back and undoing that were not ticked, before finishing. */
  protected readonly leftOpen = computed(() => {
    const [plan, progress] = [this.plan(), this.keeper.progress()];
    if (!plan || !progress) return [];
    const started = new Set(Object.keys(progress.ticked).map((key) => key.split('/')[0]));
    return plan.steps.filter(
      ({ key, phase, machineId }) =>
        (phase === 'undo' || phase === 'put-back') &&
        started.has(machineId) &&
        progress.ticked[key] === undefined,
    );
  });
  /** The lines of the machines in this run, as they are now. */
  protected readonly lines = computed(() => {
    const [bench, run] = [this.bench(), this.run()];
    const ids = new Set(run?.tasks.map(({ machineId }) => machineId));
    return (bench?.machines ?? [])
      .filter(({ id }) => ids.has(id))
      .map((machine) => ({
        machine,
        stations: bench!.states.find(({ machineId }) => machineId === machine.id)!.stations,
      }));
  });
  protected readonly nowDue = computed(() => {
    const [bench, run] = [this.bench(), this.run()];
    if (!bench || !run) return [];
    return run.tasks.flatMap(({ machineId, task }) =>
      bench.states
        .flatMap(({ dues }) => dues)
        .filter((due) => due.machineId === machineId && due.task === task),
    );
  });

  protected readonly phaseNames = PHASE_NAMES;
  protected readonly sayMinutes = sayMinutes;
  protected readonly many = many;

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => void this.keeper.open(id));
    });
    keepAwake(() => this.run()?.state === 'active');
  }

  protected say(entry: Entry): string {
    return sayEntry(
      entry,
      this.bench()?.machines.find(({ id }) => id === entry.machineId),
    );
  }

  protected ticks(run: Run): number {
    return Object.keys(run.progress.ticked).length;
  }

  protected nameOf(machineId: string): string {
    return this.bench()?.machines.find(({ id }) => id === machineId)?.name ?? '';
  }

  protected begin(): void {
    this.#go(this.plan()?.steps[0]?.key ?? END);
  }

  /** Ticks the step on screen and goes to the next. */
  protected next(): void {
    const step = this.step();
    if (!step) return;
    const following = this.plan()!.steps[this.index() + 1]?.key ?? END;
    const now = new Date().toISOString();
    this.keeper.change(
      (progress) => ({
        ...progress,
        at: following,
        ticked: { ...progress.ticked, [step.key]: progress.ticked[step.key] ?? now },
      }),
      'active',
    );
    this.#settleFocus();
  }

  /** Leaves the step undone and goes on; the end asks about what matters. */
  protected skip(): void {
    const step = this.step();
    if (!step) return;
    const following = this.plan()!.steps[this.index() + 1]?.key ?? END;
    this.keeper.change((progress) => {
      const { [step.key]: _dropped, ...ticked } = progress.ticked;
      return { ...progress, at: following, ticked };
    }, 'active');
    this.#settleFocus();
  }

  protected back(): void {
    const steps = this.plan()!.steps;
    if (this.atEnd()) return this.#go(steps.at(-1)?.key);
    this.#go(steps[this.index() - 1]?.key);
  }

  protected goTo(key: string): void {
    this.#go(key);
  }

  #go(key: string | undefined): void {
    this.keeper.change((progress) => {
      const { at: _at, ...rest } = progress;
      return key === undefined ? rest : { ...rest, at: key };
    }, 'active');
    this.#settleFocus();
  }

  #settleFocus(): void {
    setTimeout(() => document.querySelector<HTMLElement>('[data-step-title]')?.focus());
  }

  /** Keeps with a machine how it is built; the steps follow. */
  protected tell({ machine, features }: { machine: Machine; features: Features }): void {
    const draft = { ...withoutVersion(machine), features };
    this.#households.saveMachine(machine.id, draft, machine.version).subscribe({
      next: () => this.#bench.refresh(),
      error: (problem: ApiProblem) => {
        this.#toasts.show(`${problem.title} The steps tell you what to look for.`, {
          problem: true,
        });
        this.#bench.refresh();
      },
    });
  }

  protected turnFetched(what: string): void {
    this.keeper.change((progress) => ({
      ...progress,
      fetched: progress.fetched.includes(what)
        ? progress.fetched.filter((one) => one !== what)
        : [...progress.fetched, what],
    }));
  }

  /** Changes what is noted of the task on screen, or of another one. */
  protected note(change: Partial<TaskRecord>, key = this.#taskKey()): void {
    if (!key) return;
    this.keeper.change((progress) => ({
      ...progress,
      tasks: { ...progress.tasks, [key]: { ...progress.tasks[key], ...change } },
    }));
  }

  protected setOutcome(key: string, outcome: Outcome): void {
    this.note({ outcome }, key);
  }

  protected setUsed(key: string, used: Used[]): void {
    this.note({ used }, key);
  }

  protected setGrade(key: string, grade: Grade): void {
    this.note({ grade }, key);
  }

  protected read(value: number | undefined): void {
    const key = this.step()!.key;
    this.keeper.change((progress) => {
      const { [key]: _old, ...readings } = progress.readings;
      return {
        ...progress,
        readings: value === undefined ? readings : { ...readings, [key]: { value } },
      };
    });
  }

  protected startTimer(seconds: number): void {
    const key = this.step()!.key;
    const startedAt = new Date().toISOString();
    this.keeper.change((progress) => ({
      ...progress,
      timers: { ...progress.timers, [key]: { startedAt, seconds } },
    }));
  }

  protected stopTimer(): void {
    const key = this.step()!.key;
    this.keeper.change((progress) => {
      const { [key]: _stopped, ...timers } = progress.timers;
      return { ...progress, timers };
    });
  }

  protected async pause(): Promise<void> {
    const stored = await this.keeper.settle('paused');
    this.#toasts.show(
      stored
        ? 'The visit is paused. Go on from the bench, here or on another device.'
        : 'The visit is paused and kept on this device. It is sent when the connection is back.',
    );
    await this.#router.navigateByUrl('/');
  }

  protected async giveUp(): Promise<void> {
    if (!(await this.keeper.settle('abandoned'))) return;
    this.#toasts.show('The visit was given up. Nothing was recorded.', {
      action: { label: 'Bring it back', do: () => void this.#router.navigate(['/run', this.id()]) },
    });
    await this.#router.navigateByUrl('/');
  }

  protected async finish(): Promise<void> {
    this.busy.set(true);
    this.failed.set(undefined);
    try {
      this.finished.set(await this.keeper.finish());
      this.#bench.refresh();
      this.#settleFocus();
    } catch (problem) {
      this.failed.set(problem as ApiProblem);
    } finally {
      this.busy.set(false);
    }
  }

  protected async undo(): Promise<void> {
    try {
      await this.keeper.undo();
      this.finished.set(undefined);
      this.#bench.refresh();
      this.#toasts.show('The entries of this visit are undone. The visit is paused where it was.');
    } catch (problem) {
      this.failed.set(problem as ApiProblem);
    }
  }

  protected onKey(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    if (target.closest('input, textarea, select, button, a, summary, [role="button"]')) return;
    if (!this.step() || event.altKey || event.ctrlKey || event.metaKey) return;
    if (event.key === 'ArrowRight') this.next();
    else if (event.key === 'ArrowLeft') this.back();
  }
}

const sameTasks = (a: RunTask[] | undefined, b: RunTask[] | undefined): boolean =>
  a === b || JSON.stringify(a) === JSON.stringify(b);
