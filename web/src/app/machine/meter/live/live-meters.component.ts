import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { BenchView, FieldProblem } from '@needlecase/core';
import type { Meter, MeterDraft, MetersView, StandInDraft } from '@needlecase/core/model/meters';
import {
  catchError,
  combineLatest,
  map,
  of,
  startWith,
  switchMap,
  tap,
  type Observable,
} from 'rxjs';
import { wordsOf, type ApiProblem } from '../../../data/api.service';
import { ChangesService } from '../../../data/changes.service';
import { MeterService } from '../../../data/meter.service';
import { RoleService } from '../../../data/role.service';
import { LiveMeterComponent } from './live-meter.component';
import { MeterSetupComponent } from './meter-setup.component';

type Machine = BenchView['machines'][number];

/** The meters of a machine that speak as they go on, and setting one up. */
@Component({
  selector: 'nc-live-meters',
  imports: [LiveMeterComponent, MeterSetupComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (wrong() || unread(); as message) {
      <p class="field-problem" role="alert">{{ message }}</p>
    }
    @if (view(); as it) {
      @for (meter of own(); track meter.id) {
        @if (changing() === meter.id) {
          <nc-meter-setup
            [meter]="meter"
            [machine]="machine()"
            [machines]="machines()"
            [problems]="problems()"
            [busy]="busy()"
            [open]="true"
            (openChange)="changing.set(undefined)"
            (setUp)="change(meter, $event)"
          />
        }
        <nc-live-meter
          [meter]="meter"
          [zone]="zone()"
          [line]="line()"
          [token]="tokens()[meter.id]"
          [busy]="busy()"
          (renew)="renew(meter)"
          (alter)="alter(meter)"
          (remove)="remove(meter)"
          (run)="run(meter, $event)"
        />
      }
      @if (role.may('keeper') && (setting() || own().length === 0) && !changing()) {
        <nc-meter-setup
          [machine]="machine()"
          [machines]="machines()"
          [standIn]="it.standIn"
          [problems]="problems()"
          [busy]="busy()"
          [(open)]="setting"
          (setUp)="setUp($event)"
        />
      }
    }
  `,
})
export class LiveMetersComponent {
  readonly #service = inject(MeterService);
  protected readonly role = inject(RoleService);

  readonly machine = input.required<Machine>();
  readonly machines = input.required<readonly Machine[]>();
  readonly zone = input.required<string>();
  readonly line = input<'water' | 'air'>('water');

  protected readonly setting = signal(false);
  /** The meter that is being changed. */
  protected readonly changing = signal<string | undefined>(undefined);
  protected readonly busy = signal(false);
  protected readonly wrong = signal('');
  /** Why the meters cannot be read now: what was told last is shown. */
  protected readonly unread = signal('');
  protected readonly problems = signal<readonly FieldProblem[]>([]);
  /** Tokens that were made on this page: nobody is told them again. */
  protected readonly tokens = signal<Record<string, string>>({});
  readonly #again = signal(0);

  protected readonly view = toSignal(
    combineLatest([
      toObservable(this.#again),
      inject(ChangesService).of('meters').pipe(startWith(undefined)),
    ]).pipe(
      switchMap(() =>
        this.#service.live().pipe(
          map((view): MetersView | undefined => view),
          tap(() => this.unread.set('')),
          catchError((problem: ApiProblem) => {
            // What was told last stays, and the next word of it is waited for.
            if (problem.status !== 0) this.unread.set(wordsOf(problem));
            return of(this.view());
          }),
        ),
      ),
    ),
  ) as () => MetersView | undefined;
  protected readonly own = computed(() => {
    const { id } = this.machine();
    const all = this.view()?.meters ?? [];
    return all.filter(({ machineId, dryerId }) => machineId === id || dryerId === id);
  });

  protected setUp(draft: MeterDraft): void {
    this.#ask(this.#service.setUp(draft), (meter) => {
      this.setting.set(false);
      this.#tell(meter);
    });
  }

  protected alter({ id }: Meter): void {
    this.problems.set([]);
    this.changing.set(id);
  }

  protected change(meter: Meter, draft: MeterDraft): void {
    this.#ask(this.#service.change(meter, draft), () => this.changing.set(undefined));
  }

  protected renew({ id }: Meter): void {
    this.#ask(this.#service.newToken(id), (meter) => this.#tell(meter));
  }

  protected remove({ id }: Meter): void {
    this.#ask(this.#service.remove(id));
  }

  protected run({ id }: Meter, draft: StandInDraft): void {
    this.#ask(this.#service.standIn(id, draft));
  }

  #tell({ id, token }: Meter): void {
    if (token !== undefined) this.tokens.update((all) => ({ ...all, [id]: token }));
  }

  #ask<T>(asked: Observable<T>, then: (answer: T) => void = () => undefined): void {
    if (this.busy()) return;
    this.busy.set(true);
    this.wrong.set('');
    this.problems.set([]);
    asked.subscribe({
      next: (answer) => {
        this.busy.set(false);
        then(answer);
        this.#again.update((n) => n + 1);
      },
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.problems.set(problem.errors);
        if (problem.errors.length === 0) this.wrong.set(wordsOf(problem));
      },
    });
  }
}
