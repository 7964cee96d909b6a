import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import {
  isWasher,
  entryOfFullRinse,
  knowsTask,
  setUpIdsOf,
  many,
  planVisit,
  presentIn,
  stoppedSteps,
  taskOf,
  withoutCovered,
  type DueSummary,
  type Machine,
} from '@needlecase/core';
import { lookNear } from '../data/near';
import { SectionChoiceComponent } from '../shared/section-choice.component';
import { BenchService } from '../data/bench.service';
import { ChemicalsService } from '../data/chemicals.service';
import { VisitsService } from '../data/visits.service';
import { StillInComponent } from '../shared/still-in.component';
import { sayMinutes } from '../shared/minutes';
import { instantNow } from '../data/clock';

/** Choosing what to do in a visit. What is due is ticked beforehand. */
@Component({
  selector: 'nc-choose',
  imports: [RouterLink, SectionChoiceComponent, StillInComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './choose.component.html',
  styleUrl: './choose.component.scss',
})
export class ChooseComponent {
  protected readonly visits = inject(VisitsService);
  readonly #chemicals = inject(ChemicalsService);
  readonly #loaded = toSignal(inject(BenchService).bench$);

  /** From the address: one machine asked for, or one task of it. */
  readonly machine = input<string>();
  readonly task = input<string>();

  protected readonly bench = computed(() => this.#loaded()?.value);
  protected readonly unread = computed(() => this.#loaded()?.problem);
  protected readonly groups = computed(() => {
    const bench = this.bench();
    return (bench?.machines ?? []).flatMap((machine) => {
      const state = bench!.states.find(({ machineId }) => machineId === machine.id);
      return state ? [{ machine, sets: bySetUp(machine, state.dues) }] : [];
    });
  });

  readonly #ready = computed(() => this.bench() !== undefined);
  protected readonly chosen = linkedSignal<ReadonlySet<string>>(() => {
    if (!this.#ready()) return new Set();
    if (this.machine() && this.task()) return new Set([`${this.machine()}/${this.task()}`]);
    const one = this.machine();
    if (one) {
      const state = untracked(() =>
        this.bench()?.states.find(({ machineId }) => machineId === one),
      );
      const due = state?.dues.filter(
        ({ status, professional }) => status === 'due' && !professional,
      );
      return new Set(due?.map(({ task }) => `${one}/${task}`));
    }
    // What is chosen stays when the bench is read again.
    const visit = untracked(() => this.#loaded()?.value?.visit);
    return new Set(visit?.tasks.map(({ machineId, task }) => `${machineId}/${task}`));
  });

  protected readonly plan = computed(() => {
    const tasks = withoutCovered(this.#tasks());
    return tasks.length ? planVisit(tasks, this.bench()!.machines) : undefined;
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
  readonly #present = computed(
    () =>
      new Map(
        (this.bench()?.states ?? []).map(({ machineId, chemicals }) => [
          machineId,
          presentIn(chemicals),
        ]),
      ),
  );
  /** Machines of this visit with something that was not rinsed out. */
  protected readonly still = computed(() => {
    const ids = new Set(this.#tasks().map(({ machineId }) => machineId));
    return (this.bench()?.machines ?? []).flatMap((machine) => {
      const present = this.#present().get(machine.id) ?? [];
      return ids.has(machine.id) && present.length ? [{ machine, present }] : [];
    });
  });
  /** What cannot be done before a rinse. */
  protected readonly stopped = computed(() => {
    const plan = this.plan();
    return plan ? stoppedSteps(plan, (id) => this.#present().get(id) ?? []) : [];
  });
  protected readonly sayMinutes = sayMinutes;
  protected readonly many = many;
  protected readonly isWasher = isWasher;

  constructor() {
    lookNear(this.machine);
  }

  protected turn(key: string): void {
    this.chosen.update((chosen) => {
      const next = new Set(chosen);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  }

  protected rinsed({ id }: Machine): void {
    this.#chemicals.add(entryOfFullRinse(id, instantNow(), 'bench'));
  }

  protected start(): void {
    this.visits.start(withoutCovered(this.#tasks()));
  }

  /** What is chosen, as an address names it. */
  protected taskNames(): string {
    return withoutCovered(this.#tasks())
      .map(({ machineId, task }) => `${machineId}:${task}`)
      .join(',');
  }

  #tasks() {
    return [...this.chosen()].map((key) => {
      const [machineId, task] = key.split('/') as [string, string];
      return { machineId, task };
    });
  }
}

/** What is prepared for a task, in the words of who is at it; the dearest first. */
const WHILE: readonly (readonly [setup: string, words: string, reason: string])[] = [
  ['pulled-out', 'While it is pulled out', 'it is moved once'],
  ['outdoors', 'While you are at the hood outdoors', 'you go there once'],
  ['vent-open', 'While the hose is off', 'it is taken off once'],
  ['flap-open', 'While the flap is open, tray and towels down', 'it drips once'],
  ['drawer-out', 'While the drawer is out', 'it is drawn out once'],
  ['water-off', 'While the water is off', 'the tap is shut once'],
  ['unplugged', 'While it is unplugged', 'the plug is drawn once'],
];

function bySetUp(machine: Machine, dues: readonly DueSummary[]) {
  const sets = new Map<string, { words: string; reason: string; dues: DueSummary[] }>();
  for (const due of dues) {
    const needs = knowsTask(machine, due.task)
      ? setUpIdsOf(taskOf(machine, due.task), machine)
      : [];
    const [id = '', words = 'As it stands', reason = ''] =
      WHILE.find(([setup]) => needs.includes(setup)) ?? [];
    const set = sets.get(id) ?? { words, reason, dues: [] };
    set.dues.push(due);
    sets.set(id, set);
  }
  return [...sets].map(([id, set]) => ({ id, ...set }));
}
