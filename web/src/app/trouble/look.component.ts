import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Answer, CheckView } from '@needlecase/core';
import { SingleTaps } from '../shared/single-taps';

/** The next look: how it is done, what it needs, and what each answer would mean. */
@Component({
  selector: 'nc-look',
  hostDirectives: [SingleTaps],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="soft small">
      The next look, {{ check().minutes }} min: from here it costs the fewest minutes to the end.
    </p>
    <h2>{{ check().ask }}</h2>
    @for (caution of check().cautions; track caution) {
      <p class="caution">{{ caution }}</p>
    }
    <p>{{ check().how }}</p>
    @if (check().needs.length) {
      <p class="small">You need {{ check().needs.join(', ') }}.</p>
    }
    <div class="answers">
      <button type="button" class="btn btn-thread" (click)="answer.emit('yes')">Yes</button>
      <button type="button" class="btn btn-thread" (click)="answer.emit('no')">No</button>
      <button type="button" class="btn btn-plain" (click)="answer.emit('partly')">In part</button>
      <button type="button" class="btn btn-plain" (click)="answer.emit('unknown')">
        I do not know
      </button>
    </div>
    @if (check().along.length) {
      <p class="small">In the same go: {{ check().along.join(' ') }}</p>
    }
    <dl class="small soft">
      <dt>Yes</dt>
      <dd>{{ check().yes }}</dd>
      <dt>No</dt>
      <dd>{{ check().no }}</dd>
    </dl>
  `,
  styleUrl: './card.scss',
})
export class LookComponent {
  readonly check = input.required<CheckView>();
  readonly answer = output<Answer>();
}
