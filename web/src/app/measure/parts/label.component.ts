import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  ACTIVE_NAMES,
  ACTIVES,
  DOSE_UNITS,
  type Active,
  type Detergent,
  type FieldProblem,
} from '@needlecase/core';
import { numberOf } from '../../forms/number-of';

type FigureId = 'soft' | 'medium' | 'hard' | 'labelLoad' | 'density' | 'pack' | 'price';
const MILD = 'mild';

/** A detergent's label: its doses by hardness, what acts in it, what a pack holds and costs. */
@Component({
  selector: 'nc-label',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="pair">
      <label for="label-name">Its name</label>
      <input
        #name
        id="label-name"
        class="form-control"
        maxlength="60"
        [value]="detergent().name"
        (change)="set({ name: name.value.trim() })"
      />
    </div>
    <div class="pair">
      <label for="label-unit">Its doses are in</label>
      <select #unit id="label-unit" class="form-select" (change)="set({ unit: $any(unit.value) })">
        @for (one of units; track one) {
          <option [value]="one" [selected]="one === detergent().unit">{{ one }}</option>
        }
      </select>
    </div>
    @for (one of figures(); track one.id) {
      <div class="pair">
        <label [for]="'label-' + one.id">{{ one.say }}</label>
        <input
          #field
          [id]="'label-' + one.id"
          class="form-control"
          inputmode="decimal"
          maxlength="8"
          [value]="detergent()[one.id] ?? ''"
          (change)="setFigure(one.id, field.value)"
          [attr.aria-invalid]="wrong(one.id) ? true : null"
        />
      </div>
      @if (wrong(one.id); as message) {
        <p class="field-problem" role="alert">{{ message }}</p>
      }
    }
    <div class="pair">
      <label for="label-active">Besides soap it has</label>
      <select
        #active
        id="label-active"
        class="form-select"
        (change)="setActive($any(active.value))"
      >
        <option [value]="mild" [selected]="!acting()">nothing that matters</option>
        @for (one of actives; track one) {
          <option [value]="one" [selected]="one === acting()">{{ activeNames[one] }}</option>
        }
      </select>
    </div>
  `,
  styleUrl: '../instruments/instruments.scss',
})
export class LabelComponent {
  readonly detergent = input.required<Detergent>();
  readonly problems = input<readonly FieldProblem[]>([]);
  readonly currency = input('');
  readonly changed = output<Detergent>();

  protected readonly units = DOSE_UNITS;
  protected readonly actives = ACTIVES;
  protected readonly activeNames = ACTIVE_NAMES;
  protected readonly mild = MILD;
  protected readonly acting = computed(() => this.detergent().actives?.[0]);
  protected readonly figures = computed<{ id: FigureId; say: string }[]>(() => {
    const unit = this.detergent().unit;
    return [
      { id: 'soft', say: `Dose, soft water, ${unit}` },
      { id: 'medium', say: `Dose, medium water, ${unit}` },
      { id: 'hard', say: `Dose, hard water, ${unit}` },
      { id: 'labelLoad', say: 'For a load of, kg' },
      { id: 'density', say: 'Density, g/ml' },
      { id: 'pack', say: `A pack holds, ${unit}` },
      { id: 'price', say: `A pack costs${this.currency() ? ', ' + this.currency() : ''}` },
    ];
  });

  protected wrong(id: FigureId): string {
    return this.problems().find(({ field }) => field === `detergent.${id}`)?.message ?? '';
  }

  protected set(change: Partial<Detergent>): void {
    this.changed.emit({ ...this.detergent(), ...change });
  }

  protected setFigure(id: FigureId, text: string): void {
    const { [id]: _was, ...rest } = this.detergent();
    const given = text.trim() === '' ? {} : { [id]: numberOf(text) };
    this.changed.emit({ ...rest, ...given } as Detergent);
  }

  protected setActive(active: Active | typeof MILD): void {
    const { actives: _was, ...rest } = this.detergent();
    this.changed.emit(active === MILD ? rest : { ...rest, actives: [active] });
  }
}
