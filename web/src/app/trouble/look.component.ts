import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { many, type Answer, type CheckView } from '@needlecase/core';
import { FigureComponent } from '../visit/figures/figure.component';
import { SingleTaps } from '../shared/single-taps';

/** A look: how it is done, what it needs, and what each answer would mean. Who gives it content is asked something else. */
@Component({
  selector: 'nc-look',
  imports: [FigureComponent],
  hostDirectives: [SingleTaps],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="cost">
      @if (of()) {
        <b>{{
          at() === 0
            ? 'Tells most for its ' + many(check().minutes, 'minute')
            : 'Look ' + (at() + 1) + ' of ' + of()
        }}</b>
      }
      <span class="soft">
        {{ check().minutes }} min,
        {{ check().needs.length ? check().needs.join(', ') : 'no tools' }}
      </span>
    </p>
    <h2 tabindex="-1">{{ check().ask }}</h2>
    @for (caution of check().cautions; track caution) {
      <p class="caution">{{ caution }}</p>
    }
    @if (check().figure; as figure) {
      <nc-figure [figure]="figure" />
    }
    <p>{{ check().how }}</p>
    <p class="why">
      <b>Yes:</b> {{ check().yes }}. <b>No:</b> {{ check().no }}.
      @if (check().along.length) {
        In the same go: {{ check().along.join(' ') }}
      }
    </p>
    <ng-content>
      <div class="answers">
        <button type="button" class="btn btn-thread" (click)="answer.emit('yes')">Yes</button>
        <button type="button" class="btn btn-thread" (click)="answer.emit('no')">No</button>
        <button type="button" class="btn btn-plain" (click)="answer.emit('partly')">In part</button>
        <button type="button" class="btn btn-plain" (click)="answer.emit('unknown')">
          I do not know
        </button>
        @if (of() > 1) {
          <button type="button" class="btn btn-plain wide" (click)="another.emit()">
            Another look ({{ ((at() + 1) % of()) + 1 }} of {{ of() }})
          </button>
        }
      </div>
    </ng-content>
  `,
  styleUrl: './card.scss',
})
export class LookComponent {
  protected readonly many = many;
  readonly check = input.required<CheckView>();
  /** Which of so many looks it is, the one that tells most being 0; of none, it is not one of a list. */
  readonly at = input(0);
  readonly of = input(1);
  readonly answer = output<Answer>();
  readonly another = output();
}
