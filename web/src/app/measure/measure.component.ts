import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink } from '@angular/router';
import { INSTRUMENT_SCREENS } from '@needlecase/core';

/** All instruments, along the two lines. */
@Component({
  selector: 'nc-measure',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1>Measure</h1>
    <p class="soft">
      Arithmetic that people guess at. What you keep goes to the machine’s record, moves its dates
      and weighs in trouble.
    </p>
    <div class="lines">
      @for (line of lines; track line.id) {
        <section [class]="line.id" [attr.aria-labelledby]="line.id + '-title'">
          <h2 [id]="line.id + '-title'">{{ line.name }}</h2>
          <ol>
            @for (one of line.instruments; track one.name) {
              <li>
                <a [routerLink]="['/measure', one.name]">
                  <b>{{ one.title }}</b>
                  <span class="soft">{{ one.question }}</span>
                </a>
              </li>
            }
          </ol>
        </section>
      }
    </div>
  `,
  styles: `
    h1 {
      font-size: 1.9rem;
      margin-bottom: 0.2rem;
    }
    h2 {
      font-size: 1.35rem;
    }
    .lines {
      display: grid;
      gap: 1rem 3rem;
      grid-template-columns: repeat(auto-fit, minmax(min(100%, 24rem), 1fr));
    }
    ol {
      list-style: none;
      margin: 0;
      padding: 0;
      position: relative;
    }
    ol::before {
      content: '';
      position: absolute;
      inset: 1.4rem auto 1.4rem 0.7rem;
      border-left: 5px solid var(--water);
    }
    .air ol::before {
      border-color: var(--air);
    }
    li a {
      display: block;
      min-height: 52px;
      padding: 0.35rem 0 0.35rem 2.4rem;
      position: relative;
      text-decoration: none;
    }
    li a::before {
      content: '';
      position: absolute;
      left: 0;
      top: 0.65rem;
      width: 1.55rem;
      height: 1.55rem;
      border-radius: 50%;
      background:
        radial-gradient(circle at 38% 50%, var(--ink) 0 2px, transparent 2.6px),
        radial-gradient(circle at 62% 50%, var(--ink) 0 2px, transparent 2.6px), var(--face);
      border: 3px solid var(--water);
    }
    .air li a::before {
      border-color: var(--air);
    }
    li a:hover b {
      text-decoration: underline;
    }
    b {
      display: block;
    }
  `,
})
export class MeasureComponent {
  protected readonly lines = (['air', 'water'] as const).map((id) => ({
    id,
    name: id === 'air' ? 'The air line' : 'The water line',
    instruments: INSTRUMENT_SCREENS.filter(({ line }) => line === id),
  }));
}
