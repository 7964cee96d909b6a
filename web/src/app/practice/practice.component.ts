import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import {
  dueQuestions,
  isPlayable,
  KIND_NAMES,
  LEVELS,
  MACHINE_KINDS,
  many,
  questionAbout,
  questionOf,
  type LevelId,
  type MachineKind,
  type PracticeQuestion,
  type TroubleStart,
} from '@needlecase/core';
import { catchError, map, of, timeout, type Observable } from 'rxjs';
import { ApiService } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { timeNow } from '../data/clock';
import { KindFigureComponent } from '../forms/kind-figure.component';
import { PracticeKeeper } from './practice-keeper';
import { QuestionsComponent } from './questions.component';

const ASKED_AT_ONCE = 8;
/** Nobody waits longer for a record to begin a case. */
const RECORD_MS = 2000;

/** Where practice begins: what comes back today, the machine, and how hard it is to be. */
@Component({
  selector: 'nc-practice',
  imports: [KindFigureComponent, QuestionsComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1>Practise on a machine with a hidden fault</h1>
    <p class="lead">
      Water, heat and time behave as in your cellar; nothing gets wet but a drawing, and nothing of
      it goes into your record.
    </p>
    @if (underWay(); as game) {
      <p class="go-on">
        <a class="btn btn-thread" routerLink="/practice/play">Go on: {{ levelName(game.level) }}</a>
        <span class="soft">{{ many(game.acts.length, 'step') }} done</span>
      </p>
    }
    @if (due().length || asking().length) {
      <section aria-labelledby="due-title">
        <h2 id="due-title">Asked again today</h2>
        @if (asking().length) {
          <nc-practice-questions [questions]="asking()" />
        } @else {
          <p>
            {{ many(due().length, 'question') }} from cases before.
            <button type="button" class="btn btn-plain" (click)="ask()">Answer them</button>
          </p>
        }
      </section>
    }
    <div class="choose">
      <section aria-labelledby="machine-title">
        <h2 id="machine-title">On which machine</h2>
        <div class="machines" role="radiogroup" aria-labelledby="machine-title">
          @for (one of machines(); track one.id) {
            <button
              type="button"
              role="radio"
              [attr.aria-checked]="one.id === chosen()?.id"
              (click)="picked.set(one.id)"
            >
              <nc-kind-figure [kind]="one.machine.kind" />
              <span>
                <b>{{ one.machine.name || one.say }}</b>
                <span class="soft small">{{ one.machine.name ? 'yours' : 'nobody’s' }}</span>
              </span>
            </button>
          }
        </div>
      </section>
      <section aria-labelledby="level-title">
        <h2 id="level-title">How hard</h2>
        <ol class="levels">
          @for (one of levels(); track one.id) {
            <li>
              <button type="button" (click)="begin(one.id)">
                <b>{{ one.name }}</b>
                <span class="soft">{{ one.say }}</span>
              </button>
            </li>
          }
        </ol>
        <h2>Before real work</h2>
        <p>
          A dry run walks you through the steps of a visit as your machines are built, and tells
          what would have come of each step left out.
          @if (next().length) {
            <a routerLink="/practice/dry" [queryParams]="{ tasks: next() }">
              Your next visit, dry
            </a>
          }
        </p>
      </section>
    </div>
  `,
  styles: `
    @use 'mixins' as *;

    h1 {
      font-size: 1.9rem;
      margin: 0.4rem 0 0.2rem;
    }

    h2 {
      font-size: 1.25rem;
      margin: 1rem 0 0.4rem;
    }

    .lead {
      max-width: 46rem;
    }

    .go-on {
      align-items: center;
      display: flex;
      flex-wrap: wrap;
      gap: 0.8rem;
    }

    .choose {
      display: grid;
      gap: 0 3rem;
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    }

    .machines {
      display: grid;
      gap: 0.5rem;
      grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
    }

    .machines button {
      @include choice(1rem);
      align-items: center;
      display: flex;
      gap: 0.7rem;
      line-height: 1.2;
    }

    .machines button[aria-checked='true'] {
      border-color: var(--ink);
      box-shadow: inset 0 0 0 2px var(--ink);
    }

    .machines .small {
      display: block;
    }

    nc-kind-figure {
      flex: none;
      width: 88px;
    }

    .levels {
      list-style: none;
      margin: 0;
      padding: 0;
    }

    .levels button {
      @include choice(1rem);
      line-height: 1.25;
      margin-bottom: 0.5rem;
      width: 100%;
    }

    .levels .soft {
      display: block;
    }

    @media (max-width: 719px) {
      .choose {
        display: block;
      }

      h1 {
        font-size: 1.45rem;
      }

      .machines {
        grid-template-columns: repeat(2, minmax(0, 1fr));
      }

      nc-kind-figure {
        display: none;
      }
    }
  `,
})
export class PracticeComponent {
  readonly #keeper = inject(PracticeKeeper);
  readonly #router = inject(Router);
  readonly #api = inject(ApiService);
  readonly #loaded = toSignal(inject(BenchService).bench$);

  /** From the address: the guided case is begun at once. */
  readonly first = input<string>();

  protected readonly many = many;
  /** While the record of a machine is read. */
  protected readonly beginning = signal(false);
  protected readonly picked = signal<string | undefined>(undefined);
  protected readonly asking = signal<readonly PracticeQuestion[]>([]);
  readonly #bench = computed(() => this.#loaded()?.value);

  protected readonly underWay = computed(() => {
    const game = this.#keeper.game();
    return game && !this.#keeper.state()?.end && game.acts.length > 0 ? game : undefined;
  });
  /** The household's own, and one of each kind that is nobody's. */
  protected readonly machines = computed(() => {
    const own = (this.#bench()?.machines ?? []).filter(({ retired }) => !retired);
    const nobodys = MACHINE_KINDS.map((kind: MachineKind) => ({
      id: kind,
      say: KIND_NAMES[kind].replace(/^./, (letter) => letter.toUpperCase()),
      machine: { name: '', kind, features: {} },
    }));
    return [
      ...own.map(({ id, name, kind, features }) => ({
        id,
        say: name,
        machine: { name, kind, features },
      })),
      ...nobodys,
    ];
  });
  protected readonly chosen = computed(
    () => this.machines().find(({ id }) => id === this.picked()) ?? this.machines()[0],
  );
  protected readonly levels = computed(() => {
    const machine = this.chosen()?.machine;
    return machine ? LEVELS.filter((level) => isPlayable(level, machine)) : [];
  });
  /** Questions that are due, of machines that there are here or anywhere. */
  protected readonly due = computed(() => {
    const machines = this.machines().map(({ machine }) => machine);
    return dueQuestions(this.#keeper.memory(), timeNow()).flatMap((id) => {
      const machine = machines.find((one) => questionOf(id, one));
      const about = machine && questionOf(id, machine);
      return machine && about ? { machine, ...about } : [];
    });
  });
  protected readonly next = computed(() =>
    (this.#bench()?.visit?.tasks ?? [])
      .map(({ machineId, task }) => `${machineId}:${task}`)
      .join(','),
  );

  constructor() {
    const begun = effect(() => {
      if (this.first() === undefined || !this.#loaded()) return;
      begun.destroy();
      untracked(() => this.#beginFirst());
    });
  }

  /** On the household's own front loader, or on one that is nobody's. */
  #beginFirst(): void {
    const level = LEVELS[0]!;
    const machine = this.machines().find((one) => isPlayable(level, one.machine))!.machine;
    this.#keeper.begin(level.id, machine);
    void this.#router.navigate(['/practice/play'], { replaceUrl: true });
  }

  protected levelName(id: LevelId): string {
    return LEVELS.find((one) => one.id === id)!.name;
  }

  protected ask(): void {
    const seed = Math.floor(timeNow() / 1000) >>> 0;
    this.asking.set(
      this.due()
        .slice(0, ASKED_AT_ONCE)
        .flatMap(({ machine, task, about }) => questionAbout(machine, task, about, seed) ?? []),
    );
  }

  protected begin(level: LevelId): void {
    const chosen = this.chosen();
    if (!chosen || this.beginning()) return;
    this.beginning.set(true);
    // What the record says of a machine of one's own counts in its case, too.
    this.#foulingOf(chosen.id).subscribe((fouling) => {
      this.#keeper.begin(level, chosen.machine, fouling);
      void this.#router.navigate(['/practice/play']);
    });
  }

  #foulingOf(id: string): Observable<Readonly<Record<string, number>> | undefined> {
    if (!this.#bench()?.machines.some((one) => one.id === id)) return of(undefined);
    return this.#api.get<TroubleStart>(`machines/${id}/trouble`).pipe(
      map(({ situation }) => situation.fouling),
      timeout({ first: RECORD_MS, with: () => of(undefined) }),
      catchError(() => of(undefined)),
    );
  }
}
