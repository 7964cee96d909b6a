import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { HARDNESS_CLASSES, hardnessClass, toOwn, type Amount } from '@needlecase/core';

/** The hardness of the water, by the class that a test strip shows. */
@Component({
  selector: 'nc-strip-classes',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <fieldset class="choices">
      <legend>The water, by a test strip</legend>
      @for (one of classes; track one.name) {
        <button
          type="button"
          class="choice"
          [attr.aria-pressed]="one.name === shown()"
          (click)="chosen.emit({ value: one.middle, unit: 'mg/L' })"
        >
          {{ one.name }}
        </button>
      }
    </fieldset>
  `,
  styleUrl: '../instruments/instruments.scss',
})
export class StripClassesComponent {
  readonly hardness = input<Amount>();
  readonly chosen = output<Amount>();
  protected readonly classes = HARDNESS_CLASSES;
  protected readonly shown = computed(() => {
    const hardness = this.hardness();
    return hardness && Number.isFinite(hardness.value)
      ? hardnessClass(toOwn(hardness, 'hardness'))
      : undefined;
  });
}
