import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import {
  check,
  fromOwn,
  rulesOf,
  sayAmount,
  SCHOOL_TEXTS,
  VISIT_MINUTES,
  type Household,
} from '@needlecase/core';
import type { ApiProblem } from '../data/api.service';
import { HouseholdService } from '../data/household.service';
import { speakAtHome } from '../data/tongue';
import { ToastsService } from '../data/toasts.service';
import {
  HouseholdFieldsComponent,
  householdDraft,
  householdForm,
  type HouseholdForm,
} from '../forms/household-fields.component';
import { withoutVersion } from '../forms/onto';
import { FormProblems } from '../forms/problems';
import { ConflictComponent } from './conflict.component';
import { KeeperDirective } from '../shared/keeper.directive';

/** Where the form's figures are not the schema's. */
const WORDS: Record<string, string> = {
  risk: 'Give a number from 2 to 30.',
  currency: 'Give the three letters of your money, such as EUR.',
};

/** The household in a sentence, and as a form to change it. */
@Component({
  selector: 'nc-household-card',
  imports: [KeeperDirective, HouseholdFieldsComponent, ConflictComponent],
  providers: [FormProblems],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let house = household();
    @if (form(); as open) {
      <form (submit)="$event.preventDefault(); save()" novalidate>
        <nc-household-fields [form]="open" [intervals]="true" />
        @if (stored(); as theirs) {
          <nc-conflict [mine]="draft()!" [theirs]="theirs" (choose)="choose($event)" />
        } @else {
          @if (failed(); as wrong) {
            <p class="field-problem" role="alert">{{ wrong.title }} {{ wrong.detail }}</p>
          }
          <div class="row">
            <button type="submit" class="btn btn-thread">Store</button>
            <button type="button" class="btn btn-plain" (click)="form.set(undefined)">
              Leave it
            </button>
          </div>
        }
      </form>
    } @else {
      <p class="said">
        <strong>{{ house.name }}</strong>. Time zone {{ house.zone.replaceAll('_', ' ') }}. Units
        {{ house.units === 'metric' ? 'metric' : 'US customary' }}. {{ regionName() }}. Water
        hardness {{ hardness() }}. Rhythm: {{ schools[house.school].name.toLowerCase() }}; a date
        leaves {{ percent() }} % chance that a part is past its mark before it is cleaned. A visit
        takes about {{ house.visitMinutes ?? usualMinutes }} minutes at work.
        <button *ncKeeper type="button" class="btn btn-plain" (click)="edit()">Change</button>
      </p>
    }
  `,
  styles: `
    .row {
      display: flex;
      gap: 0.6rem;
      margin-top: 1rem;
    }

    .said .btn {
      margin-left: 0.6rem;
    }
  `,
})
export class HouseholdCardComponent {
  readonly #service = inject(HouseholdService);
  readonly #problems = inject(FormProblems);
  readonly #toasts = inject(ToastsService);

  readonly household = input.required<Household>();
  readonly saved = output<void>();

  protected readonly form = signal<HouseholdForm | undefined>(undefined);
  protected readonly failed = signal<ApiProblem | undefined>(undefined);
  protected readonly stored = signal<Household | undefined>(undefined);
  protected readonly percent = computed(() => Math.round(this.household().risk * 100));
  protected readonly regionName = computed(() => rulesOf(this.household()).name);
  protected readonly hardness = computed(() => {
    const { hardness } = this.household();
    const unit = rulesOf(this.household()).hardness;
    return hardness === undefined
      ? 'not known'
      : sayAmount(fromOwn(hardness, 'hardness', unit), unit);
  });
  protected readonly schools = SCHOOL_TEXTS;
  protected readonly usualMinutes = VISIT_MINUTES;
  /** The household as it was when the form was opened, or is stored now. */
  #base: Household | undefined;

  protected edit(): void {
    this.#base = this.household();
    this.form.set(householdForm(this.#base));
  }

  protected draft() {
    const form = this.form();
    return form && householdDraft(form, this.#base && withoutVersion(this.#base));
  }

  protected save(): void {
    const draft = this.draft()!;
    const wrong = check('HouseholdDraft', draft).map((one) =>
      one.field in WORDS ? { ...one, message: WORDS[one.field]! } : one,
    );
    this.#problems.set(wrong);
    if (wrong.length) return this.#problems.show();
    this.#service.saveHousehold(draft, this.#base!.version).subscribe({
      next: (stored) => {
        this.#done();
        // What is drawn already keeps its words and units until the page is read anew.
        if (speakAtHome(stored)) location.reload();
      },
      error: (problem: ApiProblem) => {
        this.#problems.set(problem.errors);
        if (problem.status === 409) this.stored.set(problem.current as Household);
        else this.failed.set(problem);
      },
    });
  }

  protected choose(which: 'mine' | 'theirs'): void {
    this.#base = this.stored();
    this.stored.set(undefined);
    if (which === 'mine') this.save();
    else this.#done();
  }

  #done(): void {
    this.form.set(undefined);
    this.failed.set(undefined);
    this.#toasts.show('The household is stored.');
    this.saved.emit();
  }
}
