import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink } from '@angular/router';

@Component({
  selector: 'nc-lost',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1>There is nothing at this address</h1>
    <p>The link may be old, or a letter is missing. Nothing of yours is lost.</p>
    <a class="btn btn-thread" routerLink="/">Go to the bench</a>
  `,
})
export class LostComponent {}
