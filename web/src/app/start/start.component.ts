import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormArray } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import {
  check,
  KIND_NAMES,
  many,
  REMEMBERED,
  tasksToRemember,
  type BenchView,
  type FieldProblem,
  type HouseholdDraft,
  type MachineDraft,
  type Remembered,
  type SetupDraft,
} from '@needlecase/core';
import { catchError, merge, of, switchMap, tap } from 'rxjs';
import { ApiService, type ApiProblem } from '../data/api.service';
import { HouseholdService } from '../data/household.service';
import { readLocal, removeLocal, writeLocal } from '../data/local';
import { newId } from '../data/platform';
import { VisitsService } from '../data/visits.service';
import { sayMinutes } from '../shared/minutes';
import {
  HouseholdFieldsComponent,
  householdDraft,
  householdForm,
} from '../forms/household-fields.component';
import { MachineFieldsComponent } from '../forms/machine-fields.component';
import { draftOf, machineForm, type MachineForm } from '../forms/machine-form';
import { FormProblems } from '../forms/problems';

const KEPT = 'start';

interface Kept {
  key: string;
  step: number;
  household: HouseholdDraft;
  machines: MachineDraft[];
  /** By machine and task, as `0/pump-filter`. */
  last?: Record<string, LastDone>;
}
type LastDone = Remembered | 'never' | 'unknown';

/** First start: three short steps from an empty file to a household that is ready. */
@Component({
  selector: 'nc-start',
  imports: [HouseholdFieldsComponent, MachineFieldsComponent, RouterLink],
  providers: [FormProblems],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './start.component.html',
  styleUrl: './start.component.scss',
})
export class StartComponent {
  readonly #households = inject(HouseholdService);
  readonly #router = inject(Router);
  readonly #api = inject(ApiService);
  readonly #visits = inject(VisitsService);
  protected readonly many = many;
  protected readonly sayMinutes = sayMinutes;
  readonly #kept = readLocal<Kept>(KEPT);
  readonly #key = this.#kept?.key ?? newId();
  protected readonly problems = inject(FormProblems);

  protected readonly household = householdForm(this.#kept?.household);
  protected readonly machines = new FormArray<MachineForm>(
    (this.#kept?.machines.length ? this.#kept.machines : [{}]).map((one) => machineForm(one)),
  );
  protected readonly step = signal(this.#kept?.step ?? 0);
  protected readonly sending = signal(false);
  protected readonly failed = signal<ApiProblem | undefined>(undefined);
  protected readonly steps = ['Household', 'Machines', 'Use'];
  protected readonly kindNames = KIND_NAMES;
  /** When work was done last, as far as it is remembered. */
  protected readonly last = signal<Record<string, LastDone>>(this.#kept?.last ?? {});
  protected readonly whens: readonly { id: LastDone; say: string }[] = [
    ...(Object.keys(REMEMBERED) as Remembered[]).map((id) => ({ id, say: REMEMBERED[id].say })),
    { id: 'never', say: 'Never' },
    { id: 'unknown', say: 'No idea' },
  ];
  /** The most useful first visit, once the house is set up. */
  protected readonly first = signal<BenchView | undefined>(undefined);

  constructor() {
    merge(this.household.valueChanges, this.machines.valueChanges)
      .pipe(takeUntilDestroyed())
      .subscribe(() => this.#keep());
  }

  protected addMachine(): void {
    const last = this.machines.at(-1)?.value;
    const kind = last?.kind?.endsWith('-washer') ? 'vented-dryer' : 'front-load-washer';
    this.machines.push(machineForm({ kind, place: last?.place ?? '' }));
  }

  protected removeMachine(index: number): void {
    this.machines.removeAt(index);
  }

  protected askedLast(machine: MachineForm) {
    return tasksToRemember(draftOf(machine));
  }

  protected remember(machine: number, task: string, when: LastDone): void {
    this.last.update((all) => ({ ...all, [`${machine}/${task}`]: when }));
    this.#keep();
  }

  protected begin(): void {
    this.#visits.start(this.first()?.visit?.tasks ?? []);
  }

  protected next(): void {
    const wrong = this.#wrongIn(this.step());
    this.problems.set(wrong);
    if (wrong.length) return this.problems.show();
    if (this.step() < 2) this.#goTo(this.step() + 1);
    else this.#finish();
  }

  protected back(): void {
    this.problems.set([]);
    this.#goTo(this.step() - 1);
  }

  #goTo(step: number): void {
    this.step.set(step);
    this.#keep();
    setTimeout(() => document.querySelector<HTMLElement>('h1')?.focus());
  }

  #draft() {
    return {
      household: householdDraft(this.household),
      machines: this.machines.controls.map((form) => draftOf(form)),
    };
  }

  /** What somebody remembers; never and no idea are not known yet, and so come first. */
  #lastDone(): NonNullable<SetupDraft['lastDone']> {
    return this.machines.controls.flatMap((form, machine) =>
      this.askedLast(form).flatMap(({ id: task }) => {
        const when = this.last()[`${machine}/${task}`];
        return when && when in REMEMBERED ? [{ machine, task, when: when as Remembered }] : [];
      }),
    );
  }

  #wrongIn(step: number): FieldProblem[] {
    return check('SetupDraft', this.#draft()).filter(({ field }) => stepOf(field) === step);
  }

  #finish(): void {
    this.sending.set(true);
    this.failed.set(undefined);
    this.#households
      .setUp({ ...this.#draft(), lastDone: this.#lastDone() }, this.#key)
      .pipe(
        tap(() => removeLocal(KEPT)),
        switchMap(() => this.#api.get<BenchView>('bench').pipe(catchError(() => of(undefined)))),
      )
      .subscribe({
        next: (bench) => {
          if (!bench?.visit) return void this.#router.navigateByUrl('/');
          this.first.set(bench);
          setTimeout(() => document.querySelector<HTMLElement>('h1')?.focus());
        },
        error: (problem: ApiProblem) => {
          this.sending.set(false);
          this.failed.set(problem);
          this.problems.set(problem.errors);
          const first = problem.errors[0];
          if (first) this.#goTo(stepOf(first.field));
        },
      });
  }

  #keep(): void {
    const last = this.last();
    const kept: Kept = { key: this.#key, step: this.step(), ...this.#draft(), last };
    writeLocal(KEPT, kept);
  }
}

/** The step that asks for a field. */
function stepOf(field: string): number {
  if (!field.startsWith('machines')) return 0;
  return /loadsPerWeek|habits/.test(field) ? 2 : 1;
}
