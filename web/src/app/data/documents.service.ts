import { inject, Injectable } from '@angular/core';
import type { Document, DocumentDraft } from '@needlecase/core/model/documents';
import { catchError, map, of, shareReplay, startWith, switchMap, type Observable } from 'rxjs';
import { ApiService } from './api.service';
import { ChangesService } from './changes.service';

/** Manuals, receipts and other papers of machines. */
@Injectable({ providedIn: 'root' })
export class DocumentsService {
  readonly #api = inject(ApiService);
  readonly #changes = inject(ChangesService);

  /** All of them, read anew when one changes; none where they cannot be read. */
  readonly all$: Observable<readonly Document[]> = this.#changes.of('documents').pipe(
    startWith(undefined),
    switchMap(() => this.#api.get<Document[]>('documents').pipe(catchError(() => of([])))),
    shareReplay({ bufferSize: 1, refCount: true }),
  );

  of(machineId: string): Observable<readonly Document[]> {
    return this.all$.pipe(map((all) => all.filter((one) => one.machineId === machineId)));
  }

  /** @param id the same for each try, so that it is kept once */
  keep(id: string, { machineId, kind, name }: DocumentDraft, file: Blob): Observable<Document> {
    const query = new URLSearchParams({ machineId, kind, name });
    // What it is is seen by what is in it.
    const bytes = new Blob([file], { type: 'application/octet-stream' });
    return this.#api.send<Document>('PUT', `documents/${id}/file?${query}`, bytes);
  }

  change({ id, version }: Document, draft: DocumentDraft): Observable<Document> {
    return this.#api.send<Document>('PUT', `documents/${id}`, draft, { version });
  }

  remove({ id, version }: Document): Observable<Document> {
    return this.#api.send<Document>('DELETE', `documents/${id}`, undefined, { version });
  }
}

/** Where a paper is shown, at a page where it has pages. */
export const paperAddress = (id: string, page?: number): string =>
  `/api/v1/documents/${id}/file${page === undefined ? '' : `#page=${page}`}`;
