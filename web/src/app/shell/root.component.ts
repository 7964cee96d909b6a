import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { OutboxService } from '../data/outbox.service';
import { FindComponent } from './find.component';
import { ThemeService } from './theme.service';
import { ToastsComponent } from './toasts.component';

/** The frame round every view. */
@Component({
  selector: 'nc-root',
  imports: [RouterOutlet, RouterLink, RouterLinkActive, FindComponent, ToastsComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './root.component.html',
  styleUrl: './root.component.scss',
})
export class RootComponent {
  protected readonly theme = inject(ThemeService);
  protected readonly outbox = inject(OutboxService);
  protected readonly views = [
    { path: '/', name: 'Bench', exact: true },
    { path: '/visit', name: 'Visit', exact: false },
    { path: '/log', name: 'Log', exact: false },
    { path: '/house', name: 'House', exact: false },
  ];

  protected toMain(event: Event): void {
    event.preventDefault();
    document.querySelector<HTMLElement>('#main')?.focus();
  }
}
