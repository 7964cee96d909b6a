import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink } from '@angular/router';

/** The name of one of the Log's pages, with the way back to it. */
@Component({
  selector: 'nc-log-head',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h1><ng-content /></h1>
      <p class="soft small"><a routerLink="/log">The log</a></p>
    </header>
  `,
  styles: `
    @use 'mixins' as *;

    header {
      @include page-head;
    }
    a {
      @include touch;
      align-content: center;
      display: inline-block;
    }
  `,
})
export class LogHeadComponent {}
