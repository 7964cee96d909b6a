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
  RETIRED_WHY,
  RETIRED_WORDS,
  type RetiredWhy,
} from '@needlecase/core';
import { wordsOf, type ApiProblem } from '../data/api.service';
import { timeNow } from '../data/clock';
import { HouseholdService } from '../data/household.service';
import { newId } from '../data/platform';
import { ToastsService } from '../data/toasts.service';
import { MachineFieldsComponent } from '../forms/machine-fields.component';
import { draftOf, machineForm, withFittingRules, type MachineForm } from '../forms/machine-form';
import { withoutVersion } from '../forms/onto';
import { FormProblems } from '../forms/problems';
import { ConflictComponent } from './conflict.component';
import { KeeperDirective } from '../shared/keeper.directive';

const REASONS = RETIRED_WHY.map((id) => ({ id, say: RETIRED_WORDS[id] }));

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
          @if (one.retired; as gone) {
            <p class="soft">Retired {{ gone.on }}, {{ whyOf(gone.why) }}{{ heirOf(gone.by) }}.</p>
          }
          <ul class="chips">
            <li>{{ one.loadsPerWeek }} loads in a usual week</li>
            @for (fact of facts(); track fact) {
              <li>{{ fact }}</li>
            }
          </ul>
        </div>
        <span *ncKeeper class="acts">
          @if (one.retired) {
            <button
              type="button"
              class="btn btn-plain"
              [attr.aria-label]="'Bring back ' + one.name"
              (click)="bringBack(one)"
            >
              Bring it back
            </button>
          } @else {
            <button
              type="button"
              class="btn btn-plain"
              (click)="edit(one)"
              [attr.aria-label]="'Change ' + one.name"
            >
              Change
            </button>
            <button
              type="button"
              class="btn btn-plain"
              [attr.aria-expanded]="retiring()"
              [attr.aria-label]="'Retire ' + one.name"
              (click)="retiring.set(!retiring())"
            >
              Retire
            </button>
          }
        </span>
      </div>
      @if (retiring()) {
        <form class="retire" (submit)="$event.preventDefault(); retire(one, why.value, by.value)">
          <p>
            Its record stays, and can be read and printed. Nothing falls due for it any more, and it
            is in no plan.
          </p>
          <label>
            <span class="form-label">Why</span>
            <select #why class="form-select">
              @for (reason of reasons; track reason.id) {
                <option [value]="reason.id">{{ reason.say }}</option>
              }
            </select>
          </label>
          <label>
            <span class="form-label">In its place</span>
            <select #by class="form-select">
              <option value="">no other machine</option>
              @for (other of others(); track other.id) {
                <option [value]="other.id">{{ other.name }}</option>
              }
            </select>
          </label>
          <span class="row">
            <button type="submit" class="btn btn-thread">Retire it</button>
            <button type="button" class="btn btn-plain" (click)="retiring.set(false)">
              Leave it
            </button>
            <button type="button" class="btn btn-link" (click)="takeAway(one)">
              It was entered by mistake: delete it
            </button>
          </span>
        </form>
      }
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

    .acts {
      display: flex;
      flex: none;
      flex-wrap: wrap;
      gap: 0.5rem;
    }

    .retire {
      display: grid;
      gap: 0.6rem;
      margin-top: 0.7rem;
      max-width: 34rem;
    }

    .row {
      display: flex;
      flex-wrap: wrap;
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
  /** The others of the house: one of them may have taken its place. */
  readonly all = input<readonly Machine[]>([]);
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

  protected readonly retiring = signal(false);
  protected readonly reasons = REASONS;
  protected readonly others = computed(() =>
    this.all().filter(({ id, retired }) => id !== this.machine()?.id && !retired),
  );
  protected whyOf(why: RetiredWhy): string {
    return RETIRED_WORDS[why];
  }
  protected heirOf(id: string | undefined): string {
    const heir = this.all().find((one) => one.id === id);
    return heir ? ` by the ${heir.name}` : '';
  }

  protected retire(machine: Machine, why: string, by: string): void {
    const { id, version, ...draft } = machine;
    const retired = { on: dayHere(), why: why as RetiredWhy, ...(by ? { by } : {}) };
    this.#service.saveMachine(id, { ...draft, retired }, version).subscribe({
      next: (stored) => {
        this.retiring.set(false);
        this.#toasts.show(`${machine.name} is retired. Its record stays.`, {
          action: { label: 'Undo', do: () => this.bringBack(stored) },
        });
        this.saved.emit();
      },
      error: (problem: ApiProblem) => this.#refused(problem),
    });
  }

  protected bringBack(machine: Machine): void {
    const { id, version, retired: _retired, ...draft } = machine;
    this.#service.saveMachine(id, draft, version).subscribe({
      next: () => {
        this.#toasts.show(`${machine.name} is back.`);
        this.saved.emit();
      },
      error: (problem: ApiProblem) => this.#refused(problem),
    });
  }

  /** Only of what nothing was recorded; the server says so otherwise. */
  protected takeAway({ id, version, ...draft }: Machine): void {
    this.#service.removeMachine(id, version).subscribe({
      next: () => {
        this.#toasts.show(`${draft.name} is deleted.`, {
          action: {
            label: 'Undo',
            do: () =>
              this.#service.addMachine(draft, newId()).subscribe({
                next: () => this.saved.emit(),
                error: (problem: ApiProblem) => this.#refused(problem),
              }),
          },
        });
        this.saved.emit();
      },
      error: (problem: ApiProblem) => this.#refused(problem),
    });
  }

  #refused(problem: ApiProblem): void {
    this.#toasts.show(wordsOf(problem), { problem: true });
    this.saved.emit();
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

/** The day by this device’s calendar. */
function dayHere(): string {
  const now = new Date(timeNow());
  const two = (n: number) => String(n).padStart(2, '0');
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
