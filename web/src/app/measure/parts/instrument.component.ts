import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Working } from '@needlecase/core';
import { Measuring } from './measuring';

/** The frame round an instrument: whose machine, the form, what it draws, how it was worked out, keeping. */
@Component({
  selector: 'nc-instrument',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './instrument.component.html',
  styleUrl: './instrument.component.scss',
})
export class InstrumentComponent {
  protected readonly measuring = inject(Measuring);
  readonly lead = input('');
  readonly working = input<readonly Working[]>([]);
  /** What keeping it does, on the button; none where nothing is kept. */
  readonly keep = input<string>();
  readonly ready = input(false);
  readonly save = output();

  protected choose(id: string): void {
    this.measuring.machineId.set(id);
    this.measuring.saved.set(false);
    this.measuring.moved.set([]);
  }
}
