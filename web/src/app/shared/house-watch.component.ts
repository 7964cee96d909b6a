import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import type { HouseTroubleName } from '@needlecase/core/model/health';
import { ChangesService } from '../data/changes.service';
import { HealthService } from '../data/health.service';
import { sayWhenLong } from './say-when';

const DOORS: Record<string, string> = {
  '/house/backup': 'Backup',
  '/house/about': 'About',
  '/house/phones': 'Phones',
  '/measure': 'Measure',
  '/plan': 'Plan',
};

/** What an owner should know of the computer that all of it is on, before it costs anything; nothing while all is well. */
@Component({
  selector: 'nc-house-watch',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (trouble of shown(); track trouble.what) {
      <section class="trouble" role="alert">
        <p>
          <strong>{{ trouble.title }}</strong> {{ trouble.detail }}
          <small class="soft">Since {{ when(trouble.since) }}.</small>
        </p>
        @if (onBench()) {
          <a class="btn btn-plain" [routerLink]="trouble.leads">{{ doorTo(trouble.leads) }}</a>
        }
      </section>
    }
  `,
  styles: `
    .trouble {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 0.3rem 1rem;
      margin: 0 0 0.8rem;
      padding: 0.5rem 0.9rem;
      border-left: 4px solid var(--due);
    }

    p {
      flex: 1 1 20rem;
      max-width: 70ch;
      margin: 0;
      overflow-wrap: anywhere;
    }

    strong {
      color: var(--due);
    }
  `,
})
export class HouseWatchComponent {
  /** On the Bench only what matters there, with the way to where something can be done. */
  readonly onBench = input(false);
  /** What the page itself tells of is not told twice. */
  readonly except = input<HouseTroubleName>();
  readonly #troubles = toSignal(inject(HealthService).troubles(), { initialValue: [] });
  readonly #changes = inject(ChangesService);
  protected readonly shown = computed(() =>
    this.#troubles().filter(
      ({ what, bench }) =>
        (bench || !this.onBench()) &&
        what !== this.except() &&
        !(what === 'data-file' && this.#changes.stopped()),
    ),
  );

  /** The page that a button leads to, by its name. */
  protected doorTo(path: string): string {
    return DOORS[path] ?? 'Open';
  }

  protected when(since: string): string {
    return sayWhenLong(Date.parse(since));
  }
}
