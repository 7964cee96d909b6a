import { inject, Injectable } from '@angular/core';
import type { CodeSheet, CodeSheetDraft } from '@needlecase/core';
import {
  catchError,
  debounceTime,
  of,
  scan,
  shareReplay,
  startWith,
  switchMap,
  type Observable,
} from 'rxjs';
import { ApiService } from './api.service';
import { ChangesService } from './changes.service';

/** Sheets of display codes. */
@Injectable({ providedIn: 'root' })
export class CodeSheetsService {
  readonly #api = inject(ApiService);

  /** Every sheet, read again when one changes; the last known ones while the server is away. */
  readonly all$: Observable<CodeSheet[]> = inject(ChangesService)
    .of('code-sheets')
    .pipe(
      debounceTime(60),
      startWith(undefined),
      switchMap(() =>
        this.#api.get<CodeSheet[]>('code-sheets').pipe(catchError(() => of(undefined))),
      ),
      scan((before: CodeSheet[], now) => now ?? before, []),
      shareReplay({ bufferSize: 1, refCount: true }),
    );

  add(draft: CodeSheetDraft, key: string): Observable<CodeSheet> {
    return this.#api.send<CodeSheet>('POST', 'code-sheets', draft, { key });
  }

  change(
    { id, version, ...was }: CodeSheet,
    change: Partial<CodeSheetDraft>,
  ): Observable<CodeSheet> {
    return this.#api.send<CodeSheet>(
      'PUT',
      `code-sheets/${id}`,
      { ...was, ...change },
      { version },
    );
  }

  remove({ id, version }: CodeSheet): Observable<CodeSheet> {
    return this.#api.send<CodeSheet>('DELETE', `code-sheets/${id}`, undefined, { version });
  }
}

/** A sheet as it is written out: without what only this household's file needs. */
export const asFile = ({ id: _id, version: _version, ...draft }: CodeSheet): string =>
  JSON.stringify(draft, null, 2);
