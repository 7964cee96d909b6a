import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { startWith, switchMap } from 'rxjs';
import { check, type Supply, type SupplyDraft, type SupplyKind } from '@needlecase/core';
import type { ApiProblem } from '../data/api.service';
import { newId } from '../data/platform';
import { SuppliesService } from '../data/supplies.service';
import { withoutVersion, onto } from '../forms/onto';
import { FieldDirective, FormProblems, ProblemComponent } from '../forms/problems';

const OWN = 'own';
/** What the form asks; everything else of a supply is not its business. */
const KNOWS = ['item', 'name', 'unit', 'pack', 'price'] as const;

/** A supply to keep, or the change of one. */
@Component({
  selector: 'nc-supply-form',
  imports: [ReactiveFormsModule, FieldDirective, ProblemComponent],
  providers: [FormProblems],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form [formGroup]="form()" (submit)="$event.preventDefault(); save()" novalidate>
      <div class="grid">
        @if (!supply()) {
          <div>
            <label class="form-label" for="s-item">What is it?</label>
            <select id="s-item" class="form-select" formControlName="item" ncField="item">
              @for (one of offered(); track one.id) {
                <option [value]="one.id">{{ one.name }}, for {{ one.for }}</option>
              }
              <option value="own">Something else</option>
            </select>
            <nc-problem field="item" />
          </div>
        }
        <div>
          <label class="form-label" for="s-name">Your name for it</label>
          <input id="s-name" class="form-control" formControlName="name" ncField="name" />
          <nc-problem field="name" />
        </div>
        @if (ownKind()) {
          <div>
            <label class="form-label" for="s-unit">Counted in</label>
            <select id="s-unit" class="form-select" formControlName="unit">
              <option value="ml">ml</option>
              <option value="g">g</option>
              <option value="pieces">pieces</option>
            </select>
          </div>
        }
        <div>
          <label class="form-label" for="s-pack">Content of a pack, {{ unit() }}</label>
          <input
            id="s-pack"
            class="form-control"
            type="number"
            inputmode="decimal"
            formControlName="pack"
            ncField="pack"
          />
          <nc-problem field="pack" />
        </div>
        <div>
          <label class="form-label" for="s-price">
            Price of a pack{{ currency() ? ', ' + currency() : '' }}
            <span class="soft">(if you like)</span>
          </label>
          <input
            id="s-price"
            class="form-control"
            type="number"
            inputmode="decimal"
            formControlName="price"
            ncField="price"
          />
          <nc-problem field="price" />
        </div>
      </div>
      @if (failed(); as wrong) {
        <p class="field-problem" role="alert">{{ wrong.title }} {{ wrong.detail }}</p>
      }
      <div class="row">
        <button type="submit" class="btn btn-thread">Store</button>
        <button type="button" class="btn btn-plain" (click)="left.emit()">Leave it</button>
      </div>
    </form>
  `,
  styles: `
    .grid {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(14rem, 1fr));
      gap: 0.7rem 1.25rem;
      align-items: start;
    }

    .row {
      display: flex;
      gap: 0.6rem;
      margin: 0.8rem 0;
    }
  `,
})
export class SupplyFormComponent {
  readonly #service = inject(SuppliesService);
  readonly #problems = inject(FormProblems);
  readonly #key = newId();

  /** The supply to change; none for a new one. */
  readonly supply = input<Supply>();
  readonly offered = input<readonly SupplyKind[]>([]);
  readonly currency = input<string>();
  readonly stored = output<string>();
  readonly left = output<void>();

  protected readonly failed = signal<ApiProblem | undefined>(undefined);
  protected readonly form = linkedSignal(() => formOf(this.supply(), this.offered()[0]));
  readonly #value = toSignal(
    toObservable(this.form).pipe(
      switchMap((form) => form.valueChanges.pipe(startWith(form.value))),
    ),
  );
  protected readonly ownKind = computed(() => !this.supply() && this.#value()?.item === OWN);
  protected readonly unit = computed(() => this.#value()?.unit ?? this.supply()?.unit ?? 'ml');

  constructor() {
    // Choosing a kind fills in its name, unit and usual pack.
    toObservable(this.form)
      .pipe(switchMap((form) => form.controls.item.valueChanges))
      .subscribe((item) => {
        const kind = this.offered().find(({ id }) => id === item);
        this.form().patchValue({
          name: kind?.name ?? '',
          unit: kind?.unit ?? 'pieces',
          pack: kind?.pack ?? 1,
        });
      });
  }

  protected save(): void {
    const draft = this.#read();
    const wrong = check('SupplyDraft', draft);
    this.#problems.set(wrong);
    if (wrong.length) return this.#problems.show();
    const supply = this.supply();
    const request = supply
      ? this.#service.change(supply, onto(withoutVersion(supply), KNOWS, draft))
      : this.#service.keep(draft, this.#key);
    request.subscribe({
      next: ({ name }) => this.stored.emit(`${name} is stored.`),
      error: (problem: ApiProblem) => {
        this.#problems.set(problem.errors);
        if (problem.errors.length) this.#problems.show();
        else this.failed.set(problem);
      },
    });
  }

  #read(): SupplyDraft {
    const { item, name, unit, pack, price } = this.form().getRawValue();
    return {
      item: this.supply()?.item ?? (item === OWN ? `own-${newId()}` : item),
      name: name.trim(),
      unit,
      // A missing figure goes out as it is, so that the check can say so beside the field.
      pack: pack as number,
      ...(price === null ? {} : { price }),
    };
  }
}

function formOf(supply: Supply | undefined, first: SupplyKind | undefined) {
  return new FormGroup({
    item: new FormControl(supply?.item ?? first?.id ?? OWN, { nonNullable: true }),
    name: new FormControl(supply?.name ?? first?.name ?? '', { nonNullable: true }),
    unit: new FormControl<Supply['unit']>(supply?.unit ?? first?.unit ?? 'pieces', {
      nonNullable: true,
    }),
    pack: new FormControl<number | null>(supply?.pack ?? first?.pack ?? 1),
    price: new FormControl<number | null>(supply?.price ?? null),
  });
}
