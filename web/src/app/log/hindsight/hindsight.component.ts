import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { many } from '@needlecase/core';
import type { HindsightView } from '@needlecase/core/views/hindsight';
import { catchError, map, of, startWith, switchMap } from 'rxjs';
import { wordsOf, type ApiProblem } from '../../data/api.service';
import { ChangesService } from '../../data/changes.service';
import { HindsightService } from '../../data/hindsight.service';
import { ReliabilityComponent } from './reliability.component';
import { LogHeadComponent } from '../log-head.component';

interface Answered {
  view?: HindsightView;
  wrong?: string;
}

/** How well was foretold: what openings showed against what was believed the day before, and what was wrong. */
@Component({
  selector: 'nc-hindsight',
  imports: [LogHeadComponent, ReliabilityComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './hindsight.component.html',
  styleUrl: './hindsight.component.scss',
})
export class HindsightComponent {
  readonly #service = inject(HindsightService);
  readonly #loaded = toSignal(
    inject(ChangesService)
      .of('entries', 'cases', 'household')
      .pipe(
        startWith(undefined),
        switchMap(() =>
          this.#service.view().pipe(
            map((view): Answered => ({ view })),
            catchError((problem: ApiProblem) => of<Answered>({ wrong: wordsOf(problem) })),
          ),
        ),
      ),
  );
  protected readonly wrong = computed(() => this.#loaded()?.wrong);
  protected readonly view = computed(() => this.#loaded()?.view);
  protected readonly all = computed(() => this.view()?.after);
  protected readonly curves = computed(() => {
    const { water, air } = this.view()?.lines ?? {};
    return [
      ...(water ? [{ line: 'water' as const, name: 'water', points: water.curve }] : []),
      ...(air ? [{ line: 'air' as const, name: 'air', points: air.curve }] : []),
    ];
  });
  protected readonly lines = computed(() =>
    Object.entries(this.view()?.lines ?? {})
      .filter(([, judged]) => judged.openings >= 5)
      .map(([line, judged]) => ({ line, judged })),
  );

  /** "84 in 100". */
  protected percent = (share: number): string => `${Math.round(100 * share)} in 100`;

  protected readonly said = computed(() => {
    const inside = this.all()?.inside ?? 0;
    if (inside < 0.7) return 'They are too narrow still: they widen as more is seen.';
    return inside > 0.9 ? 'They could be narrower.' : 'That is as it should be.';
  });
  protected readonly days = computed(() => {
    const days = this.all()?.days;
    if (!days) return '';
    const off = Math.round(days.off);
    const late = Math.round(days.late);
    const side =
      late === 0
        ? 'as often sooner as later'
        : `${many(Math.abs(late), 'day')} ${late > 0 ? 'later' : 'sooner'} than expected in the mean`;
    return `${many(off, 'day')} off in the mean, ${side}`;
  });
  protected readonly widened = computed(() => {
    const { widened = 1, before } = this.view() ?? {};
    return widened > 1 && before
      ? `Finds scatter more here than elsewhere: ranges are ${widened.toFixed(2)} times as wide, and dates so much earlier. Without that, ${this.percent(before.inside)} would have been inside.`
      : 'Nothing had to be widened for this household.';
  });
}
