import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { sayDay, dayOf, SUPPLIES, type Supply, type SupplyState } from '@needlecase/core';
import { catchError, debounceTime, merge, of, startWith, Subject, switchMap } from 'rxjs';
import { ApiProblem } from '../data/api.service';
import { ChangesService } from '../data/changes.service';
import { EntriesService } from '../data/entries.service';
import { newId } from '../data/platform';
import { SuppliesService } from '../data/supplies.service';
import { ToastsService } from '../data/toasts.service';
import { withoutVersion } from '../forms/onto';
import { HouseNavComponent } from './house-nav.component';
import { SupplyFormComponent } from './supply-form.component';
import { KeeperDirective } from '../shared/keeper.directive';

/** Supplies: what to buy before which visit, what is left, and for how many times. */
@Component({
  selector: 'nc-supplies',
  imports: [KeeperDirective, HouseNavComponent, SupplyFormComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './supplies.component.html',
  styleUrl: './supplies.component.scss',
})
export class SuppliesComponent {
  readonly #service = inject(SuppliesService);
  readonly #entries = inject(EntriesService);
  readonly #toasts = inject(ToastsService);
  readonly #again = new Subject<void>();

  readonly #loaded = toSignal(
    merge(
      this.#again,
      inject(ChangesService).of('supplies', 'entries', 'machines').pipe(debounceTime(60)),
    ).pipe(
      startWith(undefined),
      switchMap(() => this.#service.all().pipe(catchError((problem: ApiProblem) => of(problem)))),
    ),
  );
  protected readonly problem = computed(() => {
    const loaded = this.#loaded();
    return loaded instanceof ApiProblem ? loaded : undefined;
  });
  protected readonly view = computed(() => {
    const loaded = this.#loaded();
    return loaded instanceof ApiProblem ? undefined : loaded;
  });

  protected readonly kept = computed(
    () => this.view()?.supplies.filter(({ supply }) => !supply.putAway) ?? [],
  );
  protected readonly away = computed(
    () => this.view()?.supplies.filter(({ supply }) => supply.putAway) ?? [],
  );
  protected readonly list = computed(() => this.kept().filter(({ buy }) => buy === 'now'));
  protected readonly currency = computed(() => this.view()?.household.currency);
  /** Kinds that are not kept yet. */
  protected readonly offered = computed(() => {
    const there = new Set(this.view()?.supplies.map(({ supply }) => supply.item));
    return SUPPLIES.filter(({ id }) => !there.has(id));
  });

  protected readonly changing = signal<string | undefined>(undefined);
  protected readonly adding = signal(false);
  protected readonly counting = signal<string | undefined>(undefined);
  protected readonly wrong = signal('');

  /** `about 310 ml`, without more digits than anybody can see in a bottle. */
  protected amount(value: number, unit: Supply['unit']): string {
    const rounded = unit === 'pieces' ? Math.round(value * 10) / 10 : Math.round(value);
    return unit === 'pieces' ? String(rounded) : `${rounded} ${unit}`;
  }

  protected level({ left, supply }: SupplyState): number {
    return Math.min(1, (left ?? 0) / supply.pack);
  }

  protected enough({ uses, left }: SupplyState): string {
    if (left !== undefined && left <= 0 && uses.length) return 'Used up.';
    if (!uses.length) return 'No task uses it; it is kept as a part.';
    const said = uses.slice(0, 3).map(({ name, times, amount }) => {
      const task = name.charAt(0).toLowerCase() + name.slice(1);
      return left === undefined ? `${task} (${amount} each time)` : `${times} × ${task}`;
    });
    const more = uses.length > 3 ? ` and ${uses.length - 3} more` : '';
    return `${left === undefined ? 'Used for' : 'Enough for'} ${said.join(', or ')}${more}.`;
  }

  protected out({ runsOut }: SupplyState): string {
    const view = this.view();
    if (!runsOut || !view) return 'Lasts the year ahead.';
    const today = dayOf(Date.now(), view.household.zone);
    const machine = view.machines.find(({ id }) => id === runsOut.machineId)?.name ?? '';
    const task = runsOut.name.charAt(0).toLowerCase() + runsOut.name.slice(1);
    const when = runsOut.on <= today ? 'now' : `on ${sayDay(runsOut.on, today)}`;
    return `Runs out ${when}: ${task}, ${machine}.`;
  }

  protected bought({ supply }: SupplyState): void {
    this.#note('bought', supply, supply.pack, `${supply.name}: a pack came in`);
  }

  protected count({ supply }: SupplyState, typed: string): void {
    const value = Number(typed.replace(',', '.'));
    if (typed.trim() === '' || !(value >= 0 && value <= 1_000_000)) {
      return this.wrong.set('Give an amount from 0 to 1000000.');
    }
    this.counting.set(undefined);
    this.#note(
      'stock',
      supply,
      value,
      `${supply.name}: ${this.amount(value, supply.unit)} counted`,
    );
  }

  #note(kind: 'bought' | 'stock', supply: Supply, value: number, said: string): void {
    this.wrong.set('');
    this.#service.note(kind, supply, value, newId()).subscribe({
      next: ({ id }) => {
        this.#again.next();
        this.#toasts.show(said, {
          action: {
            label: 'Undo',
            do: () => this.#entries.undo(id).subscribe(() => this.#again.next()),
          },
        });
      },
      error: (problem: ApiProblem) => this.#complain(problem),
    });
  }

  protected stored(said: string): void {
    this.adding.set(false);
    this.changing.set(undefined);
    this.#toasts.show(said);
    this.#again.next();
  }

  protected putAway(supply: Supply, putAway: boolean): void {
    this.#service.change(supply, { ...withoutVersion(supply), putAway }).subscribe({
      next: (stored) => {
        this.#toasts.show(putAway ? `${supply.name} is put away.` : `${supply.name} is back.`, {
          action: { label: 'Undo', do: () => this.putAway(stored, !putAway) },
        });
        this.#again.next();
      },
      error: (problem: ApiProblem) => this.#complain(problem),
    });
  }

  #complain(problem: ApiProblem): void {
    const why = problem.errors[0]?.message ?? problem.detail;
    this.#toasts.show(`${problem.title} ${why}`, { problem: true });
    this.#again.next();
  }
}
