import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { ChangesService } from '../data/changes.service';
import { onClockHeard, sayClock } from '../data/clock';
import { OutboxService } from '../data/outbox.service';
import { isSecure } from '../data/platform';
import { ToastsService } from '../data/toasts.service';
import { VisitSender } from '../data/visit-sender.service';
import { FindComponent } from './find.component';
import { lasting } from './lasting';
import { PlainHttpComponent } from './plain-http.component';
import { ThemeService } from './theme.service';
import { ToastsComponent } from './toasts.component';
import { WaitingComponent } from './waiting.component';

/** Sooner than this most is sent. */
const LONG_MS = 1000;

/** The frame round every view. */
@Component({
  selector: 'nc-root',
  imports: [
    RouterOutlet,
    RouterLink,
    RouterLinkActive,
    FindComponent,
    PlainHttpComponent,
    ToastsComponent,
    WaitingComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './root.component.html',
  styleUrl: './root.component.scss',
  host: { '(window:beforeunload)': 'leaving($event)' },
})
export class RootComponent {
  protected readonly secure = isSecure();
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
  protected readonly views = [
    { path: '/', name: 'Bench', exact: true },
    { path: '/visit', name: 'Visit', exact: false },
    { path: '/trouble', name: 'Trouble', exact: false },
    { path: '/measure', name: 'Measure', exact: false },
    { path: '/log', name: 'Log', exact: false },
    { path: '/house', name: 'House', exact: false },
  ];

  constructor() {
    const toasts = inject(ToastsService);
    onClockHeard(() => sayClock(toasts));
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

  protected toMain(event: Event): void {
    event.preventDefault();
    document.querySelector<HTMLElement>('#main')?.focus();
  }
}
