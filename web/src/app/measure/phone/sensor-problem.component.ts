import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** What keeps a sensor from telling something, and that the way by hand stays. */
@Component({
  selector: 'nc-sensor-problem',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (says(); as words) {
      <p class="field-problem" role="alert">{{ words }}</p>
      <p class="soft small">{{ byHand() }}</p>
    }
  `,
})
export class SensorProblemComponent {
  readonly says = input<string>();
  /** How it is measured without. */
  readonly byHand = input('');
}
