import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { causesOf, stationById, type Machine, type StationState } from '@needlecase/core';

/** For who looked already: the cause that was found, along the line. */
@Component({
  selector: 'nc-looked',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details>
      <summary>You looked already?</summary>
      <form (submit)="$event.preventDefault(); told(cause)">
        <label class="form-label" for="looked">Then it is that</label>
        <span class="pair">
          <select #cause id="looked" class="form-select">
            <option value="">choose what you found</option>
            @for (one of causes(); track one.id) {
              <option [value]="one.id">{{ one.where }}: {{ one.name }}</option>
            }
          </select>
          <button type="submit" class="btn btn-plain">That is it</button>
        </span>
      </form>
    </details>
  `,
  styles: `
    summary {
      cursor: pointer;
      font-weight: 600;
      padding-block: 0.6rem;
    }
    .pair {
      display: flex;
      gap: 0.5rem;
    }
    .form-select {
      min-height: 48px;
      min-width: 0;
    }
    .btn {
      flex: none;
      min-height: 48px;
    }
  `,
})
export class LookedComponent {
  readonly machine = input.required<Machine>();
  readonly stations = input.required<readonly StationState[]>();
  readonly looked = output<string>();

  protected readonly causes = computed(() => {
    const order = this.stations().map(({ id }) => id);
    const place = (station: string) => order.indexOf(station) + 1 || 99;
    return causesOf(this.machine())
      .map(({ id, name, station }) => ({ id, name, station, where: stationById(station).name }))
      .sort((a, b) => place(a.station) - place(b.station));
  });

  protected told(select: HTMLSelectElement): void {
    if (select.value) this.looked.emit(select.value);
  }
}
