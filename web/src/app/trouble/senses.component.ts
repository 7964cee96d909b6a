import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Sense } from '@needlecase/core';

/** A sense as a button on the thread: where it lies, what it is told by. */
interface SenseButton {
  sense: Sense;
  name: string;
  hint: string;
  x: number;
  y: number;
  paths: readonly string[];
  air?: readonly string[];
}

const SENSES: readonly SenseButton[] = [
  {
    ...{ sense: 'see', name: 'See', hint: 'water, foam, lint, a stop', x: 62, y: 62 },
    paths: ['M-26,0Q0,-24 26,0Q0,24 -26,0Z', 'M-8.5,0a8.5,8.5 0 1 0 17,0a8.5,8.5 0 1 0 -17,0'],
  },
  {
    ...{ sense: 'hear', name: 'Hear', hint: 'a rattle, a hum, a bang', x: 181, y: 54 },
    paths: [
      'M-5,23c-1,-9 -11,-11 -11,-23a17,17 0 0 1 34,0c0,11 -11,12 -12,21a7.5,7.5 0 0 1 -11,2',
      'M-7,-1a9,9 0 0 1 17,0c0,5 -6,6 -7,11',
    ],
  },
  {
    ...{ sense: 'smell', name: 'Smell', hint: 'must, sour, burning', x: 300, y: 62 },
    paths: ['M6,-23C5,-10 15,0 17,8c1,6 -4,9 -9,8c-2,5 -10,5 -12,0'],
    air: ['M-22,16c5,-6 -3,-9 2,-16s-2,-9 1,-14M-11,10c4,-5 -2,-8 2,-13s-1,-7 1,-11'],
  },
  {
    ...{ sense: 'feel', name: 'Feel', hint: 'heat, damp, shaking', x: 121, y: 168 },
    paths: [
      'M-12,8V-8a4.5,4.5 0 0 1 9,0V-1V-16a4.5,4.5 0 0 1 9,0V-2V-13a4.5,4.5 0 0 1 9,0V0V-6a4.5,4.5 0 0 1 9,0V9c0,9 -7,15 -15,15c-9,0 -13,-4 -18,-12l-9,-12a4.5,4.5 0 0 1 7,-5Z',
    ],
  },
  {
    ...{ sense: 'read', name: 'Read', hint: 'a code or lamps', x: 241, y: 168 },
    paths: [
      'M-27,-12a5,5 0 0 1 5,-5h44a5,5 0 0 1 5,5v17a5,5 0 0 1 -5,5h-44a5,5 0 0 1 -5,-5Z',
      'M-17.6,18a2.6,2.6 0 1 0 5.2,0a2.6,2.6 0 1 0 -5.2,0M6.4,18a2.6,2.6 0 1 0 5.2,0a2.6,2.6 0 1 0 -5.2,0',
    ],
    air: ['M-15,1l5,-10M-6,1l5,-10M7,-4h9'],
  },
];

/** What something is noticed by: five buttons sewn on one thread. */
@Component({
  selector: 'nc-senses',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="cloth" role="group" aria-label="What do you notice it by?">
      <svg viewBox="0 0 362 222" aria-hidden="true">
        @for (kind of ['thread', 'ply']; track kind) {
          <path
            [attr.class]="kind"
            d="M0,40C20,30 30,50 62,62S140,48 181,54S270,70 300,62S362,110 330,150S270,180 241,168S160,160 121,168S40,186 0,206"
          />
        }
      </svg>
      @for (one of senses; track one.sense) {
        <button
          type="button"
          [attr.aria-pressed]="one.sense === chosen()"
          [attr.aria-label]="one.name + ': ' + one.hint"
          [style.left.%]="(100 * one.x) / 362"
          [style.top.%]="(100 * one.y) / 222"
          (click)="choose.emit(one.sense)"
        >
          <svg viewBox="-30 -26 60 52" aria-hidden="true">
            @for (path of one.paths; track path) {
              <path [attr.d]="path" />
            }
            @for (path of one.air ?? []; track path) {
              <path class="air" [attr.d]="path" />
            }
          </svg>
          <span>{{ one.name }}</span>
        </button>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
    }
    .cloth {
      aspect-ratio: 362 / 222;
      margin-inline: auto;
      max-width: 26rem;
      position: relative;
    }
    .cloth > svg {
      height: 100%;
      overflow: visible;
      position: absolute;
      width: 100%;
    }
    .thread,
    .ply {
      fill: none;
      stroke: var(--water);
      stroke-width: 6;
    }
    .ply {
      stroke: var(--thread-light);
      stroke-dasharray: 1.6 4.2;
    }
    button {
      aspect-ratio: 1;
      background: var(--face);
      border: 2px solid var(--ink);
      border-radius: 50%;
      color: var(--ink);
      display: grid;
      font-weight: 700;
      gap: 0;
      align-content: center;
      justify-items: center;
      outline-offset: 3px;
      padding: 0;
      position: absolute;
      touch-action: manipulation;
      translate: -50% -50%;
      width: 27.6%;
    }
    /* The seam with which it is sewn on. */
    button::before {
      border: 2px dashed var(--seam);
      border-radius: 50%;
      content: '';
      inset: 4px;
      position: absolute;
    }
    button:hover {
      background: var(--linen-deep);
    }
    button[aria-pressed='true'] {
      background: var(--ink);
      color: var(--linen);
    }
    button svg {
      fill: none;
      stroke: currentcolor;
      stroke-linecap: round;
      stroke-linejoin: round;
      stroke-width: 2.6;
      width: 54%;
    }
    .air {
      stroke: var(--air);
    }
    button[aria-pressed='true'] .air {
      stroke: currentcolor;
    }
    span {
      font-size: 0.95rem;
      line-height: 1.1;
    }
  `,
})
export class SensesComponent {
  readonly chosen = input<Sense>();
  readonly choose = output<Sense>();
  protected readonly senses = SENSES;
}
