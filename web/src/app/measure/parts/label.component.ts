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
import { SelectComponent } from '../../shared/select.component';

type FigureId = 'soft' | 'medium' | 'hard' | 'labelLoad' | 'density' | 'pack' | 'price';

/** A detergent's label: its doses by hardness, what acts in it, what a pack holds and costs. */
@Component({
  selector: 'nc-label',
  imports: [SelectComponent],
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
      <select
        nc-select
        id="label-unit"
        [options]="units"
        [chosen]="detergent().unit"
        (chosenChange)="set({ unit: $event })"
      ></select>
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
        nc-select
        id="label-active"
        [options]="actives"
        [chosen]="acting()"
        [say]="sayActive"
        (chosenChange)="setActive($event)"
      ></select>
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
  protected readonly actives = [undefined, ...ACTIVES] as const;
  protected readonly sayActive = (one: Active | undefined): string =>
    one === undefined ? 'nothing that matters' : ACTIVE_NAMES[one];
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

  protected setActive(active: Active | undefined): void {
    const { actives: _was, ...rest } = this.detergent();
    this.changed.emit(active === undefined ? rest : { ...rest, actives: [active] });
  }
}
