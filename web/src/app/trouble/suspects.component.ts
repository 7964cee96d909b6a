import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  causesOf,
  stationById,
  type Machine,
  type StationState,
  type TroubleView,
} from '@needlecase/core';
import { LineComponent } from '../thread/line.component';
import { percent } from './percent';

/** Suspects: haloed on the machine's line, and ranked with what speaks for and against each. */
@Component({
  selector: 'nc-suspects',
  imports: [LineComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './suspects.component.html',
  styleUrl: './suspects.component.scss',
})
export class SuspectsComponent {
  readonly machine = input.required<Machine>();
  readonly stations = input.required<readonly StationState[]>();
  readonly view = input<TroubleView>();
  /** Whether causes can still be told. */
  readonly asking = input(true);
  readonly looked = output<string>();

  protected readonly halos = computed(() => {
    const halos = new Map<string, number>();
    for (const { station, chance } of this.view()?.suspects ?? []) {
      halos.set(station, Math.max(halos.get(station) ?? 0, chance));
    }
    return halos;
  });
  /** Every cause, along the line. */
  protected readonly causes = computed(() => {
    const order = this.stations().map(({ id }) => id);
    const place = (station: string) => order.indexOf(station) + 1 || 99;
    return causesOf(this.machine())
      .map(({ id, name, station }) => ({ id, name, station, where: stationById(station).name }))
      .sort((a, b) => place(a.station) - place(b.station));
  });
  /** The line that most of it sits on, where one is clearly the likelier. */
  protected readonly mostly = computed(() => {
    const { air = 0, water = 0 } = this.view()?.lines ?? {};
    const [line, chance] = air > water ? ['air', air] : ['water', water];
    return chance > 0.5 ? { line, chance: Number(chance) } : undefined;
  });
  protected readonly percent = percent;

  protected told(select: HTMLSelectElement): void {
    if (select.value) this.looked.emit(select.value);
  }
}
