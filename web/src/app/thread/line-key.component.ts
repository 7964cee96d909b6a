import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { StationState } from '@needlecase/core';
import { GaugeComponent } from './gauge.component';

const fouled = (median: number): StationState['fouling'] => ({
  median,
  low: median * 0.7,
  high: median * 1.3,
});
const sample = (
  word: string,
  status: StationState['status'],
  fouling?: StationState['fouling'],
): { word: string; state: StationState } => ({
  word,
  state: { id: word, name: '', line: 'water', status, said: '', ...(fouling ? { fouling } : {}) },
});
const SAMPLES = [
  sample('fine', 'fine', fouled(0.3)),
  sample('due soon', 'soon', fouled(0.7)),
  sample('due', 'due', fouled(1.05)),
  sample('not known yet', 'unknown'),
  sample('nothing planned', 'none'),
];

/** What the buttons on a line mean: each drawn, with a word; the rest behind a fold. */
@Component({
  selector: 'nc-line-key',
  imports: [GaugeComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (one of samples; track one.word) {
        <li>
          <svg viewBox="-15 -15 30 30" width="30" height="30" aria-hidden="true">
            <g nc-gauge [state]="one.state" [radius]="11" [class]="thread()"></g>
          </svg>
          {{ one.word }}
        </li>
      }
    </ul>
    <details>
      <summary>How to read a ring</summary>
      <p class="soft small">
        The filled part is the fouling expected now, the faint part how sure that is. The notch is
        where trouble begins; a second, dotted ring is fouling past a full one. A thread gets
        thinner where its way closes.
      </p>
    </details>
  `,
  styles: `
    ul {
      display: flex;
      flex-wrap: wrap;
      gap: 0.2rem 1.1rem;
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      align-items: center;
      display: flex;
      gap: 0.35rem;
    }
    summary {
      cursor: pointer;
      min-height: 24px;
    }
    p {
      margin: 0.2rem 0 0.5rem;
      max-width: 46rem;
    }
  `,
})
export class LineKeyComponent {
  readonly thread = input<'water' | 'air'>('water');
  protected readonly samples = SAMPLES;
}
