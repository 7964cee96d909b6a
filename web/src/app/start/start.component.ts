import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormArray } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import {
  check,
  KIND_NAMES,
  type FieldProblem,
  type HouseholdDraft,
  type MachineDraft,
} from '@needlecase/core';
import { merge } from 'rxjs';
import type { ApiProblem } from '../data/api.service';
import { HouseholdService } from '../data/household.service';
import { readLocal, removeLocal, writeLocal } from '../data/local';
import { newId } from '../data/platform';
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
}

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

  #wrongIn(step: number): FieldProblem[] {
    return check('SetupDraft', this.#draft()).filter(({ field }) => stepOf(field) === step);
  }

  #finish(): void {
    this.sending.set(true);
    this.failed.set(undefined);
    this.#households.setUp(this.#draft(), this.#key).subscribe({
      next: () => {
        removeLocal(KEPT);
        void this.#router.navigateByUrl('/');
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
    const kept: Kept = { key: this.#key, step: this.step(), ...this.#draft() };
    writeLocal(KEPT, kept);
  }
}

/** The step that asks for a field. */
function stepOf(field: string): number {
  if (!field.startsWith('machines')) return 0;
  return /loadsPerWeek|habits/.test(field) ? 2 : 1;
}
