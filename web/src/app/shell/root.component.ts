import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  Injector,
  signal,
} from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { debounceTime, filter, switchMap, take } from 'rxjs';
import { ChangesService } from '../data/changes.service';
import { onClockHeard, sayClock } from '../data/clock';
import { OutboxService } from '../data/outbox.service';
import { isSecure } from '../data/platform';
import { RoleService } from '../data/role.service';
import { ToastsService } from '../data/toasts.service';
import { VisitSender } from '../data/visit-sender.service';
import { FindComponent } from './find.component';
import { lasting } from './lasting';
import { remindLater } from './remind-later';
import { asksToFind } from './slash';
import { BetterAddressComponent } from './better-address.component';
import { ThemeService } from './theme.service';
import { ToastsComponent } from './toasts.component';
import { WaitingComponent } from './waiting.component';

/** Sooner than this most is sent. */
const LONG_MS = 1000;

/** What is only `wide` is reached otherwise on a phone. */
const VIEWS = [
  { path: '/', name: 'Bench', wide: false, exact: true, guests: true },
  { path: '/plan', name: 'Plan', wide: false, exact: false, guests: false },
  { path: '/trouble', name: 'Trouble', wide: false, exact: false, guests: true },
  { path: '/measure', name: 'Measure', wide: false, exact: false, guests: true },
  { path: '/log', name: 'Log', wide: true, exact: false, guests: false },
  { path: '/house', name: 'House', wide: false, exact: false, guests: false },
];

/** The frame round every view. */
@Component({
  selector: 'nc-root',
  imports: [
    RouterOutlet,
    RouterLink,
    RouterLinkActive,
    FindComponent,
    BetterAddressComponent,
    ToastsComponent,
    WaitingComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './root.component.html',
  styleUrl: './root.component.scss',
  host: { '(window:beforeunload)': 'leaving($event)', '(document:keydown)': 'onKey($event)' },
})
export class RootComponent {
  protected readonly secure = isSecure();
  protected readonly toasts = inject(ToastsService);
  protected readonly theme = inject(ThemeService);
  protected readonly changes = inject(ChangesService);
  protected readonly outbox = inject(OutboxService);
  readonly #sender = inject(VisitSender);
  /** Entries and visits on this device that the server does not have. */
  protected readonly waiting = lasting(
    computed(() => this.outbox.waiting() + this.#sender.waiting().length),
    LONG_MS,
  );
  /** What this device did not take, and is gone with the page. */
  protected readonly unkept = lasting(
    computed(() => this.outbox.unkept() + this.#sender.unkept()),
    LONG_MS,
  );
  protected readonly told = computed(() =>
    [
      this.waiting() ? `${this.waiting()} not sent yet` : '',
      this.outbox.aside() ? `${this.outbox.aside()} refused` : '',
      this.unkept() ? 'only on this page' : '',
    ]
      .filter((part) => part)
      .join(', '),
  );
  /** Who this device is for; a guest looks on, counts loads and reports trouble. */
  readonly #role = inject(RoleService);
  protected readonly views = computed(() =>
    VIEWS.filter(({ guests }) => guests || this.#role.may('helper')),
  );

  /** The house has laid down another address than this page's. */
  protected readonly elsewhere = computed(() => {
    const me = this.#role.me();
    return me?.by === 'device' && me.settled === true && me.origin !== location.origin;
  });

  /** What was typed into the find box before it was there; nothing where it was not asked for. */
  protected readonly findTyped = signal<string | undefined>(undefined);

  constructor() {
    const { toasts } = this;
    this.#role.ask();
    // Whoever is let in hears of it where that changes; nobody else is told anything.
    toObservable(this.#role.me)
      .pipe(
        filter((me) => me !== undefined && me.by !== 'nobody'),
        take(1),
        switchMap(() => this.changes.of('household')),
        debounceTime(60),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.#role.ask());
    onClockHeard(() => sayClock(toasts));
    remindLater(inject(Injector));
    this.outbox.cleared$.pipe(takeUntilDestroyed()).subscribe((count) => {
      const back = count > 0 ? ` ${count} not sent yet are put back by this page.` : '';
      toasts.show(
        `This browser has cleared what Needlecase kept on this device.${back} What only other pages knew is gone.`,
        { stays: true, problem: true },
      );
    });
  }

  /** The browser asks before what only this page has is gone. */
  protected leaving(event: Event): void {
    if (this.outbox.unkept() + this.#sender.unkept() > 0) event.preventDefault();
  }

  /** The find box may not be there yet. */
  protected onKey(event: KeyboardEvent): void {
    if (!asksToFind(event)) return;
    event.preventDefault();
    document.querySelector<HTMLElement>('input.find')?.focus();
  }

  protected toMain(event: Event): void {
    event.preventDefault();
    document.querySelector<HTMLElement>('#main')?.focus();
  }
}
