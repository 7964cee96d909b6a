import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { BenchCase } from '@needlecase/core';

/** All cases of trouble on one label: the first with its next look, the others by name. */
@Component({
  selector: 'nc-case-card',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let one = cases()[0]!;
    <section class="label" [class.stopped]="one.stopped" aria-labelledby="case-title">
      <h2 id="case-title">
        <a [routerLink]="['/trouble', one.id]">{{ one.title }}</a>
      </h2>
      <p class="soft">
        {{ nameOf()(one.machineId) }}, {{ one.said }}.
        @if (one.look?.suspects?.[0]; as likeliest) {
          Likeliest: {{ likeliest.name }}, {{ percent(likeliest.chance) }}.
        }
        @if (one.look; as look) {
          <a [routerLink]="['/trouble', one.id]">{{
            look.kind === 'check' ? 'Next: look, ' + look.minutes + ' min' : 'Next: ' + look.say
          }}</a>
        }
      </p>
      @for (other of cases().slice(1, 4); track other.id) {
        <p class="other">
          <a [routerLink]="['/trouble', other.id]">{{ other.title }}</a>
          <span class="soft small"> {{ nameOf()(other.machineId) }}, {{ other.said }}</span>
        </p>
      }
      @if (cases().length > 4) {
        <p class="other">
          <a routerLink="/trouble">and {{ cases().length - 4 }} more</a>
        </p>
      }
    </section>
  `,
  styles: `
    :host {
      display: block;
      margin: 0.2rem 0;
    }
    /* A care label: face cloth between two inked hems, sewn on with slanted stitches. */
    .label {
      --sewn: repeating-linear-gradient(
        -55deg,
        transparent 0 9px,
        var(--due) 9px 13px,
        transparent 13px 22px
      );
      background: var(--face);
      border-block: 1.5px solid var(--ink);
      padding: 0.55rem 2rem 0.6rem;
      position: relative;
    }
    .label::before,
    .label::after {
      background: var(--sewn);
      content: '';
      inset-block: 0.7rem;
      position: absolute;
      width: 0.7rem;
    }
    .label::before {
      left: 0.55rem;
    }
    .label::after {
      right: 0.55rem;
    }
    h2 {
      font-size: 1.15rem;
      margin: 0;
    }
    h2 a {
      text-decoration: none;
    }
    h2 a:hover {
      text-decoration: underline;
    }
    p {
      line-height: 1.3;
      margin: 0.1rem 0 0.45rem;
    }
    .other {
      margin: 0.4rem 0 0;
    }
    .other a,
    h2 a {
      display: inline-block;
      min-height: 24px;
    }
  `,
})
export class CaseCardComponent {
  readonly cases = input.required<readonly BenchCase[]>();
  readonly nameOf = input.required<(machineId: string) => string>();

  protected percent(chance: number): string {
    return `${Math.min(99, Math.max(1, Math.round(100 * chance)))} %`;
  }
}
