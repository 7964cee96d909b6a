import { inject, Injectable } from '@angular/core';
import type {
  Household,
  HouseholdDraft,
  Machine,
  MachineDraft,
  SchoolsView,
  SetupDraft,
} from '@needlecase/core';
import { catchError, map, of, tap, throwError, type Observable } from 'rxjs';
import { ApiService, type ApiProblem } from './api.service';
import { speakAtHome } from './tongue';

/** The household and its machines. */
@Injectable({ providedIn: 'root' })
export class HouseholdService {
  readonly #api = inject(ApiService);
  #known = false;

  /** Whether the first start was done. Once it was, the server is not asked again. */
  exists(): Observable<boolean> {
    if (this.#known) return of(true);
    return this.household().pipe(
      map(() => true),
      tap(() => (this.#known = true)),
      catchError((problem: ApiProblem) =>
        problem.status === 404 ? of(false) : throwError(() => problem),
      ),
    );
  }

  /** Each school's year for this house, side by side. */
  schools(): Observable<SchoolsView> {
    return this.#api.get<SchoolsView>('schools');
  }

  household(): Observable<Household> {
    return this.#api
      .get<Household>('household')
      .pipe(tap((household) => void speakAtHome(household)));
  }

  machines(): Observable<Machine[]> {
    return this.#api.get<Machine[]>('machines');
  }

  removeMachine(id: string, version: number): Observable<Machine> {
    return this.#api.send<Machine>('DELETE', `machines/${id}`, undefined, { version });
  }

  setUp(draft: SetupDraft, key: string): Observable<{ machines: Machine[] }> {
    return this.#api.send<{ machines: Machine[] }>('POST', 'setup', draft, { key });
  }

  saveHousehold(draft: HouseholdDraft, version: number): Observable<Household> {
    return this.#api.send<Household>('PUT', 'household', draft, { version });
  }

  /** Changes a few things of the household, and leaves the rest. */
  change(household: Household, change: Partial<HouseholdDraft>): Observable<Household> {
    const { id: _id, version, ...draft } = household;
    return this.saveHousehold({ ...draft, ...change }, version);
  }

  addMachine(draft: MachineDraft, key: string): Observable<Machine> {
    return this.#api.send<Machine>('POST', 'machines', draft, { key });
  }

  saveMachine(id: string, draft: MachineDraft, version: number): Observable<Machine> {
    return this.#api.send<Machine>('PUT', `machines/${id}`, draft, { version });
  }
}
