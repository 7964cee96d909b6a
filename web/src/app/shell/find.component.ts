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
import { debounceTime, from, map, of, switchMap, type Observable } from 'rxjs';
import { HouseholdService } from '../data/household.service';
import type { FindIndex, Place } from './find-index';
import { asksToFind } from './slash';

/** The find box: `/` goes to it; it knows the views, the machines, their stations and tasks. */
@Component({
  selector: 'nc-find',
  imports: [NgbTypeahead, ReactiveFormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input
      #box
      class="form-control"
      type="search"
      maxlength="200"
      placeholder="Find   /"
      aria-label="Find a machine, a station or a task"
      aria-keyshortcuts="/"
      [formControl]="words"
      [ngbTypeahead]="find"
      [resultFormatter]="say"
      [inputFormatter]="say"
      (focus)="prepare()"
      (selectItem)="go($event)"
    />
  `,
  host: { '(document:keydown)': 'onKey($event)' },
})
export class FindComponent {
  readonly #household = inject(HouseholdService);
  readonly #router = inject(Router);
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

  protected readonly find = (typed$: Observable<string>): Observable<Place[]> =>
    typed$.pipe(
      debounceTime(80),
      switchMap((typed) =>
        typed.trim() === '' ? of([]) : from(this.prepare()).pipe(map((index) => index.find(typed))),
      ),
    );

  /** Loads the search when the box is first used; machines may have changed since the last time. */
  protected prepare(): Promise<FindIndex> {
    this.#index ??= import('./find-index').then(({ makeIndex }) => makeIndex(this.#household));
    return this.#index;
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
