import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ENTRY_KINDS, kindOfEntry, type EntryKind } from '@needlecase/core';
import type { Aside } from '@needlecase/core/model/access';
import { catchError, merge, of, startWith, Subject, switchMap, type Observable } from 'rxjs';
import { AccessService } from '../data/access.service';
import { wordsOf, type ApiProblem } from '../data/api.service';
import { ChangesService } from '../data/changes.service';
import { ToastsService } from '../data/toasts.service';
import { sayWhenLong } from '../shared/say-when';
import { SingleTaps } from '../shared/single-taps';

/** What waits for a yes: sent by devices that were taken out, or left by somebody with a link. */
@Component({
  selector: 'nc-waits',
  hostDirectives: [SingleTaps],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (waits().length) {
      <section class="door" aria-labelledby="waits-title">
        <h2 id="waits-title">Waits for your yes</h2>
        <p>
          Left by somebody with a link, or sent by a device after you took it out. Does it hold?
        </p>
        @if (failed()) {
          <p class="field-problem" role="alert">{{ failed() }}</p>
        }
        <ul class="rows">
          @for (one of waits(); track one.id) {
            <li>
              @if (one.photo) {
                <a [href]="photoOf(one)" target="_blank" rel="noopener">
                  <img [src]="photoOf(one)" [alt]="'Photo from ' + one.from" loading="lazy" />
                </a>
              }
              <span class="what">
                <strong>{{ saidOf(one) }}</strong>
                <span class="soft">
                  {{ one.byLink ? 'by a link, for ' : '' }}{{ one.from }}, {{ when(one.at) }}
                </span>
              </span>
              <span class="acts">
                <button type="button" class="btn btn-plain" (click)="takeIn(one)">
                  Take it in
                </button>
                <button type="button" class="btn btn-plain" (click)="letGo(one)">Let it go</button>
              </span>
            </li>
          }
        </ul>
      </section>
    }
  `,
  styleUrl: './phones.component.scss',
  styles: `
    img {
      display: block;
      width: 5.5rem;
      height: 5.5rem;
      object-fit: cover;
      border-radius: 0.4rem;
    }
  `,
})
export class WaitsComponent {
  readonly #service = inject(AccessService);
  readonly #toasts = inject(ToastsService);
  readonly #again = new Subject<void>();

  protected readonly waits = toSignal(
    merge(this.#again, inject(ChangesService).of('household')).pipe(
      startWith(undefined),
      switchMap(() => this.#service.setAside().pipe(catchError(() => of([])))),
    ),
    { initialValue: [] },
  );
  protected readonly failed = signal('');

  protected photoOf({ id }: Aside): string {
    return `/api/v1/set-aside/${id}/photo`;
  }

  /** What it says of itself; nobody has looked whether it is right. */
  protected saidOf({ what, body }: Aside): string {
    if (what === 'undo') return 'Something undone';
    if (what === 'case') return 'Trouble told';
    const { kind, note, at } = (body ?? {}) as Record<string, unknown>;
    const name = ENTRY_KINDS.includes(kind as EntryKind)
      ? kindOfEntry(kind as EntryKind).label
      : 'An entry';
    const more = typeof note === 'string' ? `: ${note.slice(0, 400)}` : '';
    return typeof at === 'string' && Date.parse(at)
      ? `${name}, ${this.when(at)}${more}`
      : name + more;
  }

  protected when(at: string): string {
    return sayWhenLong(Date.parse(at));
  }

  protected takeIn(one: Aside): void {
    this.#then(this.#service.takeIn(one), 'It is in the log.');
  }

  protected letGo(one: Aside): void {
    this.#then(this.#service.letGo(one), 'It is let go.');
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
