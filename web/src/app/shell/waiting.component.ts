import { ChangeDetectionStrategy, Component, inject, resource } from '@angular/core';
import { RouterLink } from '@angular/router';
import { many, sayCaseEvent, sayEntry } from '@needlecase/core';
import { OutboxService, type Waiting } from '../data/outbox.service';
import { VisitSender } from '../data/visit-sender.service';
import { sayWhen } from '../shared/say-when';

/** What is on this device and not with the server yet, one line each. */
@Component({
  selector: 'nc-waiting',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p>Safe here. It is sent, once and in this order, as soon as the server can be reached.</p>
    <ol>
      @for (one of entries.value(); track $index) {
        <li>{{ say(one) }}</li>
      }
      @for (run of sender.waiting(); track run.id) {
        <li>
          <a [routerLink]="['/visit', run.id]">Visit begun {{ when(run.startedAt) }}</a
          >, {{ many(ticks(run), 'step') }} ticked
        </li>
      }
    </ol>
    <button type="button" class="btn btn-plain" (click)="send()">Try now</button>
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
  `,
})
export class WaitingComponent {
  protected readonly outbox = inject(OutboxService);
  protected readonly sender = inject(VisitSender);
  protected readonly many = many;
  protected readonly entries = resource({
    params: () => this.outbox.waiting(),
    loader: () => this.outbox.list(),
  });

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

  protected send(): void {
    void this.outbox.send();
    this.sender.sendAll();
  }
}
