import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { sayDay, type FieldProblem } from '@needlecase/core';
import type { BusyCalendar, Feed } from '@needlecase/core/model/planned';
import type { PlanView } from '@needlecase/core/views/plan';
import type { Observable } from 'rxjs';
import { wordsOf, type ApiProblem } from '../data/api.service';
import { copyText } from '../data/platform';
import { PlanService } from '../data/plan.service';
import { fieldsOf } from '../shared/form-of';
import { KeeperDirective } from '../shared/keeper.directive';
import { RemindersComponent } from './reminders.component';

/** A calendar file larger than this is not sent. Bytes; the server says the same. */
const MOST_BYTES = 2_000_000;

/** How the visits reach people where they look: in their calendars, and on paper. */
@Component({
  selector: 'nc-told',
  imports: [KeeperDirective, RemindersComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './told.component.html',
  styleUrl: './told.component.scss',
})
export class ToldComponent {
  readonly #service = inject(PlanService);

  readonly view = input.required<PlanView>();
  readonly closed = output<void>();

  protected readonly feeds = signal<readonly Feed[]>([]);
  protected readonly calendars = signal<readonly BusyCalendar[]>([]);
  /** Just made: its address is told this once. */
  protected readonly made = signal<Feed | undefined>(undefined);
  protected readonly copied = signal(false);
  protected readonly busy = signal(false);
  protected readonly wrong = signal('');
  protected readonly problems = signal<readonly FieldProblem[]>([]);
  protected readonly sayDay = sayDay;

  constructor() {
    this.#service
      .feeds()
      .subscribe({ next: (feeds) => this.feeds.set(feeds), error: () => this.#not() });
    this.#readCalendars();
  }

  /** The address of a sheet, of a large house for the section that is looked at. */
  protected sheet(name: string, how = ''): string {
    const query = new URLSearchParams(how);
    const { section } = this.view();
    if (section) query.set('section', section.id);
    const asked = query.toString();
    return `/api/v1/prints/${name}.pdf${asked ? `?${asked}` : ''}`;
  }

  protected nameProblem(): string | undefined {
    return this.problems().find(({ field }) => field === 'name')?.message;
  }

  protected make(event: Event): void {
    const of = fieldsOf(event);
    const who = of('who');
    if (!of('name')) {
      this.problems.set([{ field: 'name', message: 'Say what it is for.' }]);
      return;
    }
    this.busy.set(true);
    this.problems.set([]);
    const draft = {
      name: of('name'),
      evening: of('evening') === 'on',
      begins: of('begins') === 'on',
      ...(who ? { who } : {}),
    };
    this.#service.makeFeed(draft).subscribe({
      next: (feed) => {
        this.busy.set(false);
        this.copied.set(false);
        this.made.set(feed);
        const { address: _once, ...known } = feed;
        this.feeds.update((all) => [...all, known]);
      },
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.problems.set(problem.errors);
        if (problem.errors.length === 0) this.wrong.set(wordsOf(problem));
      },
    });
  }

  protected takeBack(feed: Feed): void {
    this.#service.removeFeed(feed).subscribe({
      next: (feeds) => {
        this.feeds.set(feeds);
        if (this.made()?.id === feed.id) this.made.set(undefined);
      },
      error: (problem: ApiProblem) => this.wrong.set(wordsOf(problem)),
    });
  }

  protected async copy(address: string): Promise<void> {
    this.copied.set(await copyText(address));
    if (!this.copied()) {
      this.wrong.set('This browser does not let a page copy: mark the address and copy it.');
    }
  }

  protected read({ target }: Event): void {
    const field = target as HTMLInputElement;
    const file = field.files?.[0];
    if (!file) return;
    field.value = '';
    if (file.size > MOST_BYTES) {
      this.wrong.set('This file is larger than a calendar of a person: nothing was read.');
      return;
    }
    this.#take(this.#service.readIn(file));
  }

  protected readFrom(event: Event): void {
    const field = fieldsOf(event);
    const address = field('address');
    if (address) this.#take(this.#service.readFrom(address, field('home') === 'on'));
  }

  #take(reading: Observable<BusyCalendar>): void {
    this.busy.set(true);
    this.wrong.set('');
    reading.subscribe({
      next: () => {
        this.busy.set(false);
        this.#readCalendars();
        this.#service.refresh();
      },
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.wrong.set(wordsOf(problem));
      },
    });
  }

  protected letGo(calendar: BusyCalendar): void {
    this.#service.letGo(calendar).subscribe({
      next: () => {
        this.#readCalendars();
        this.#service.refresh();
      },
      error: (problem: ApiProblem) => this.wrong.set(wordsOf(problem)),
    });
  }

  protected encoded(place: string): string {
    return encodeURIComponent(place);
  }

  #readCalendars(): void {
    this.#service
      .busy()
      .subscribe({ next: (all) => this.calendars.set(all), error: () => this.#not() });
  }

  #not(): void {
    this.wrong.set('The server cannot be reached: what is here may not be all.');
  }
}
