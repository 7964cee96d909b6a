import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import {
  dayOf,
  isStation,
  sayDay,
  sayEntry,
  stationById,
  stationsOf,
  type Entry,
} from '@needlecase/core';
import { catchError, combineLatest, map, of, startWith, switchMap } from 'rxjs';
import { wordsOf, type ApiProblem } from '../../data/api.service';
import { BenchService } from '../../data/bench.service';
import { ChangesService } from '../../data/changes.service';
import { EntriesService } from '../../data/entries.service';
import { SelectComponent } from '../../shared/select.component';
import { LogHeadComponent } from '../log-head.component';

const MOST = 200;

interface Picture {
  id: string;
  address: string;
  day: string;
  said: string;
}
interface Loaded {
  entries?: readonly Entry[];
  wrong?: string;
}
const NOTHING: Loaded = {};

/** A station's photos through time, the oldest first; two of them over each other, with a seam that is drawn across. */
@Component({
  selector: 'nc-pictures',
  imports: [LogHeadComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './pictures.component.html',
  styleUrl: './pictures.component.scss',
})
export class PicturesComponent {
  readonly #router = inject(Router);
  readonly #entries = inject(EntriesService);
  readonly #bench = toSignal(inject(BenchService).bench$);
  readonly #house = computed(() => this.#bench()?.value);

  /** From the address. */
  readonly machine = input<string>();
  readonly station = input<string>();

  readonly #loaded = toSignal(
    combineLatest([
      toObservable(this.machine),
      toObservable(this.station),
      inject(ChangesService).of('entries').pipe(startWith(undefined)),
    ]).pipe(
      switchMap(([machine, station]) =>
        this.#entries
          .list({
            ...{ photos: true, limit: MOST },
            ...(machine ? { machine } : {}),
            ...(station ? { station } : {}),
          })
          .pipe(
            map(({ entries }): Loaded => ({ entries })),
            catchError((problem: ApiProblem) => of<Loaded>({ wrong: wordsOf(problem) })),
          ),
      ),
    ),
    { initialValue: NOTHING },
  );
  protected readonly wrong = computed(() => this.#loaded().wrong ?? '');
  protected readonly read = computed(() => this.#loaded().entries !== undefined);
  protected readonly pictures = computed(() =>
    [...(this.#loaded().entries ?? [])].reverse().flatMap((entry): Picture[] => {
      const machine = this.#house()?.machines.find(({ id }) => id === entry.machineId);
      const day = sayDay(dayOf(Date.parse(entry.at), entry.zone), this.#house()?.today);
      const said = `${machine?.name ?? 'Household'}, ${sayEntry(entry, machine)}`;
      return (entry.photos ?? []).map((id) => ({ id, address: `/api/v1/photos/${id}`, day, said }));
    }),
  );

  protected readonly machineIds = computed(() => [
    undefined,
    ...(this.#house()?.machines ?? []).map(({ id }) => id),
  ]);
  protected readonly sayMachine = (id: string | undefined): string =>
    this.#house()?.machines.find((one) => one.id === id)?.name ?? 'All machines';
  protected readonly stationIds = computed(() => {
    const machine = this.#house()?.machines.find(({ id }) => id === this.machine());
    return [undefined, ...(machine ? stationsOf(machine).map(({ id }) => id) : [])];
  });
  protected readonly sayStation = (id: string | undefined): string =>
    id !== undefined && isStation(id) ? stationById(id).name : 'All stations';

  readonly #left = signal<string | undefined>(undefined);
  readonly #right = signal<string | undefined>(undefined);
  /** The oldest against the newest, until two are chosen. */
  protected readonly before = computed(
    () => this.pictures().find(({ id }) => id === this.#left()) ?? this.pictures()[0],
  );
  protected readonly after = computed(
    () => this.pictures().find(({ id }) => id === this.#right()) ?? this.pictures().at(-1),
  );
  protected readonly two = computed(() => this.pictures().length > 1);
  /** Where the seam is, per cent from the left. */
  protected readonly seam = signal(50);

  protected filter(change: Record<string, string | null>): void {
    this.#left.set(undefined);
    this.#right.set(undefined);
    void this.#router.navigate([], { queryParams: change, queryParamsHandling: 'merge' });
  }
  protected isBefore({ id }: Picture): void {
    this.#left.set(id);
  }
  protected isAfter({ id }: Picture): void {
    this.#right.set(id);
  }
}
