import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import {
  FILM_SHARES,
  lintScreen,
  SCREEN_FIELDS,
  SCREEN_FILMS,
  type Amount,
  type ScreenFilm,
} from '@needlecase/core';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';

/** A cup of water on the brushed screen: is there a film that nobody sees? */
@Component({
  selector: 'nc-lint-screen',
  imports: [FiguresComponent, InstrumentComponent],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="Brush the lint off, hold the screen level over the sink and pour a cup of water on it."
      keep="Keep it as a look at the screen"
      [working]="result().value?.working ?? []"
      [ready]="result().value !== undefined"
      (save)="save()"
    >
      <div form>
        <fieldset class="choices">
          <legend>What does the water do?</legend>
          <div class="films">
            @for (one of films; track one.id) {
              <button
                type="button"
                class="film"
                [attr.aria-pressed]="film() === one.id"
                (click)="film.set(one.id)"
              >
                <svg viewBox="0 0 120 80" class="drawing" aria-hidden="true">
                  @for (x of wires; track x) {
                    <path class="wall" [attr.d]="'M' + x + ' 30v14'" />
                  }
                  <path d="M8 30h104v14H8z" />
                  @switch (one.id) {
                    @case ('runs') {
                      <path class="water" d="M30 8v64M50 8v64M70 8v64M90 8v64" />
                    }
                    @case ('beads') {
                      <circle class="water-fill" cx="30" cy="50" r="5" />
                      <circle class="water-fill" cx="52" cy="52" r="6" />
                      <circle class="water-fill" cx="76" cy="50" r="5" />
                      <path class="water" d="M90 8v64" />
                    }
                    @case ('pools') {
                      <path class="water-fill" d="M10 30q28 -18 56 0z" />
                      <path class="water" d="M84 8v64M98 8v64" />
                    }
                    @case ('stands') {
                      <path class="water-fill" d="M8 30q52 -34 104 0z" />
                    }
                  }
                </svg>
                {{ one.say }}
              </button>
            }
          </div>
        </fieldset>
        <nc-figures
          [fields]="fields"
          [units]="measuring.units()"
          [problems]="result().problems"
          (given)="given.set($event)"
        />
      </div>
      @if (result().value; as r) {
        <div class="numbers">
          <div>
            <b>{{ round(100 * r.blocked) }} %</b> of the mesh is shut, about
          </div>
        </div>
        <p class="verdict">{{ r.advice }}</p>
        <p class="soft small">
          A rule of practice says that a quarter of the screen blocked costs a quarter of the
          drying; the drum model shows when that is so.
        </p>
      } @else {
        <p class="soft">Choose the picture that fits, or time the cup.</p>
      }
    </nc-instrument>
  `,
  styles: `
    .films {
      display: grid;
      gap: 0.6rem;
      grid-template-columns: 1fr 1fr;
    }
    .film {
      background: var(--face);
      border: 2px solid var(--edge);
      border-radius: 0.9rem;
      color: var(--ink);
      padding: 0.5rem;
    }
    .film[aria-pressed='true'] {
      border-color: var(--ink);
      border-width: 4px;
    }
  `,
  styleUrl: './instruments.scss',
})
export default class LintScreenComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields = SCREEN_FIELDS;
  protected readonly films = SCREEN_FILMS.map((id) => ({ id, say: FILM_SHARES[id].say }));
  protected readonly wires = [18, 30, 42, 54, 66, 78, 90, 102];
  protected readonly film = signal<ScreenFilm | undefined>(undefined);
  protected readonly given = signal<Record<string, Amount>>({});
  protected readonly result = computed(() =>
    this.measuring.attempt(() => lintScreen(this.given(), this.film())),
  );
  protected readonly round = Math.round;

  protected save(): void {
    const r = this.result().value;
    if (r) void this.measuring.save({ kind: 'opened', task: 'lint-screen-wash', grade: r.grade });
  }
}
