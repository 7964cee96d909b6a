import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  ASKED_LATER,
  causeById,
  comparisons,
  provenBy,
  sayCode,
  sayFinding,
  signOfCode,
  toldSymptoms,
  type CaseComparison,
  type CaseState,
  type MachineKind,
  type UnderWay,
  type Happening,
} from '@needlecase/core';
import { StopwatchComponent } from '../measure/parts/stopwatch.component';
import { SelectComponent } from '../shared/select.component';

const RETURNS = [14, 30, 60, 90];

/** After the work: the same figures as before, and whether what was told is gone. */
@Component({
  selector: 'nc-case-proof',
  imports: [RouterLink, SelectComponent, StopwatchComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './proof.component.html',
  styleUrls: ['./card.scss', './proof.component.scss'],
})
export class CaseProofComponent {
  readonly state = input.required<CaseState>();
  readonly kind = input.required<MachineKind>();
  /** The visit that the work is done in, while it is open. */
  readonly run = input<UnderWay>();
  readonly tell = output<Happening>();

  protected readonly returns = RETURNS;
  protected readonly sayDays = (days: number): string => `${days} days`;
  protected readonly returnDays = signal(30);
  protected readonly wrong = signal<Record<string, string>>({});

  protected readonly fix = computed(() => causeById(this.state().fix!.cause).fix);
  protected readonly figures = computed(() => comparisons(this.state(), this.kind()));
  protected readonly proven = computed(() => provenBy(this.state(), this.kind()));
  protected readonly asked = computed(() =>
    [
      ...toldSymptoms(this.state())
        .filter((id) => !ASKED_LATER.includes(id))
        .map((id) => ({ id, say: sayFinding(id) })),
      ...this.state().codes.map((code) => ({
        id: signOfCode(code.event),
        say: `The display shows ${sayCode(code)}`,
      })),
    ].map((one) => ({ ...one, gone: this.state().gone[one.id] })),
  );

  protected width(one: CaseComparison, which: 'before' | 'after'): number {
    const most = Math.max(one.before ?? 0, one.after ?? 0);
    return most ? (100 * (one[which] ?? 0)) / most : 0;
  }

  /** What a stopwatch showed, in the measure's own unit. */
  protected counted({ measure }: CaseComparison, seconds: number): string {
    return String(
      measure.unit === 'min' ? Math.max(0.1, Number((seconds / 60).toFixed(1))) : seconds,
    );
  }

  protected measure({ measure }: CaseComparison, field: HTMLInputElement): void {
    const value = Number(field.value.trim().replace(',', '.'));
    if (!(value > 0 && value <= 100000)) {
      const message = `Give a number above 0, up to 100000, in ${measure.unit}.`;
      this.wrong.update((all) => ({ ...all, [measure.quantity]: message }));
      return;
    }
    this.wrong.update(({ [measure.quantity]: _gone, ...rest }) => rest);
    const { quantity, unit } = measure;
    this.tell.emit({ kind: 'measure', quantity, unit, value });
    field.value = '';
  }

  protected close(): void {
    this.tell.emit({ kind: 'close', ending: 'fixed', returnDays: this.returnDays() });
  }
}
