import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  resource,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap';
import { many, sayCaseEvent, sayEntry } from '@needlecase/core';
import { houseAddress, inAddress } from '../data/moving';
import { ChangesService } from '../data/changes.service';
import { BenchService } from '../data/bench.service';
import { OutboxService, type Kept, type Outgoing, type Waiting } from '../data/outbox.service';
import { VisitSender } from '../data/visit-sender.service';
import { sayWhen } from '../shared/say-when';

/** What is on this device and not with the server yet, one line each. */
@Component({
  selector: 'nc-waiting',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (refused().length) {
      <p>Refused by the server. It stays here until you decide.</p>
      <ul class="refused">
        @for (one of refused(); track one.key) {
          <li>
            {{ say(one.what) }}
            <span class="why">{{ one.aside!.title }} {{ one.aside!.message }}</span>
            <span class="deeds">
              <button type="button" class="btn btn-plain" (click)="correct(one)">
                {{ 'kind' in one.what ? 'Correct and send' : 'Send it again' }}
              </button>
              <button type="button" class="btn btn-plain" (click)="letGo(one)">Let it go</button>
            </span>
          </li>
        }
      </ul>
    }
    @if (outbox.stuck(); as why) {
      <p>
        <strong>{{ why }}</strong>
      </p>
    }
    @if (outbox.unkept() + sender.unkept()) {
      <p>
        <strong>This device has no room, or keeps nothing.</strong> What is not sent is only on this
        page: leave it open, and free some space. It is sent as soon as the server can be reached.
      </p>
    } @else if (waiting().length || sender.waiting().length) {
      <p>Safe here. It is sent, once and in this order, as soon as the server can be reached.</p>
    }
    <ol>
      @for (one of waiting(); track one.key) {
        <li>{{ say(one.what) }}</li>
      }
      @for (run of sender.waiting(); track run.id) {
        <li>
          <a [routerLink]="['/visit', run.id]">Visit begun {{ when(run.startedAt) }}</a
          >, {{ many(ticks(run), 'step') }} ticked
        </li>
      }
    </ol>
    @if (waiting().length || sender.waiting().length) {
      <button type="button" class="btn btn-plain" (click)="send()">Try now</button>
    }
    @if (waiting().length && !changes.connected()) {
      <details>
        <summary>The house has another address now?</summary>
        <form (submit)="$event.preventDefault(); takeAlong(address.value)">
          <label class="form-label" for="w-address">
            The address, as House, Phones and people shows it on the server’s own computer
          </label>
          <input
            #address
            id="w-address"
            class="form-control"
            inputmode="url"
            autocapitalize="off"
            spellcheck="false"
            placeholder="https://192.168.1.20:4311"
            [attr.aria-invalid]="wrong() ? true : null"
            aria-describedby="w-address-problem"
          />
          <p id="w-address-problem" class="field-problem" aria-live="polite">{{ wrong() }}</p>
          <button type="submit" class="btn btn-plain">Go there with what waits</button>
        </form>
      </details>
    }
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      display: block;
      padding: 0.8rem 1rem;
    }
    .btn {
      @include touch;
    }

    .refused {
      list-style: none;
      padding: 0;
    }

    .why {
      border-left: 5px solid var(--due);
      display: block;
      font-weight: 600;
      margin: 0.3rem 0;
      padding-left: 0.6rem;
    }

    .deeds {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
      margin-bottom: 0.8rem;
    }
  `,
})
export class WaitingComponent {
  protected readonly changes = inject(ChangesService);
  protected readonly wrong = signal('');
  protected readonly outbox = inject(OutboxService);
  protected readonly sender = inject(VisitSender);
  protected readonly many = many;
  readonly #dialogs = inject(NgbModal);
  readonly #bench = toSignal(inject(BenchService).bench$);
  readonly #letters = resource({
    params: () => [this.outbox.waiting(), this.outbox.aside()],
    loader: () => this.outbox.letters(),
  });
  protected readonly waiting = computed(() =>
    (this.#letters.value() ?? []).filter(({ aside }) => !aside),
  );
  protected readonly refused = computed(() =>
    (this.#letters.value() ?? []).filter(({ aside }) => aside),
  );

  protected say(one: Waiting): string {
    if ('photo' in one) return 'A photo';
    if ('news' in one) return `Trouble: ${sayCaseEvent(one.news.events.at(-1)!)}`;
    return 'undo' in one ? 'Something taken back' : `${sayEntry(one)}, ${this.when(one.at)}`;
  }

  protected when(instant: string): string {
    return sayWhen(Date.parse(instant));
  }

  protected ticks({ progress }: { progress: { ticked: object } }): number {
    return Object.keys(progress.ticked).length;
  }

  /** It stays here, too: an entry has one id wherever it is sent from, and is counted once. */
  protected async takeAlong(typed: string): Promise<void> {
    const origin = houseAddress(typed);
    this.wrong.set(origin ? '' : 'That is no address: it begins with https:// or http://.');
    if (origin) location.assign(`${origin}/pair#&${inAddress(await this.outbox.list())}`);
  }

  /** Opens what was refused with the reason beside its field; anything but an entry is only sent again. */
  protected async correct({ key, what, aside }: Kept): Promise<void> {
    if (!('kind' in what)) return this.outbox.correct(key, what);
    const { EntryDialogComponent } = await import('../log/entry-dialog.component');
    const dialog = this.#dialogs.open(EntryDialogComponent, { ariaLabelledBy: 'entry-title' });
    const form = dialog.componentInstance as InstanceType<typeof EntryDialogComponent>;
    const { machines, household } = this.#bench()?.value ?? {};
    form.machines.set(machines ?? []);
    form.zone.set(household?.zone ?? 'UTC');
    form.refused.set({ draft: what, ...(aside ? { why: aside } : {}) });
    const corrected = (await dialog.result.catch(() => undefined)) as Outgoing | undefined;
    if (corrected) await this.outbox.correct(key, corrected);
  }

  protected letGo({ key }: Kept): void {
    void this.outbox.letGo(key);
  }

  protected send(): void {
    void this.outbox.send();
    this.sender.sendAll();
  }
}
