import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import {
  cameOf,
  isTask,
  LAW_WORDS,
  many,
  planVisit,
  tasksOf,
  visitQuestions,
  type Machine,
  type Visit,
  type VisitTask,
} from '@needlecase/core';
import { BenchService } from '../data/bench.service';
import { DryVisitComponent } from './dry-visit.component';
import { QuestionsComponent } from './questions.component';

/** Asked at the end of a dry run. */
const QUESTIONS = 5;

const lower = (say: string): string => say.replace(/^./, (letter) => letter.toLowerCase());

/** A real visit walked through before it is made: its own screens, and what would have come of each step left out. */
@Component({
  selector: 'nc-dry-run',
  imports: [DryVisitComponent, QuestionsComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (unread(); as wrong) {
      <p class="field-problem" role="alert">{{ wrong.title }} {{ wrong.detail }}</p>
    } @else if (bench() && !asked().length) {
      <h1>There is no such work here</h1>
      <p><a routerLink="/visit">Choose tasks</a></p>
    } @else if (visit()) {
      <h1 tabindex="-1">{{ leftOut().length ? 'Walked through, with gaps' : 'Walked through' }}</h1>
      @if (leftOut().length) {
        <p>
          {{ many(leftOut().length, 'step') }} left out. In the cellar this would have come of it:
        </p>
        <ul class="came">
          @for (one of came(); track one.what) {
            <li>
              <b>{{ one.say }}</b> {{ one.what }}
            </li>
          } @empty {
            <li>Nothing that hurts or floods. But what was left out is not done.</li>
          }
        </ul>
      } @else {
        <p>Every step in its place: nothing would have been hurt, hot or wet.</p>
      }
      <h2>What stays of it</h2>
      <nc-practice-questions [questions]="questions()" />
      <p class="deeds">
        <a class="btn btn-thread" [routerLink]="back() ? ['/visit', back()] : ['/']">
          {{ back() ? 'To the real visit' : 'To the bench' }}
        </a>
        <button type="button" class="btn btn-plain" (click)="visit.set(undefined)">
          Once more
        </button>
      </p>
      <p class="soft small">Nothing of this is in your record.</p>
    } @else if (bench()) {
      <nc-dry-visit [tasks]="asked()" (over)="visit.set($event)" (left)="leave()" />
    }
  `,
  styles: `
    h1:focus {
      outline: none;
    }

    .came li {
      margin-bottom: 0.4rem;
    }

    .deeds {
      display: flex;
      flex-wrap: wrap;
      gap: 0.6rem;
      margin-top: 1.2rem;
    }
  `,
})
export class DryRunComponent {
  readonly #router = inject(Router);
  readonly #loaded = toSignal(inject(BenchService).bench$);

  /** From the address: `machine:task` with commas between; the visit that it is of, where it is under way. */
  readonly tasks = input('');
  readonly back = input<string>();

  protected readonly many = many;
  protected readonly visit = signal<Visit | undefined>(undefined);
  protected readonly bench = computed(() => this.#loaded()?.value);
  protected readonly unread = computed(() => (this.bench() ? undefined : this.#loaded()?.problem));
  readonly #machines = computed(() => this.bench()?.machines ?? []);
  /** What there is of it: machines and tasks that this household has. */
  protected readonly asked = computed((): VisitTask[] =>
    this.tasks()
      .split(',')
      .flatMap((one) => {
        const [machineId = '', task = ''] = one.split(':');
        const machine = this.#machines().find(({ id }) => id === machineId);
        const known = machine && tasksOf(machine).some(({ id }) => id === task);
        return known ? [{ machineId, task }] : [];
      }),
  );
  readonly #plan = computed(() => planVisit(this.asked(), this.#machines()));
  protected readonly leftOut = computed(() => {
    const ticked = this.visit()?.progress.ticked ?? {};
    return this.#plan().steps.filter(({ key, step }) => !step.later && ticked[key] === undefined);
  });
  /** What would have come of the steps that were left out, however the machine is met. */
  protected readonly came = computed(() => {
    const ticked = this.visit()?.progress.ticked ?? {};
    const steps = this.#plan().steps;
    const walked = steps.filter(({ key }) => ticked[key] !== undefined);
    const all = this.#of(this.asked()).flatMap((machine) =>
      cameOf(
        walked.filter(({ machineId }) => machineId === machine.id),
        machine,
      ),
    );
    return all
      .filter(({ law }, i) => all.findIndex((one) => one.law === law) === i)
      .map(({ law, at, ifFull }) => ({
        say: steps.find(({ key }) => key === at)?.step.do ?? 'At the end.',
        what: ifFull ? `If it stands full of water: ${lower(LAW_WORDS[law])}` : LAW_WORDS[law],
      }));
  });
  protected readonly questions = computed(() => {
    const machines = this.#machines();
    const all = this.asked()
      .filter(({ task }) => isTask(task))
      .flatMap(({ machineId, task }) => {
        const machine = machines.find(({ id }) => id === machineId)!;
        return visitQuestions(machine, task, this.#seed);
      });
    // One of each kind, over the tasks of the visit.
    const abouts = [...new Set(all.map(({ about }) => about))];
    return abouts
      .flatMap((about, i) => {
        const of = all.filter((one) => one.about === about);
        return of[i % of.length] ?? [];
      })
      .slice(0, QUESTIONS);
  });
  readonly #seed = crypto.getRandomValues(new Uint32Array(1))[0]!;

  #of(tasks: readonly VisitTask[]): Machine[] {
    return this.#machines().filter(({ id }) => tasks.some(({ machineId }) => machineId === id));
  }

  protected leave(): void {
    const back = this.back();
    void this.#router.navigate(back ? ['/visit', back] : ['/practice']);
  }
}
