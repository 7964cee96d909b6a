import { inject, Injectable } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import type { BenchView, MachineView } from '@needlecase/core';
import type { Observable } from 'rxjs';
import {
  catchError,
  debounceTime,
  map,
  merge,
  of,
  ReplaySubject,
  scan,
  share,
  skip,
  startWith,
  Subject,
  switchMap,
  tap,
  timer,
} from 'rxjs';
import { ApiService, type ApiProblem } from './api.service';
import { ChangesService } from './changes.service';
import { SectionService } from './section.service';
import { speakAtHome } from './tongue';

/** The bench goes on being read for so long after the last view of it: the next view has it at once. */
const KEPT_MS = 30_000;

/** Something read from the server: what was read last, and the problem if it cannot be read now. */
export interface Loaded<T> {
  value?: T;
  problem?: ApiProblem;
}

/** The bench and the machines' lines, read again whenever something changes. */
@Injectable({ providedIn: 'root' })
export class BenchService {
  readonly #api = inject(ApiService);
  readonly #changes = inject(ChangesService);
  readonly #sections = inject(SectionService);
  readonly #asked = new Subject<void>();
  readonly #chosen = toObservable(this.#sections.chosen).pipe(skip(1));

  readonly bench$ = this.#fresh(() =>
    this.#api
      .get<BenchView>('bench', this.#sections.asked())
      .pipe(tap(({ household }) => speakAtHome(household))),
  ).pipe(
    share({
      connector: () => new ReplaySubject(1),
      resetOnRefCountZero: () => timer(KEPT_MS),
      resetOnError: true,
      resetOnComplete: true,
    }),
  );

  line$(machineId: string): Observable<Loaded<MachineView>> {
    return this.#fresh(() => this.#api.get<MachineView>(`machines/${machineId}/line`));
  }

  /** Reads everything shown again, now. */
  refresh(): void {
    this.#asked.next();
  }

  #fresh<T>(read: () => Observable<T>): Observable<Loaded<T>> {
    const told = this.#changes.all$.pipe(debounceTime(60));
    return merge(this.#asked, told, this.#chosen).pipe(
      startWith(undefined),
      switchMap(() =>
        read().pipe(
          map((value): Loaded<T> => ({ value })),
          catchError((problem: ApiProblem) => of<Loaded<T>>({ problem })),
        ),
      ),
      scan((before, now) => (now.problem && before.value ? { ...before, ...now } : now)),
    );
  }
}
