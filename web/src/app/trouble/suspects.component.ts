import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { isWasher, type Machine, type StationState, type TroubleView } from '@needlecase/core';
import { GaugeComponent } from '../thread/gauge.component';
import { LineComponent } from '../thread/line.component';
import { percent } from './percent';

/** Suspects: haloed on the machine's line, and ranked with what speaks for and against each. */
@Component({
  selector: 'nc-suspects',
  imports: [GaugeComponent, LineComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './suspects.component.html',
  styleUrl: './suspects.component.scss',
})
export class SuspectsComponent {
  readonly machine = input.required<Machine>();
  readonly stations = input.required<readonly StationState[]>();
  readonly view = input<TroubleView>();
  /** With the machine’s line over them. */
  readonly strip = input(true);

  protected readonly halos = computed(() => halosOf(this.view()));
  /** Two can be there at once: then the chances add to more than one. */
  protected readonly together = computed(() => {
    const { suspects = [], other = 0 } = this.view() ?? {};
    return suspects.reduce((sum, { chance }) => sum + chance, other) > 1.02;
  });
  protected readonly line = computed(() => (isWasher(this.machine().kind) ? 'water' : 'air'));
  protected stateOf(station: string): StationState | undefined {
    return this.stations().find(({ id }) => id === station);
  }
  /** The line that most of it sits on, where one is clearly the likelier. */
  protected readonly mostly = computed(() => {
    const { air = 0, water = 0 } = this.view()?.lines ?? {};
    const [line, chance] = air > water ? ['air', air] : ['water', water];
    return chance > 0.5 ? { line, chance: Number(chance) } : undefined;
  });
  protected readonly percent = percent;
}

/** How likely the trouble sits at each station, 0 to 1. */
export function halosOf(view: TroubleView | undefined): ReadonlyMap<string, number> {
  const halos = new Map<string, number>();
  for (const { station, chance } of view?.suspects ?? []) {
    halos.set(station, Math.max(halos.get(station) ?? 0, chance));
  }
  return halos;
}
