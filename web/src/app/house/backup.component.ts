import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { BackupFile } from '@needlecase/core';
import { catchError, merge, of, startWith, Subject, switchMap } from 'rxjs';
import { ApiProblem } from '../data/api.service';
import { BackupsService } from '../data/backups.service';
import { ChangesService } from '../data/changes.service';
import { sayWhenLong } from '../shared/say-when';
import { HouseNavComponent } from './house-nav.component';
import { ReadableDirective } from '../charts/readable.directive';
import { KeeperDirective } from '../shared/keeper.directive';
import { RoleService } from '../data/role.service';
import { PutBackComponent } from './put-back.component';

const DAY = 86_400_000;
const WIDTH = 640;
const EDGE = 24;
/** The thread goes back so far, days; time is drawn closer the longer ago it is. */
const OLDEST = 400;

/** Where a time so many days ago is on the thread. */
const place = (daysAgo: number): number =>
  WIDTH -
  EDGE -
  ((WIDTH - 2 * EDGE) * Math.log1p(Math.min(OLDEST, Math.max(0, daysAgo)))) / Math.log1p(OLDEST);

const MARKS = [
  { at: place(0), name: 'now' },
  { at: place(1), name: 'a day' },
  { at: place(7), name: 'a week' },
  { at: place(30), name: 'a month' },
  { at: place(365), name: 'a year' },
];

/** The backups that are kept, how old the last is, and what can be done with them. */
@Component({
  selector: 'nc-backup',
  imports: [HouseNavComponent, KeeperDirective, PutBackComponent, ReadableDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './backup.component.html',
  styleUrl: './backup.component.scss',
})
export class BackupComponent {
  protected readonly role = inject(RoleService);
  readonly #service = inject(BackupsService);
  readonly #again = new Subject<void>();
  protected readonly address = this.#service.address;
  protected readonly marks = MARKS;
  protected readonly when = sayWhenLong;
  protected readonly making = signal(false);
  protected readonly failed = signal<ApiProblem | undefined>(undefined);

  readonly #loaded = toSignal(
    merge(this.#again, inject(ChangesService).of('backups')).pipe(
      startWith(undefined),
      switchMap(() => this.#service.state().pipe(catchError((problem: ApiProblem) => of(problem)))),
    ),
  );
  protected readonly problem = computed(() => {
    const loaded = this.#loaded();
    return loaded instanceof ApiProblem ? loaded : undefined;
  });
  protected readonly state = computed(() => {
    const loaded = this.#loaded();
    return loaded instanceof ApiProblem ? undefined : loaded;
  });
  protected readonly last = computed(() => this.state()?.files.find(isDaily));
  protected readonly stitches = computed(() =>
    (this.state()?.files ?? []).map((file) => ({
      file,
      at: place((Date.now() - Date.parse(file.made)) / DAY),
      before: !isDaily(file),
    })),
  );

  protected at({ made }: BackupFile): number {
    return Date.parse(made);
  }

  protected size({ bytes }: BackupFile): string {
    return bytes < 1e6 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(1)} MB`;
  }

  protected what(file: BackupFile): string {
    return isDaily(file) ? '' : 'before a backup was put back';
  }

  /** How long ago, in words. */
  protected ago({ made }: BackupFile): string {
    const days = (Date.now() - Date.parse(made)) / DAY;
    if (days < 1 / 24) return 'less than an hour ago';
    if (days < 1) return `${Math.round(days * 24)} h ago`;
    return days < 2 ? 'yesterday' : `${Math.floor(days)} days ago`;
  }

  protected make(): void {
    this.making.set(true);
    this.failed.set(undefined);
    this.#service.make().subscribe({
      next: () => this.#ended(),
      error: (problem: ApiProblem) => {
        this.failed.set(problem);
        this.#ended();
      },
    });
  }

  #ended(): void {
    this.making.set(false);
    this.#again.next();
  }

  protected again(): void {
    this.#again.next();
  }
}

/** Made by the day, not before one was put back. */
const isDaily = ({ name }: BackupFile): boolean => name.startsWith('needlecase-');
