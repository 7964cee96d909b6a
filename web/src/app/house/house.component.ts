import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { Machine } from '@needlecase/core';
import { switchMap, startWith, Subject } from 'rxjs';
import { HouseholdService } from '../data/household.service';
import { KeeperDirective } from '../shared/keeper.directive';
import { HouseholdCardComponent } from './household-card.component';
import { HouseNavComponent } from './house-nav.component';
import { MachineCardComponent } from './machine-card.component';
import { ProfileCardComponent } from './profile-card.component';

/** The household and its machines, to look at and to change. */
@Component({
  selector: 'nc-house',
  imports: [
    HouseNavComponent,
    HouseholdCardComponent,
    KeeperDirective,
    MachineCardComponent,
    ProfileCardComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1>House</h1>
    <nc-house-nav />
    @if (household(); as house) {
      <nc-household-card id="household" [household]="house" (saved)="again()" />
      <nc-profile-card [household]="house" [machines]="here()" (saved)="again()" />
    }
    <h2>Machines</h2>
    @for (machine of here(); track machine.id + '/' + machine.version) {
      <nc-machine-card
        [id]="'machine-' + machine.id"
        [machine]="machine"
        [all]="machines()"
        (saved)="again()"
      />
    }
    @if (adding()) {
      <nc-machine-card (saved)="added()" (left)="adding.set(false)" />
    } @else {
      <button *ncKeeper type="button" class="btn btn-plain" (click)="adding.set(true)">
        Add a machine
      </button>
    }
    @if (gone().length) {
      <details>
        <summary>Retired, with their record</summary>
        @for (machine of gone(); track machine.id + '/' + machine.version) {
          <nc-machine-card [machine]="machine" [all]="machines()" (saved)="again()" />
        }
      </details>
    }
  `,
  styles: `
    :host {
      display: block;
      max-width: 62rem;
    }

    h1 {
      font-size: 1.9rem;
    }

    summary {
      cursor: pointer;
      font-weight: 600;
      margin-top: 1rem;
      min-height: 44px;
    }

    h2 {
      font-size: 1.4rem;
      margin: 1.2rem 0 0.4rem;
    }
  `,
})
export class HouseComponent {
  readonly #service = inject(HouseholdService);
  readonly #again = new Subject<void>();
  protected readonly household = toSignal(
    this.#again.pipe(
      startWith(undefined),
      switchMap(() => this.#service.household()),
    ),
  );
  protected readonly machines = toSignal(
    this.#again.pipe(
      startWith(undefined),
      switchMap(() => this.#service.machines()),
    ),
    { initialValue: [] as Machine[] },
  );
  protected readonly here = computed(() => this.machines().filter(({ retired }) => !retired));
  protected readonly gone = computed(() => this.machines().filter(({ retired }) => retired));
  protected readonly adding = signal(false);

  protected again(): void {
    this.#again.next();
  }

  protected added(): void {
    this.adding.set(false);
    this.again();
  }
}
