import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { sayDay, type BenchView } from '@needlecase/core';
import { askWhy, levelsOf, sayRange } from '@needlecase/core/loads/drift/words';
import { wordsOf, type ApiProblem } from '../data/api.service';
import { stamp } from '../data/clock';
import { EntriesService } from '../data/entries.service';
import { newId } from '../data/platform';
import { RoleService } from '../data/role.service';
import { ToastsService } from '../data/toasts.service';
import { ReadableDirective } from '../charts/readable.directive';

const REASONS = ['Guests', 'Winter coats', 'Larger loads', 'Another programme'];
const OF_DRYING = ['A colder room'];
const [LEFT, BREAK, RIGHT] = [6, 190, 394];

/** Something that a meter's figures tell: in words first, then both levels of it, and what can be done. */
@Component({
  selector: 'nc-signal',
  imports: [ReadableDirective, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let one = signal();
    <h2>{{ name() }}: {{ said() }} since {{ since() }}</h2>
    @if (levels(); as both) {
      <svg
        ncReadable
        viewBox="0 0 400 78"
        role="img"
        [class.water]="line() === 'water'"
        [attr.aria-label]="'Of a usual load ' + both.usual + ' before, and ' + both.now + ' now'"
      >
        <path class="seam" d="M190 4V74" />
        <path class="thread" [attr.d]="'M' + left + ' ' + low + 'H' + cut" />
        <path class="thread" [attr.d]="'M' + cut + ' ' + high + 'H' + right" />
        <path class="ply" [attr.d]="'M' + left + ' ' + low + 'H' + cut" />
        <path class="ply" [attr.d]="'M' + cut + ' ' + high + 'H' + right" />
        <text [attr.x]="left" [attr.y]="low - 10">{{ both.usual }}</text>
        <text [attr.x]="right" [attr.y]="high + 26" text-anchor="end">{{ both.now }}</text>
      </svg>
    }
    <p>
      {{ range() }}
      @if ((one.hours ?? 0) >= 0.5) {
        Waiting costs about {{ one.hours }} h of drying a month.
      }
      @if (likely(); as named) {
        Most likely {{ named }}.
      }
      @if (one.look; as look) {
        Next, {{ look.minutes }}&nbsp;min: {{ look.say }}
      }
    </p>
    @if (knowing()) {
      <form (submit)="$event.preventDefault(); explain(why.value)">
        <label [attr.for]="'why-' + key()">{{ ask() }}</label>
        <div class="acts">
          <input
            #why
            class="form-control"
            [id]="'why-' + key()"
            [attr.list]="'whys-' + key()"
            maxlength="500"
            [attr.aria-describedby]="'wrong-' + key()"
          />
          <datalist [id]="'whys-' + key()">
            @for (reason of reasons(); track reason) {
              <option [value]="reason"></option>
            }
          </datalist>
          <button type="submit" class="btn btn-thread" [disabled]="busy()">Note it</button>
          <button type="button" class="btn btn-plain" (click)="knowing.set(false)">Leave it</button>
        </div>
        <div class="field-problem" [id]="'wrong-' + key()" aria-live="polite">{{ wrong() }}</div>
      </form>
    } @else {
      <p class="acts">
        <a routerLink="/trouble" [queryParams]="{ machine: one.machineId, finding: one.finding }"
          >Look for the cause</a
        >
        @if (role.may('helper')) {
          <button type="button" class="btn btn-link" (click)="knowing.set(true)">I know why</button>
        }
      </p>
    }
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      display: block;
      max-width: 26rem;
    }
    h2 {
      font-size: 1.15rem;
      margin: 0.2rem 0;
    }
    svg {
      display: block;
      height: auto;
      width: 100%;
    }
    .seam {
      stroke: var(--edge);
      stroke-dasharray: 1 5;
      stroke-linecap: round;
      stroke-width: 2.5;
    }
    .thread {
      stroke: var(--air);
      stroke-linecap: round;
      stroke-width: 8;
    }
    .water .thread {
      stroke: var(--water);
    }
    .ply {
      stroke: var(--strand);
      stroke-dasharray: 9 2.2;
      stroke-width: 2.4;
    }
    text {
      fill: var(--ink);
      font-family: var(--serif);
      font-size: calc(16px * var(--px, 1));
    }
    p {
      font-size: 0.95rem;
      line-height: 1.35;
      margin: 0.2rem 0 0.4rem;
    }
    a,
    .btn-link {
      @include touch;
      align-content: center;
      display: inline-block;
    }
    .acts {
      align-items: center;
      display: flex;
      flex-wrap: wrap;
      gap: 0.3rem 1.2rem;
    }
    .form-control {
      @include touch;
      width: 15rem;
    }
  `,
})
export class SignalComponent {
  readonly #entries = inject(EntriesService);
  readonly #toasts = inject(ToastsService);
  protected readonly role = inject(RoleService);

  readonly signal = input.required<NonNullable<BenchView['signals']>[number]>();
  readonly name = input.required<string>();
  readonly today = input.required<string>();

  protected readonly left = LEFT;
  protected readonly cut = BREAK;
  protected readonly right = RIGHT;
  protected readonly low = 58;
  protected readonly high = 26;
  protected readonly since = computed(() => sayDay(this.signal().day, this.today()));
  protected readonly likely = computed(() =>
    this.signal()
      .likely.map(
        ({ name, chance }) => `${name} (${Math.min(99, Math.round(100 * chance))}\u00a0%)`,
      )
      .join(', or '),
  );
  protected readonly said = computed(() => this.signal().said.replaceAll(' %', '\u00a0%'));
  protected readonly range = computed(() => sayRange(this.signal()).replaceAll(' %', '\u00a0%'));
  protected readonly line = computed(() =>
    this.signal().finding === 'slow-drift' ? 'air' : 'water',
  );
  protected readonly levels = computed(() => levelsOf(this.signal()));
  protected readonly ask = computed(() => askWhy(this.signal()));
  protected readonly key = computed(() => `${this.signal().figure}-${this.signal().seen}`);
  protected readonly reasons = computed(() =>
    this.signal().finding === 'slow-drift' ? [...REASONS, ...OF_DRYING] : REASONS,
  );
  protected readonly knowing = signal(false);
  protected readonly busy = signal(false);
  protected readonly wrong = signal('');
  readonly #entryId = newId();

  /** From now on what is usual is another: this is not told again. */
  protected explain(why: string): void {
    const note = why.trim();
    if (this.busy()) return;
    if (!note) return this.wrong.set('Say why, in a word or two.');
    const { machineId, figure: quantity } = this.signal();
    const told = { machineId, quantity, note };
    const draft = { id: this.#entryId, kind: 'explained', ...stamp(), ...told } as const;
    this.busy.set(true);
    this.#entries.add({ ...draft, source: 'bench' }, this.#entryId).subscribe({
      next: ({ id }) => {
        this.busy.set(false);
        this.knowing.set(false);
        this.#toasts.show('Noted. It is told again only if it changes once more.', {
          action: {
            label: 'Undo',
            do: () => this.#entries.undo(id).subscribe({ error: this.#complain }),
          },
        });
      },
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.wrong.set(problem.errors[0]?.message ?? wordsOf(problem));
      },
    });
  }

  readonly #complain = (problem: ApiProblem): void =>
    this.#toasts.show(wordsOf(problem), { problem: true });
}
