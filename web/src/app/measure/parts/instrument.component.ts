import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Working } from '@needlecase/core';
import { Measuring } from './measuring';
import { SelectComponent } from '../../shared/select.component';
import { HerePipe } from '../../shared/here.pipe';

/** The frame round an instrument: whose machine, the form, what it draws, how it was worked out, keeping. */
@Component({
  selector: 'nc-instrument',
  imports: [HerePipe, RouterLink, SelectComponent],
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

  protected readonly machineIds = computed(() => this.measuring.machines().map(({ id }) => id));
  protected readonly sayMachine = (id: string | undefined): string =>
    this.measuring.machines().find((one) => one.id === id)?.name ?? '';

  protected choose(id: string | undefined): void {
    this.measuring.machineId.set(id);
    this.measuring.saved.set(false);
    this.measuring.moved.set([]);
  }
}
