import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  inject,
  input,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { NgbTypeahead, type NgbTypeaheadSelectItemEvent } from '@ng-bootstrap/ng-bootstrap';
import type { CaseRecord, CodeSheet, Entry, Machine } from '@needlecase/core';
import {
  catchError,
  debounceTime,
  firstValueFrom,
  forkJoin,
  from,
  map,
  of,
  switchMap,
  type Observable,
} from 'rxjs';
import type { Document } from '@needlecase/core/model/documents';
import { ApiService } from '../data/api.service';
import { HouseholdService } from '../data/household.service';
import type { FindIndex, House } from './find/find-index';
import { GROUPS, type Place } from './find/place';
import { asksToFind } from './slash';

/** A row of the answers; the first of a group has its name over it. */
interface Row extends Place {
  head?: string;
}

/** One field for everything: what is wrong, a code, work, a place, a setting. `/` goes to it. */
@Component({
  selector: 'nc-find',
  imports: [NgbTypeahead, ReactiveFormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ng-template #row let-place="result">
      @if (place.head) {
        <span class="group">{{ place.head }}</span>
      }
      <span class="name">{{ place.name }}</span>
      <span class="leads">{{ place.leads }}</span>
    </ng-template>
    <input
      #box
      class="form-control"
      type="search"
      maxlength="200"
      enterkeyhint="go"
      placeholder="What is it? Words or a code"
      aria-label="Find anything"
      aria-keyshortcuts="/"
      popupClass="find-answers"
      [formControl]="words"
      [ngbTypeahead]="find"
      [resultTemplate]="row"
      [inputFormatter]="say"
      (focus)="prepare()"
      (selectItem)="go($event)"
    />
  `,
  styles: `
    ::ng-deep .find-answers {
      max-height: min(32rem, 80dvh);
      overflow-y: auto;
      width: min(30rem, calc(100vw - 1.6rem));

      .dropdown-item {
        min-height: 44px;
      }

      .group {
        color: var(--ink-soft);
        display: block;
        font-size: 0.85rem;
        font-weight: 650;
      }

      .name {
        display: block;
        font-weight: 600;
        line-height: 1.25;
      }

      .leads {
        display: block;
        font-size: 0.9rem;
        line-height: 1.25;
        opacity: 0.85;
        overflow: hidden;
        text-overflow: ellipsis;
        white-space: nowrap;
      }

      .active .group {
        color: inherit;
      }
    }
  `,
  host: { '(document:keydown)': 'onKey($event)' },
})
export class FindComponent {
  readonly #household = inject(HouseholdService);
  readonly #router = inject(Router);
  readonly #api = inject(ApiService);
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  /** What was typed before it was there; nothing where it was not asked for. */
  readonly typed = input<string>();
  #index: Promise<FindIndex> | undefined;

  constructor() {
    afterNextRender(() => {
      const typed = this.typed();
      // Whoever went on meanwhile is not called back.
      const isLeft = document.activeElement !== null && document.activeElement !== document.body;
      if (typed === undefined || isLeft) return;
      const box = this.box().nativeElement;
      box.focus();
      if (!typed) return;
      box.value = typed;
      box.dispatchEvent(new Event('input'));
    });
  }

  protected readonly words = new FormControl('');
  protected readonly say = (place: Place | string): string =>
    typeof place === 'string' ? place : place.name;

  protected readonly find = (typed$: Observable<string>): Observable<Row[]> =>
    typed$.pipe(
      debounceTime(40),
      switchMap((typed) =>
        typed.trim() === ''
          ? of([])
          : from(this.prepare()).pipe(map((index) => headed(index.find(typed)))),
      ),
    );

  /** Loads the search when the box is first used; what the house has may have changed since the last time. */
  protected prepare(): Promise<FindIndex> {
    this.#index ??= Promise.all([import('./find/find-index'), this.#house()]).then(
      ([{ makeIndex }, house]) => makeIndex(house),
    );
    return this.#index;
  }

  /** Without a connection what is known without the house is found all the same. */
  #house(): Promise<House> {
    const or = <T>(read: Observable<T>, none: T) => read.pipe(catchError(() => of(none)));
    return firstValueFrom(
      forkJoin({
        machines: or(this.#household.machines(), [] as Machine[]).pipe(
          map((all) => all.filter(({ retired }) => !retired)),
        ),
        sheets: or(this.#api.get<CodeSheet[]>('code-sheets'), [] as CodeSheet[]),
        papers: or(this.#api.get<Document[]>('documents'), [] as Document[]),
        cases: or(this.#api.get<CaseRecord[]>('cases'), [] as CaseRecord[]),
        entries: or(this.#api.get<{ entries: Entry[] }>('entries', { limit: 200 }), {
          entries: [] as Entry[],
        }).pipe(map(({ entries }) => entries)),
      }),
    );
  }

  protected go(event: NgbTypeaheadSelectItemEvent<Place>): void {
    event.preventDefault();
    this.words.setValue('');
    this.#index = undefined;
    void this.#router.navigateByUrl(event.item.url);
  }

  protected onKey(event: KeyboardEvent): void {
    if (!asksToFind(event)) return;
    event.preventDefault();
    this.box().nativeElement.focus();
  }
}

const headed = (places: readonly Place[]): Row[] =>
  places.map((place, i) =>
    place.group === places[i - 1]?.group ? place : { ...place, head: GROUPS[place.group] },
  );
