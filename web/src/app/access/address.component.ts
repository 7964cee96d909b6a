import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  output,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { HouseAddress } from '@needlecase/core/model/access';
import { catchError, of } from 'rxjs';
import { AccessService } from '../data/access.service';
import { wordsOf, type ApiProblem } from '../data/api.service';
import { ToastsService } from '../data/toasts.service';

/** The one address that devices use: which, and what it takes that it stays. */
@Component({
  selector: 'nc-address',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (others().length) {
      <details>
        <summary>Another address</summary>
        <p>
          What a phone keeps belongs to one address: choose it once. A name stays when the router
          gives out other numbers, but some phones do not find one that ends in .local: try it there
          first. A number stays if you reserve it in the router, for the computer that runs
          Needlecase (often under “DHCP”).
        </p>
        <ul class="rows">
          @for (one of others(); track one.host) {
            <li>
              <span class="what">
                <strong>{{ one.origin }}</strong>
                <span class="soft">{{ one.named ? 'a name' : 'a number' }}</span>
              </span>
              <a class="btn btn-link" [href]="one.origin + '/phone'" target="_blank" rel="noopener">
                Try it
              </a>
              <button
                type="button"
                class="btn btn-plain"
                [attr.aria-label]="'Use ' + one.origin"
                (click)="use(one)"
              >
                Use it
              </button>
            </li>
          }
        </ul>
        @if (failed()) {
          <p class="field-problem" role="alert">{{ failed() }}</p>
        }
      </details>
    }
  `,
  styleUrl: './phones.component.scss',
})
export class AddressComponent {
  readonly #service = inject(AccessService);
  readonly #toasts = inject(ToastsService);
  readonly changed = output<void>();

  readonly #read = toSignal(this.#service.addresses().pipe(catchError(() => of([]))), {
    initialValue: [] as HouseAddress[],
  });
  readonly #now = signal<HouseAddress[] | undefined>(undefined);
  readonly #all = computed(() => this.#now() ?? this.#read());
  protected readonly others = computed(() => this.#all().filter(({ used }) => !used));
  protected readonly failed = signal('');

  protected use(one: HouseAddress): void {
    this.failed.set('');
    this.#service.useAddress(one).subscribe({
      next: (all) => {
        this.#now.set(all);
        this.#toasts.show(
          `It is ${one.origin} from now on. Devices at another address are shown the way, and take along what is not sent.`,
          { stays: true },
        );
        this.changed.emit();
      },
      error: (problem: ApiProblem) => this.failed.set(wordsOf(problem)),
    });
  }
}
