import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import type { FirstThing, RungView } from '@needlecase/core';

/** What comes before any look: the water, a dryer that is not used, a door that stays locked. */
@Component({
  selector: 'nc-first',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (thing of shown(); track thing.id) {
      <section class="first">
        <h2>{{ thing.title }}</h2>
        <ol>
          @for (one of thing.do; track one) {
            <li>{{ one }}</li>
          }
        </ol>
        <p class="small soft">{{ thing.why }}</p>
        @if (thing.instrument; as path) {
          <a
            class="btn btn-plain"
            [routerLink]="['/measure', path]"
            [queryParams]="{ machine: machine() }"
            >Measure the water</a
          >
        }
      </section>
    }
    @if (ladder().length) {
      <section class="first door">
        @if (levelAsked()) {
          <h2>First: does water stand behind the glass?</h2>
          <p>{{ ladder()[0]!.do }} {{ ladder()[0]!.why }}</p>
          <div class="answers">
            <button type="button" class="btn btn-thread" (click)="level.emit('none')">
              No water behind the glass
            </button>
            <button type="button" class="btn btn-thread" (click)="level.emit('water')">
              Water behind the glass
            </button>
          </div>
        } @else {
          <h2>A ladder for the locked door</h2>
          <p class="small soft">From the cheapest rung up; stop where it opens. Never force it.</p>
          <ol>
            @for (rung of ladder(); track rung.id) {
              <li>
                {{ rung.do }}
                <span class="soft small">{{ rung.minutes }} min. {{ rung.why }}</span>
                @if (rung.id === 'measure') {
                  <a [routerLink]="['/measure/tub-water']" [queryParams]="{ machine: machine() }"
                    >Measure the water</a
                  >
                }
                @if (rung.id === 'reset') {
                  @if (way(); as own) {
                    <span class="own"><strong>This machine’s way:</strong> {{ own }}</span>
                  }
                  <form class="way" (submit)="$event.preventDefault(); keep()">
                    <label class="form-label small" for="door-way">
                      {{
                        way()
                          ? 'Keep another way'
                          : 'Found it in the manual? Keep it for this machine'
                      }}
                    </label>
                    <input
                      id="door-way"
                      class="form-control"
                      maxlength="500"
                      autocomplete="off"
                      #words
                      [value]="typed()"
                      (input)="typed.set(words.value)"
                    />
                    <button type="submit" class="btn btn-plain">Keep it</button>
                  </form>
                }
                @for (caution of rung.cautions; track caution) {
                  <span class="caution small">{{ caution }}</span>
                }
              </li>
            }
          </ol>
        }
      </section>
    }
  `,
  styleUrl: './first.component.scss',
})
export class FirstComponent {
  readonly things = input.required<readonly FirstThing[]>();
  readonly ladder = input.required<readonly RungView[]>();
  readonly machine = input.required<string>();
  readonly level = output<'none' | 'water'>();
  /** The maker’s reset sequence, as it was kept for this machine. */
  readonly way = input<string>();
  readonly wayFound = output<string>();

  /** What is typed stays until it is kept. */
  protected readonly typed = linkedSignal({ source: this.way, computation: () => '' });

  protected keep(): void {
    const way = this.typed().trim();
    if (way) this.wayFound.emit(way);
  }

  /** The ladder of a locked door over water says what to do with the water itself. */
  protected readonly shown = computed(() => {
    const told = this.ladder().some(({ id }) => id === 'measure');
    return this.things().filter(({ id }) => !(told && id === 'water'));
  });
  /** What frees the door is told only once the water is known. */
  protected readonly levelAsked = computed(() => this.ladder()[0]?.id === 'level');
}
