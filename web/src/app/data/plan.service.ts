import { inject, Injectable } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import type { Machine } from '@needlecase/core';
import type {
  Absence,
  AbsenceDraft,
  BusyCalendar,
  Feed,
  FeedDraft,
  PlannedChange,
  PlannedVisit,
  PlanQuery,
  PlanTaken,
} from '@needlecase/core/model/planned';
import type { AheadProblem } from '@needlecase/core/plan/ahead';
import type { PlanAhead, PlanView } from '@needlecase/core/views/plan';
import { debounceTime, merge, skip, startWith, Subject, switchMap, type Observable } from 'rxjs';
import { ApiService } from './api.service';
import { ChangesService } from './changes.service';
import { SectionService } from './section.service';

/** Planning a large house takes its time. */
const LONG_MS = 60_000;

/** The year ahead: as it is planned, as it could be, and what is laid down by hand. */
@Injectable({ providedIn: 'root' })
export class PlanService {
  readonly #api = inject(ApiService);
  readonly #changes = inject(ChangesService);
  readonly #sections = inject(SectionService);
  readonly #again = new Subject<void>();
  readonly #chosen = toObservable(this.#sections.chosen).pipe(skip(1));

  /** Read again whenever something changes. @param read may turn a problem into a value */
  watch<T>(read: (plan: Observable<PlanView>) => Observable<T>): Observable<T> {
    return merge(this.#again, this.#chosen, this.#changes.all$.pipe(debounceTime(120))).pipe(
      startWith(undefined),
      switchMap(() => read(this.#api.get<PlanView>('plan', this.#sections.asked()))),
    );
  }

  /** The next weeks, read again whenever something changes. @param read may turn a problem into a value */
  ahead<T>(read: (plan: Observable<PlanAhead>) => Observable<T>): Observable<T> {
    return merge(this.#chosen, this.#changes.all$.pipe(debounceTime(500))).pipe(
      startWith(undefined),
      switchMap(() => read(this.#api.get<PlanAhead>('plan/ahead', this.#sections.asked()))),
    );
  }

  refresh(): void {
    this.#again.next();
  }

  problem(query: PlanQuery): Observable<AheadProblem> {
    return this.#api.get<AheadProblem>('plan/problem', { ...query, ...this.#sections.asked() });
  }

  change(
    { id, version }: Pick<PlannedVisit, 'id' | 'version'>,
    change: PlannedChange,
  ): Observable<PlannedVisit> {
    return this.#api.send<PlannedVisit>('PUT', `plan/visits/${id}`, change, { version });
  }

  take(rhythms: PlanTaken['rhythms']): Observable<Machine[]> {
    return this.#api.send<Machine[]>('PUT', 'plan/rhythms', { rhythms }, { patience: LONG_MS });
  }

  addAway(draft: AbsenceDraft, key: string): Observable<Absence> {
    return this.#api.send<Absence>('POST', 'absences', draft, { key });
  }

  changeAway({ id, version }: Absence, draft: AbsenceDraft): Observable<Absence> {
    return this.#api.send<Absence>('PUT', `absences/${id}`, draft, { version });
  }

  removeAway({ id, version }: Absence): Observable<Absence> {
    return this.#api.send<Absence>('DELETE', `absences/${id}`, undefined, { version });
  }

  feeds(): Observable<Feed[]> {
    return this.#api.get<Feed[]>('feeds');
  }

  makeFeed(draft: FeedDraft): Observable<Feed> {
    return this.#api.send<Feed>('POST', 'feeds', draft);
  }

  removeFeed({ id }: Feed): Observable<Feed[]> {
    return this.#api.send<Feed[]>('DELETE', `feeds/${id}`, undefined);
  }

  busy(): Observable<BusyCalendar[]> {
    return this.#api.get<BusyCalendar[]>('busy');
  }

  /** Reads a calendar file in. */
  readIn(file: Blob): Observable<BusyCalendar> {
    const calendar = new Blob([file], { type: 'text/calendar' });
    return this.#api.send<BusyCalendar>('POST', 'busy', calendar, { patience: LONG_MS });
  }

  /**
   * Reads one in from its address, and the server again each day.
   * @param atHome it is in the house's own network, where the server calls nobody unless it is told to
   */
  readFrom(address: string, atHome: boolean): Observable<BusyCalendar> {
    const from = { address, ...(atHome ? { atHome } : {}) };
    return this.#api.send<BusyCalendar>('POST', 'busy/address', from, { patience: LONG_MS });
  }

  letGo({ id }: BusyCalendar): Observable<BusyCalendar> {
    return this.#api.send<BusyCalendar>('DELETE', `busy/${id}`, undefined);
  }
}
