import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  say,
  ventRun,
  ventRunOf,
  type KeptVentRun,
  type UnitSystem,
  type VentRunInput,
} from '@needlecase/core';
import { catchError, of, startWith, Subject, switchMap } from 'rxjs';
import { ApiService, type ApiProblem } from '../../data/api.service';
import { newId } from '../../data/platform';
import { ToastsService } from '../../data/toasts.service';
import { attempt } from './attempt';

/** The vent runs that the household keeps, side by side; one is opened, one is added, one is taken away. */
@Component({
  selector: 'nc-kept-runs',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './kept-runs.component.html',
  styleUrls: ['../instruments/instruments.scss', './kept-runs.component.scss'],
})
export class KeptRunsComponent {
  readonly #api = inject(ApiService);
  readonly #toasts = inject(ToastsService);
  readonly #again = new Subject<void>();

  /** What is laid out now, where it can be reckoned. */
  readonly run = input<VentRunInput>();
  readonly machineId = input<string>();
  readonly units = input<UnitSystem>('metric');
  /** The machine's own run, once, when the kept ones have arrived. */
  readonly first = output<KeptVentRun>();
  readonly taken = output<KeptVentRun>();

  readonly #kept = toSignal(
    this.#again.pipe(
      startWith(undefined),
      switchMap(() =>
        this.#api.get<KeptVentRun[]>('vent-runs').pipe(catchError(() => of<KeptVentRun[]>([]))),
      ),
    ),
    { initialValue: [] as KeptVentRun[] },
  );
  protected readonly opened = signal<string | undefined>(undefined);
  protected readonly compared = computed(() =>
    this.#kept().map((run) => {
      const { value } = attempt(() => ventRun(ventRunOf(run.run)));
      return { run, flow: value?.flow, used: value?.code.used, passes: value?.code.passes };
    }),
  );

  constructor() {
    let offered = false;
    effect(() => {
      const run = this.#kept().find(({ machineId }) => machineId === this.machineId());
      if (!run || offered) return;
      offered = true;
      untracked(() => {
        this.opened.set(run.id);
        this.first.emit(run);
      });
    });
  }

  protected say(value: number, dimension: 'flow' | 'length'): string {
    return say(value, dimension, this.units());
  }

  protected open(run: KeptVentRun): void {
    this.opened.set(run.id);
    this.taken.emit(run);
  }

  protected keep(field: HTMLInputElement): void {
    const run = this.run();
    if (!run) return;
    const machineId = this.machineId();
    const draft = {
      name: field.value.trim() || 'My run',
      run,
      ...(machineId ? { machineId } : {}),
    };
    this.#add(draft, (kept) => {
      field.value = '';
      this.opened.set(kept.id);
      this.#toasts.show(`“${kept.name}” is kept.`);
    });
  }

  protected takeAway({ id, version, ...draft }: KeptVentRun): void {
    this.#api.send('DELETE', `vent-runs/${id}`, undefined, { version }).subscribe({
      next: () => {
        this.#again.next();
        this.#toasts.show(`“${draft.name}” is taken away.`, {
          action: { label: 'Undo', do: () => this.#add(draft) },
        });
      },
      error: (problem: ApiProblem) => this.#refused(problem),
    });
  }

  #add(draft: Omit<KeptVentRun, 'id' | 'version'>, then?: (kept: KeptVentRun) => void): void {
    this.#api.send<KeptVentRun>('POST', 'vent-runs', draft, { key: newId() }).subscribe({
      next: (kept) => {
        then?.(kept);
        this.#again.next();
      },
      error: (problem: ApiProblem) => this.#refused(problem),
    });
  }

  #refused(problem: ApiProblem): void {
    this.#toasts.show(problem.errors[0]?.message ?? problem.title, { problem: true });
  }
}
