import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink, RouterLinkActive } from '@angular/router';
import type { HouseTroubleName } from '@needlecase/core/model/health';
import { catchError, map, of } from 'rxjs';
import { BackupsService } from '../data/backups.service';
import { HouseWatchComponent } from '../shared/house-watch.component';

/** The parts of the house view. */
@Component({
  selector: 'nc-house-nav',
  imports: [HouseWatchComponent, RouterLink, RouterLinkActive],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nav aria-label="Parts of the house">
      @for (part of parts; track part.path) {
        <a
          [routerLink]="part.path"
          routerLinkActive="here"
          ariaCurrentWhenActive="page"
          [routerLinkActiveOptions]="{ exact: true }"
          >{{ part.name }}
          @if (part.path === '/house/backup' && late()) {
            <span class="late">too old</span>
          }
        </a>
      }
    </nav>
    <nc-house-watch [except]="told()" />
  `,
  styles: `
    @use 'mixins' as *;

    nav {
      display: flex;
      flex-wrap: wrap;
      gap: 0.2rem 1.4rem;
      @include seam(bottom);
      margin-bottom: 1rem;
    }

    a {
      padding: 0.5rem 0.1rem;
      font-weight: 600;
      text-decoration: none;
      border-bottom: 3px solid transparent;
      margin-bottom: -2px;
    }

    a:hover {
      border-bottom-color: var(--seam);
    }

    .late {
      color: var(--due);
    }

    a.here {
      border-bottom-color: var(--water);
    }
  `,
})
export class HouseNavComponent {
  /** What the page itself tells of. */
  readonly told = input<HouseTroubleName>();
  /** Whether the last good backup is too long ago. */
  protected readonly late = toSignal(
    inject(BackupsService)
      .state()
      .pipe(
        map(({ old }) => old),
        catchError(() => of(false)),
      ),
    { initialValue: false },
  );
  protected readonly parts = [
    { path: '/house', name: 'Household and machines' },
    { path: '/house/schools', name: 'How often: the rhythms' },
    { path: '/house/supplies', name: 'Supplies' },
    { path: '/house/codes', name: 'Display codes' },
    { path: '/house/phones', name: 'Phones and people' },
    { path: '/house/mail', name: 'Mail' },
    { path: '/house/backup', name: 'Backup' },
    { path: '/log', name: 'Log' },
    { path: '/house/about', name: 'About' },
  ];
}
