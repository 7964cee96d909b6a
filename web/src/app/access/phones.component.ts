import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { Device, PairingCode, Person } from '@needlecase/core/model/access';
import { catchError, merge, of, startWith, Subject, switchMap, type Observable } from 'rxjs';
import { AccessService } from '../data/access.service';
import { ApiProblem, wordsOf } from '../data/api.service';
import { ChangesService } from '../data/changes.service';
import { RoleService } from '../data/role.service';
import { ToastsService } from '../data/toasts.service';
import { HouseNavComponent } from '../house/house-nav.component';
import { sayWhenLong } from '../shared/say-when';
import { SingleTaps } from '../shared/single-taps';
import { WhoComponent } from '../shared/who.component';
import { AddressComponent } from './address.component';
import { GivenComponent } from './given.component';
import { OwnComponent } from './own.component';
import { PeopleComponent } from './people.component';
import { QrComponent } from './qr.component';
import { WaitsComponent } from './waits.component';

/** The devices that are in, and how another one gets in; with the people they belong to, and what was given to others. */
@Component({
  selector: 'nc-phones',
  imports: [
    AddressComponent,
    GivenComponent,
    HouseNavComponent,
    OwnComponent,
    PeopleComponent,
    QrComponent,
    WaitsComponent,
    WhoComponent,
  ],
  hostDirectives: [SingleTaps],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './phones.component.html',
  styleUrl: './phones.component.scss',
})
export class PhonesComponent {
  readonly #service = inject(AccessService);
  readonly #toasts = inject(ToastsService);
  readonly #again = new Subject<void>();
  readonly #changed = merge(this.#again, inject(ChangesService).of('household')).pipe(
    startWith(undefined),
  );
  protected readonly role = inject(RoleService);

  readonly #me = toSignal(
    this.#changed.pipe(
      switchMap(() => this.#service.me().pipe(catchError((problem: ApiProblem) => of(problem)))),
    ),
  );
  protected readonly me = computed(() => {
    const me = this.#me();
    return me instanceof ApiProblem ? undefined : me;
  });
  readonly #devices = toSignal(
    this.#changed.pipe(
      switchMap(() =>
        this.role.may('keeper')
          ? this.#service.devices().pipe(catchError((problem: ApiProblem) => of(problem)))
          : of([]),
      ),
    ),
  );
  protected readonly problem = computed(() => {
    const devices = this.#devices();
    return devices instanceof ApiProblem ? devices : undefined;
  });
  protected readonly persons = toSignal(
    this.#changed.pipe(switchMap(() => this.#service.persons$.pipe(catchError(() => of([]))))),
    { initialValue: [] },
  );
  /** One person alone sees nothing of persons. */
  protected readonly several = computed(() => this.persons().length > 1);
  readonly #all = computed(() => {
    const devices = this.#devices();
    return devices instanceof ApiProblem || !devices ? [] : devices;
  });
  protected readonly devices = computed(() => this.#all().filter(({ revokedAt }) => !revokedAt));
  protected readonly out = computed(() => this.#all().filter(({ revokedAt }) => revokedAt));

  protected readonly code = signal<PairingCode | undefined>(undefined);
  protected readonly failed = signal('');
  protected personOf({ personId }: Device): Person | undefined {
    return this.persons().find(({ id }) => id === personId);
  }

  protected when(at: string): string {
    return sayWhenLong(Date.parse(at));
  }

  protected bare(address: string): string {
    return address.replace(/#.*/, '');
  }

  protected again(): void {
    this.#again.next();
  }

  protected makeCode(): void {
    this.failed.set('');
    this.#service.newCode().subscribe({
      next: (code) => this.code.set(code),
      error: (problem: ApiProblem) => this.failed.set(`${problem.title} ${problem.detail}`),
    });
  }

  protected forWhom({ personId }: PairingCode): Person | undefined {
    return this.several() ? this.persons().find(({ id }) => id === personId) : undefined;
  }

  protected takeOut(device: Device): void {
    this.#then(this.#service.takeOut(device), `${device.name} is shut out.`);
  }

  #then(asked: Observable<unknown>, said: string): void {
    this.failed.set('');
    asked.subscribe({
      next: () => {
        this.#toasts.show(said);
        this.#again.next();
      },
      error: (problem: ApiProblem) => this.failed.set(wordsOf(problem)),
    });
  }
}
