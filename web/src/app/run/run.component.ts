import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import {
  isDryer,
  isProof,
  entriesOf,
  many,
  outcomeOf,
  PHASE_NAMES,
  planRun,
  procedureFor,
  sayEntry,
  stationOf,
  taskOf,
  taskKey,
  type ChemicalEvent,
  type Entry,
  type EntryDraft,
  type Features,
  type Grade,
  type Machine,
  type Outcome,
  type ProofResult,
  type Run,
  type RunProgress,
  type RunStep,
  type TaskRecord,
  type Used,
  usesOf,
} from '@needlecase/core';
import { sayMinutes } from '../bench/minutes';
import { alike } from '../data/alike';
import { BenchService } from '../data/bench.service';
import { HouseholdService } from '../data/household.service';
import { withoutVersion } from '../forms/machine-form';
import type { ApiProblem } from '../data/api.service';
import { ToastsService } from '../data/toasts.service';
import { LineComponent } from '../thread/line.component';
import { OpeningComponent } from './opening.component';
import { EndingComponent, type TaskEnd } from './ending.component';
import { RunChemicals } from './run-chemicals';
import { RunKeeper } from './run-keeper';
import { StillInComponent } from './still-in.component';
import { ReadAloud } from './read-aloud';
import { RunTimers } from './run-timers';
import { StepComponent } from './step.component';
import { onSwipe } from './swipe';
import { TimerChipsComponent } from './timer-chips.component';
import { keepAwake } from './wake-lock';

const END = 'end';

/** A visit being carried out: one step fills the screen. */
@Component({
  selector: 'nc-run',
  imports: [
    LineComponent,
    StillInComponent,
    OpeningComponent,
    StepComponent,
    TimerChipsComponent,
    EndingComponent,
    RouterLink,
  ],
  providers: [RunKeeper, RunChemicals, RunTimers],
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
  protected readonly chemicals = inject(RunChemicals);
  protected readonly timers = inject(RunTimers);
  protected readonly aloud = inject(ReadAloud);
  readonly #loaded = toSignal(this.#bench.bench$);

  /** From the address. */
  readonly id = input.required<string>();

  protected readonly bench = computed(() => this.#loaded()?.value);
  /** Why the machines could not be read, where nothing of them is at hand. */
  protected readonly unread = computed(() => (this.bench() ? undefined : this.#loaded()?.problem));
  protected readonly run = this.keeper.run;
  readonly #tasks = computed(() => this.run()?.tasks, { equal: alike });
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
  protected readonly finished = this.keeper.entries;
  /** The case of trouble that this work is for. */
  protected readonly ofCase = computed(() =>
    this.bench()?.cases.find(({ runId }) => runId === this.id()),
  );
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
  /** Cleaning products in the machine on screen that were not rinsed out. */
  protected readonly present = computed(() => {
    const machine = this.machine();
    return machine ? this.#presentIn(machine) : [];
  });
  /** What has to be answered or done before this step can be ticked; empty when nothing. */
  protected readonly waitsFor = computed(() => {
    const step = this.step();
    if (!step) return '';
    if (step.step.brings && !this.keeper.progress()?.brought?.[step.key]) return 'Answer first';
    if (step.step.rinses === 'all' && this.present().length) return 'Rinse first';
    return '';
  });
  protected readonly proving = computed(() => {
    const step = this.step();
    return step !== undefined && isProof(step);
  });
  /** What the main button says: at a proof it is the answer as well. */
  protected readonly onward = computed(() => {
    if (!this.proving()) return 'Done, next';
    return this.step()!.step.later ? 'Ask me later' : 'It is right, next';
  });
  /** Timers that run at other steps. */
  protected readonly elsewhere = computed(() =>
    this.timers.running().filter(({ key }) => key !== this.at()),
  );
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
  /** What a visit finished without a connection will leave in the log. */
  protected readonly toCome = computed(() => {
    const [run, bench] = [this.run(), this.bench()];
    return run && bench && this.keeper.later() ? entriesOf(run, bench.machines, Date.now()) : [];
  });
  /** Machines of this visit with something that was not rinsed out. */
  protected readonly unrinsed = computed(() => {
    const ids = new Set(this.run()?.tasks.map(({ machineId }) => machineId));
    return (this.bench()?.machines ?? [])
      .filter(({ id }) => ids.has(id))
      .map((machine) => ({ machine, present: this.#presentIn(machine) }))
      .filter(({ present }) => present.length > 0);
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
  protected readonly isDryer = isDryer;

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => void this.keeper.open(id));
    });
    keepAwake(() => this.run()?.state === 'active');
    onSwipe({ left: () => this.next(), right: () => this.step() && this.back() });
    effect(() => this.timers.plan.set(this.plan()));
    effect(() => {
      const step = this.step();
      if (step && this.aloud.on()) untracked(() => this.aloud.say(step));
      else this.aloud.quiet();
    });
    inject(DestroyRef).onDestroy(() => this.aloud.quiet());
  }

  protected say(entry: Entry | EntryDraft): string {
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

  #presentIn(machine: Machine): ChemicalEvent[] {
    const known = this.bench()?.states.find(({ machineId }) => machineId === machine.id)?.chemicals;
    const plan = this.plan();
    return plan && known ? this.chemicals.presentIn(plan, machine, known) : [];
  }

  /** Ticks the step on screen and goes to the next. */
  protected next(): void {
    const step = this.step();
    if (!step || this.waitsFor()) return;
    if (this.proving()) return this.prove(step.step.later ? 'planned' : 'good');
    const here = this.station();
    if (step.step.rinses === 'station' && this.present().some(({ station }) => station === here)) {
      this.chemicals.rinse(step, this.machine()!);
    }
    this.#tick(step);
  }

  /** Says what a proof showed, and goes on. */
  protected prove(result: ProofResult): void {
    this.#tick(this.step()!, (progress) => ({
      ...progress,
      proofs: { ...progress.proofs, [this.step()!.key]: result },
    }));
  }

  #tick({ key }: RunStep, also: (progress: RunProgress) => RunProgress = (one) => one): void {
    const following = this.plan()!.steps[this.index() + 1]?.key ?? END;
    const now = new Date().toISOString();
    this.keeper.change(
      (progress) => ({
        ...also(progress),
        at: following,
        ticked: { ...progress.ticked, [key]: progress.ticked[key] ?? now },
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
    await this.keeper.finish();
    this.busy.set(false);
    this.#bench.refresh();
    this.#settleFocus();
  }

  protected async undo(): Promise<void> {
    this.failed.set(undefined);
    try {
      await this.keeper.undo();
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
