import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  check,
  FEATURE_QUESTIONS,
  HABIT_QUESTIONS,
  KIND_NAMES,
  type Machine,
  type MachineDraft,
} from '@needlecase/core';
import type { ApiProblem } from '../data/api.service';
import { HouseholdService } from '../data/household.service';
import { newId } from '../data/platform';
import { ToastsService } from '../data/toasts.service';
import { MachineFieldsComponent } from '../forms/machine-fields.component';
import { draftOf, machineForm, withFittingRules, type MachineForm } from '../forms/machine-form';
import { withoutVersion } from '../forms/onto';
import { FormProblems } from '../forms/problems';
import { ConflictComponent } from './conflict.component';
import { KeeperDirective } from '../shared/keeper.directive';

/** One machine in a few lines, and as a form to change it; without a machine, a form for a new one. */
@Component({
  selector: 'nc-machine-card',
  imports: [KeeperDirective, MachineFieldsComponent, ConflictComponent, RouterLink],
  providers: [FormProblems],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (form() ?? fresh(); as open) {
      <form (submit)="$event.preventDefault(); save(open)" novalidate>
        <nc-machine-fields [form]="open" [tag]="'e' + (machine()?.id ?? 'new')" />
        @if (stored(); as theirs) {
          <nc-conflict [mine]="draft(open)" [theirs]="theirs" (choose)="choose($event, open)" />
        } @else {
          @if (failed(); as wrong) {
            <p class="field-problem" role="alert">{{ wrong.title }} {{ wrong.detail }}</p>
          }
          <div class="row">
            <button type="submit" class="btn btn-thread">Store</button>
            <button type="button" class="btn btn-plain" (click)="leave()">Leave it</button>
          </div>
        }
      </form>
    } @else if (machine(); as one) {
      <div class="one">
        <div>
          <h3>
            <a [routerLink]="['/machine', one.id]">{{ one.name }}</a>
            <small class="soft">
              {{ one.maker ? one.maker + ', ' : '' }}{{ kindNames[one.kind] }}, {{ one.place }}
            </small>
          </h3>
          <ul class="chips">
            <li>{{ one.loadsPerWeek }} loads in a usual week</li>
            @for (fact of facts(); track fact) {
              <li>{{ fact }}</li>
            }
          </ul>
        </div>
        <button
          *ncKeeper
          type="button"
          class="btn btn-plain"
          (click)="edit(one)"
          [attr.aria-label]="'Change ' + one.name"
        >
          Change
        </button>
      </div>
    }
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      display: block;
      @include seam;
      padding: 0.7rem 0;
    }

    .one {
      display: flex;
      justify-content: space-between;
      align-items: start;
      gap: 1rem;
    }

    h3 {
      font-size: 1.2rem;
      margin: 0;
    }

    h3 small {
      font: 1rem var(--sans);
      margin-left: 0.5rem;
    }

    .chips {
      margin-top: 0.3rem;
    }

    .row {
      display: flex;
      gap: 0.6rem;
      margin-top: 1rem;
    }
  `,
})
export class MachineCardComponent {
  readonly #service = inject(HouseholdService);
  readonly #problems = inject(FormProblems);
  readonly #toasts = inject(ToastsService);
  readonly #key = newId();

  readonly machine = input<Machine>();
  readonly saved = output<void>();
  readonly left = output<void>();

  protected readonly form = signal<MachineForm | undefined>(undefined);
  protected readonly fresh = computed(() => (this.machine() ? undefined : machineForm()));
  protected readonly failed = signal<ApiProblem | undefined>(undefined);
  protected readonly stored = signal<Machine | undefined>(undefined);
  protected readonly kindNames = KIND_NAMES;
  /** The machine as it was when the form was opened, or is stored now. */
  #base: Machine | undefined;

  /** What is known of how it is built and used, a few words each. */
  protected readonly facts = computed(() => {
    const machine = this.machine();
    if (!machine) return [];
    const { features, habits, kind } = machine;
    const answers = FEATURE_QUESTIONS.filter(({ kinds }) => kinds.includes(kind)).flatMap(
      ({ id, name, answers }) => {
        const value = features[id];
        const answer = answers.find((one) => one.value === value);
        return answer && value !== 'unknown' ? `${name}: ${answer.label.toLowerCase()}` : [];
      },
    );
    const elbows = features.elbows === undefined ? [] : [`Elbows: ${features.elbows}`];
    const heater = features.heater === undefined ? [] : [`Heater: ${features.heater} W`];
    const special = HABIT_QUESTIONS.filter(({ id }) => habits.includes(id));
    return [...answers, ...elbows, ...heater, ...special.map(({ label }) => label)];
  });

  protected draft(form: MachineForm): MachineDraft {
    return withFittingRules(draftOf(form, this.#base && withoutVersion(this.#base)));
  }

  protected edit(machine: Machine): void {
    this.#base = machine;
    this.form.set(machineForm(machine));
  }

  protected leave(): void {
    this.form.set(undefined);
    this.left.emit();
  }

  protected save(form: MachineForm): void {
    const draft = this.draft(form);
    const wrong = check('MachineDraft', draft);
    this.#problems.set(wrong);
    if (wrong.length) return this.#problems.show();
    const base = this.#base;
    const request = base
      ? this.#service.saveMachine(base.id, draft, base.version)
      : this.#service.addMachine(draft, this.#key);
    request.subscribe({
      next: () => this.#done(),
      error: (problem: ApiProblem) => {
        this.#problems.set(problem.errors);
        if (problem.status === 409) this.stored.set(problem.current as Machine);
        else this.failed.set(problem);
      },
    });
  }

  protected choose(which: 'mine' | 'theirs', form: MachineForm): void {
    this.#base = this.stored();
    this.stored.set(undefined);
    if (which === 'mine') this.save(form);
    else this.#done();
  }

  #done(): void {
    this.form.set(undefined);
    this.failed.set(undefined);
    this.#toasts.show('The machine is stored.');
    this.saved.emit();
  }
}
