import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { entriesOf, sayEntry, type Entry, type EntryDraft } from '@needlecase/core';
import type { ApiProblem } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { ToastsService } from '../data/toasts.service';
import { LineComponent } from '../thread/line.component';
import { VisitKeeper } from './visit-keeper';
import { VisitPlace } from './visit-place';
import { timeNow } from '../data/clock';

/** A visit that is finished: what it left in the log, what is next, and taking it back. */
@Component({
  selector: 'nc-done',
  imports: [LineComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './done.component.html',
  styleUrl: './done.component.scss',
})
export class DoneComponent {
  protected readonly keeper = inject(VisitKeeper);
  protected readonly place = inject(VisitPlace);
  readonly #bench = inject(BenchService);
  readonly #toasts = inject(ToastsService);

  /** Of the visit. */
  readonly id = input.required<string>();

  protected readonly finished = this.keeper.entries;
  protected readonly failed = signal<ApiProblem | undefined>(undefined);
  /** The case of trouble that this work is for. */
  protected readonly ofCase = computed(() =>
    this.place.bench()?.cases.find(({ runId }) => runId === this.id()),
  );
  /** What a visit finished without a connection will leave in the log. */
  protected readonly toCome = computed(() => {
    const [visit, bench] = [this.place.run(), this.place.bench()];
    return visit && bench && this.keeper.later() ? entriesOf(visit, bench.machines, timeNow()) : [];
  });
  /** The lines of the machines in this visit, as they are now. */
  protected readonly lines = computed(() => {
    const [bench, visit] = [this.place.bench(), this.place.run()];
    const ids = new Set(visit?.tasks.map(({ machineId }) => machineId));
    return (bench?.machines ?? [])
      .filter(({ id }) => ids.has(id))
      .flatMap((machine) => {
        const state = bench!.states.find(({ machineId }) => machineId === machine.id);
        return state ? [{ machine, stations: state.stations }] : [];
      });
  });
  readonly #nowDue = computed(() => {
    const [bench, visit] = [this.place.bench(), this.place.run()];
    if (!bench || !visit) return [];
    return visit.tasks.flatMap(({ machineId, task }) =>
      bench.states
        .flatMap(({ dues }) => dues)
        .filter((due) => due.machineId === machineId && due.task === task),
    );
  });
  /** Each task once: what was found, when it is due again, and why then. */
  protected readonly results = computed(() =>
    this.#nowDue().map((due) => {
      const entry = this.finished()?.find((one) => isOf(one, due));
      return { due, said: entry ? this.say(entry) : `${due.name}: not done` };
    }),
  );
  /** What else was recorded: figures, and what proofs showed. */
  protected readonly others = computed(() =>
    (this.finished() ?? []).filter((entry) => !this.#nowDue().some((due) => isOf(entry, due))),
  );

  protected say(entry: Entry | EntryDraft): string {
    return sayEntry(
      entry,
      this.place.bench()?.machines.find(({ id }) => id === entry.machineId),
    );
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
}

/** The work itself of a task; not its figures and proofs. */
const isOf = (
  { kind, machineId, task }: Entry,
  due: { machineId: string; task: string },
): boolean =>
  (kind === 'done' || kind === 'opened') && machineId === due.machineId && task === due.task;
