import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';

/** The parts of the house view. */
@Component({
  selector: 'nc-house-nav',
  imports: [RouterLink, RouterLinkActive],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nav aria-label="Parts of the house">
      @for (part of parts; track part.path) {
        <a
          [routerLink]="part.path"
          routerLinkActive="here"
          ariaCurrentWhenActive="page"
          [routerLinkActiveOptions]="{ exact: true }"
          >{{ part.name }}</a
        >
      }
    </nav>
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

    a.here {
      border-bottom-color: var(--water);
    }
  `,
})
export class HouseNavComponent {
  protected readonly parts = [
    { path: '/house', name: 'Household and machines' },
    { path: '/house/schools', name: 'How often: the rhythms' },
    { path: '/house/supplies', name: 'Supplies' },
    { path: '/house/codes', name: 'Display codes' },
  ];
}
