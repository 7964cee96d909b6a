import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  KIND_NAMES,
  MACHINE_KINDS,
  stopById,
  stopsToAsk,
  symptomsOf,
  troubleView,
  type Answer,
  type Machine,
  type MachineKind,
} from '@needlecase/core';
import { KindFigureComponent } from '../forms/kind-figure.component';
import { DangerComponent } from '../trouble/danger.component';
import { FirstComponent } from '../trouble/first.component';
import { LookComponent } from '../trouble/look.component';
import { NoticeComponent } from '../trouble/notice.component';
import { StopQuestionsComponent } from '../trouble/stop-questions.component';
import { SuspectsComponent } from '../trouble/suspects.component';

const HURRIES = [
  'wont-drain',
  'door-locked',
  'pool-front',
  'long-drying',
  'no-heat',
  'stops-minutes',
  'wont-start',
  'wont-spin',
];

/**
 * Help before anything is set up: what kind of machine, what is noticed, what can hurt somebody, and the first look.
 * Nothing is stored, and nothing is asked of a server.
 */
@Component({
  selector: 'nc-quick-help',
  imports: [
    DangerComponent,
    FirstComponent,
    KindFigureComponent,
    LookComponent,
    NoticeComponent,
    RouterLink,
    StopQuestionsComponent,
    SuspectsComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="page">
      @if (!kind()) {
        <h1>What is wrong with which machine?</h1>
        <div class="kinds">
          @for (one of kinds; track one.kind) {
            <button type="button" (click)="kind.set(one.kind)">
              <nc-kind-figure [kind]="one.kind" />
              {{ one.name }}
            </button>
          }
        </div>
      } @else if (holding(); as rule) {
        <h1>Do this first</h1>
        <nc-danger [rules]="[rule]" (over)="over()" (goOn)="goOn($event)" />
      } @else if (toAsk().length) {
        <nc-stop-questions [rules]="toAsk()" (holds)="stop.set($event)" (none)="none()" />
      } @else if (view(); as v) {
        <h1>{{ told() }}</h1>
        <nc-first
          [things]="firsts()"
          [ladder]="v.ladder ?? []"
          machine=""
          (level)="level($event)"
        />
        <div class="work">
          @if (look(); as check) {
            <nc-look [check]="check" (answer)="answer(check.id, $event)" />
          } @else if (fix(); as work) {
            <section class="fix">
              <h2>{{ work.say }}</h2>
              <p>
                Set the house up, and you are led through it step by step, with what to fetch and
                what to beware of.
              </p>
            </section>
          }
          <nc-suspects [machine]="machine()" [stations]="[]" [strip]="false" [view]="v" />
        </div>
        <h2>Anything else?</h2>
        <nc-notice
          [machines]="[machine()]"
          [answered]="answers()"
          (told)="answer($event.finding, 'yes')"
        />
      } @else {
        <h1>What do you notice?</h1>
        <p class="often">
          @for (one of often(); track one.id) {
            <button type="button" class="choice" (click)="answer(one.id, 'yes')">
              {{ one.say }}
            </button>
          }
        </p>
        <nc-notice [machines]="[machine()]" (told)="answer($event.finding, 'yes')" />
      }
      <p class="after">
        @if (kind()) {
          <button type="button" class="btn btn-plain" (click)="again()">Another machine</button>
        }
        <a class="btn btn-plain" routerLink="/start">Set the house up</a>
      </p>
    </div>
  `,
  styles: `
    @use 'mixins' as *;

    .page {
      margin: 0 auto;
      max-width: 60rem;
    }
    h1 {
      font-size: 1.7rem;
    }
    .kinds {
      display: grid;
      gap: 0.6rem;
      grid-template-columns: repeat(auto-fill, minmax(8rem, 1fr));
    }
    .kinds button {
      background: var(--face);
      border: 2px solid var(--edge);
      border-radius: 0.9rem;
      color: var(--ink);
      display: grid;
      font-weight: 600;
      justify-items: center;
      padding: 0.6rem 0.3rem;
    }
    .choice {
      @include choices;
    }
    .often {
      margin-bottom: 0.4rem;
    }
    .work {
      display: grid;
      gap: 1rem 2rem;
      grid-template-columns: repeat(auto-fit, minmax(min(100%, 20rem), 1fr));
    }
    .fix {
      @include patch;
      background: var(--face);
      border-radius: 0.9rem;
      padding: 0.8rem 1rem;
    }
    .after {
      display: flex;
      gap: 0.6rem;
      margin-top: 1.2rem;
    }
    .after .btn {
      display: inline-grid;
      min-height: 48px;
      place-items: center;
    }
    @media (max-width: 560px) {
      .kinds {
        grid-template-columns: 1fr 1fr;
      }
    }
  `,
})
export class QuickHelpComponent {
  protected readonly kinds = MACHINE_KINDS.map((kind) => ({ kind, name: KIND_NAMES[kind] }));
  protected readonly kind = signal<MachineKind | undefined>(undefined);
  protected readonly answers = signal<Readonly<Record<string, Answer>>>({});
  readonly #asked = signal<readonly string[]>([]);
  protected readonly stop = signal<string | undefined>(undefined);

  /** A machine of its kind, of which nothing else is known. */
  protected readonly machine = computed((): Machine => ({
    id: '',
    version: 1,
    name: KIND_NAMES[this.kind()!],
    kind: this.kind()!,
    place: '',
    features: {},
    habits: [],
    loadsPerWeek: 5,
  }));
  protected readonly holding = computed(() => {
    const id = this.stop();
    return id ? stopById(id) : undefined;
  });
  protected readonly toAsk = computed(() =>
    stopsToAsk(this.machine(), { answers: this.answers(), codes: [], asked: this.#asked() }),
  );
  protected readonly view = computed(() =>
    Object.keys(this.answers()).length
      ? troubleView({ kind: this.kind()!, features: {} }, this.answers())
      : undefined,
  );
  /** What people are in a hurry with. */
  protected readonly often = computed(() =>
    symptomsOf(this.kind()!)
      .filter(({ id }) => HURRIES.includes(id))
      .sort((a, b) => HURRIES.indexOf(a.id) - HURRIES.indexOf(b.id))
      .slice(0, 4),
  );
  /** What comes first; the instruments need a house. */
  protected readonly firsts = computed(() =>
    (this.view()?.first ?? []).map(({ instrument: _needsHouse, ...thing }) => thing),
  );
  protected readonly look = computed(() => {
    const next = this.view()?.next;
    return next && 'check' in next ? next.check : undefined;
  });
  protected readonly fix = computed(() => {
    const next = this.view()?.next;
    return next && 'fix' in next ? next.fix : undefined;
  });
  protected readonly told = computed(() => {
    const name = KIND_NAMES[this.kind()!];
    return name[0]!.toUpperCase() + name.slice(1);
  });

  protected answer(finding: string, answer: Answer): void {
    this.answers.update((all) => ({ ...all, [finding]: answer }));
  }

  protected none(): void {
    const asked = this.toAsk().map(({ id }) => id);
    this.#asked.update((all) => [...all, ...asked]);
  }

  protected over(): void {
    this.none();
    this.stop.set(undefined);
  }

  protected goOn(finding: string): void {
    this.over();
    this.answer(finding, 'yes');
  }

  protected level(found: 'none' | 'water'): void {
    this.answer('locked-empty', found === 'none' ? 'yes' : 'no');
  }

  protected again(): void {
    this.kind.set(undefined);
    this.answers.set({});
    this.#asked.set([]);
    this.stop.set(undefined);
  }
}
