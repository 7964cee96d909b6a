import { inject, Injectable } from '@angular/core';
import type { BackupFile, BackupLook, BackupState, Restored, RestoreDraft } from '@needlecase/core';
import type { Observable } from 'rxjs';
import { ApiService } from './api.service';

/** A whole house may be on its way, ms. */
const LONG = 900_000;

/** Backups of the household: those in the folder, and those that are handed in. */
@Injectable({ providedIn: 'root' })
export class BackupsService {
  readonly #api = inject(ApiService);
  /** Where one to take along is given out. */
  readonly address = '/api/v1/backup.zip';

  state(): Observable<BackupState> {
    return this.#api.get<BackupState>('backups');
  }

  make(): Observable<BackupFile> {
    return this.#api.send<BackupFile>('POST', 'backups', {}, { patience: LONG });
  }

  /** Looks at a file that is handed in. */
  lookAt(file: Blob): Observable<BackupLook> {
    // Whatever the system calls it, it is looked into.
    const zip = new Blob([file], { type: 'application/zip' });
    return this.#api.send<BackupLook>('POST', 'backups/look', zip, { patience: LONG });
  }

  /** Looks at one that lies in the folder. */
  pick(name: string): Observable<BackupLook> {
    return this.#api.send<BackupLook>('POST', 'backups/pick', { name }, { patience: LONG });
  }

  restore(draft: RestoreDraft): Observable<Restored> {
    return this.#api.send<Restored>('POST', 'restore', draft, { patience: LONG });
  }
}
