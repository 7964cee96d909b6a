import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { debriefOf, inUnits, type PracticeCost, type PracticeGame } from '@needlecase/core';
import { BenchService } from '../data/bench.service';
import { PracticeKeeper } from './practice-keeper';
import { injectAbout } from './price';
import { QuestionsComponent } from './questions.component';

/** After a case: how it went beside a practised hand, where something cheaper stood, and five questions. */
@Component({
  selector: 'nc-practice-debrief',
  imports: [QuestionsComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = debrief();
    <h1 tabindex="-1">{{ d.verdict }}</h1>
    @if (d.wrong.length) {
      <p class="was">
        What it was: <b>{{ d.wrong.join('; and ') }}</b>.
      </p>
    }
    <div class="columns">
      <div>
        <table>
          <caption class="visually-hidden">
            What it cost you, and a practised hand
          </caption>
          <thead>
            <tr>
              <td></td>
              <th scope="col">You</th>
              <th scope="col">A practised hand</th>
            </tr>
          </thead>
          <tbody>
            @for (cost of costs; track cost.name) {
              <tr>
                <th scope="row">{{ cost.name }}</th>
                <td>{{ cost.of(d.yours) }}</td>
                <td>{{ cost.of(d.practised) }}</td>
              </tr>
            }
          </tbody>
        </table>
        @if (d.slips.length) {
          <h2>What slipped, and why it matters</h2>
          <ul>
            @for (one of d.slips; track $index) {
              <li>{{ one }}</li>
            }
          </ul>
        }
        @if (d.turns.length) {
          <h2>Where something cheaper stood</h2>
          <ul>
            @for (one of d.turns; track one.at) {
              <li>
                Instead of “{{ one.yours }}”: <b>{{ one.instead }}</b> {{ one.why }}
                <span class="soft">About {{ one.saves }} min less.</span>
              </li>
            }
          </ul>
        }
        @if (d.meant.length) {
          <h2>What the signs meant</h2>
          <ul>
            @for (one of d.meant; track one.say) {
              <li>
                <b>{{ one.say }}</b> {{ one.means }}
              </li>
            }
          </ul>
        }
        <details>
          <summary>How a practised hand goes about it</summary>
          <ol>
            @for (one of d.path; track $index) {
              <li>
                {{ one.say }}
                @if (one.minutes) {
                  <span class="soft">{{ one.minutes }} min</span>
                }
              </li>
            }
          </ol>
        </details>
      </div>
      <div>
        <h2>Five questions</h2>
        <nc-practice-questions [questions]="d.questions" />
      </div>
    </div>
    <div class="deeds">
      <button type="button" class="btn btn-plain" (click)="keeper.back()">
        Back into the case
      </button>
      <button type="button" class="btn btn-plain" (click)="keeper.again()">The same again</button>
      <a class="btn btn-thread" routerLink="/practice">Another case</a>
    </div>
    <p class="soft small">Nothing of this is in your record: it was practice.</p>
  `,
  styles: `
    @use 'mixins' as *;

    h1 {
      font-size: 1.9rem;
      margin: 0.4rem 0 0.2rem;
    }

    h1:focus {
      outline: none;
    }

    h2 {
      font-size: 1.25rem;
      margin: 1rem 0 0.3rem;
    }

    .columns {
      display: grid;
      gap: 0 3rem;
      grid-template-columns: repeat(2, minmax(0, 1fr));
    }

    table {
      border-collapse: collapse;
      margin-top: 0.4rem;
      width: 100%;
    }

    th,
    td {
      @include seam(bottom, 1px);
      padding: 0.3rem 0.6rem 0.3rem 0;
      text-align: end;
    }

    th[scope='row'] {
      text-align: start;
    }

    td {
      white-space: nowrap;
    }

    thead th {
      color: var(--ink-soft);
      font-weight: 400;
    }

    ul,
    ol {
      padding-inline-start: 1.2rem;
    }

    li {
      margin-bottom: 0.3rem;
    }

    .deeds {
      display: flex;
      flex-wrap: wrap;
      gap: 0.6rem;
      margin-top: 1.2rem;
    }

    @media (max-width: 719px) {
      .columns {
        display: block;
      }

      h1 {
        font-size: 1.45rem;
      }

      th,
      td {
        font-size: 0.95rem;
        padding-inline-end: 0.3rem;
      }
    }
  `,
})
export class DebriefComponent {
  protected readonly keeper = inject(PracticeKeeper);
  readonly #loaded = toSignal(inject(BenchService).bench$);
  readonly #about = injectAbout();

  readonly game = input.required<PracticeGame>();

  protected readonly debrief = computed(() =>
    inUnits(debriefOf(this.game()), this.#loaded()?.value?.household.units ?? 'metric'),
  );
  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    afterNextRender(() => host.querySelector<HTMLElement>('h1')?.focus({ preventScroll: true }));
  }

  protected readonly costs: readonly { name: string; of: (cost: PracticeCost) => string }[] = [
    { name: 'Minutes', of: ({ minutes }) => String(minutes) },
    { name: 'Mess', of: ({ mess }) => `${mess} L` },
    { name: 'Stopped', of: ({ stopped }) => String(stopped) },
    { name: 'Money', of: ({ money }) => (money ? this.#about(money) : '0') },
  ];
}
