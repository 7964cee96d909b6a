import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  causeById,
  comparisons,
  provenBy,
  sayFinding,
  toldSymptoms,
  type CaseComparison,
  type CaseState,
  type Visit,
  type Happening,
} from '@needlecase/core';
import { SelectComponent } from '../shared/select.component';

const RETURNS = [14, 30, 60, 90];

/** After the work: the same figures as before, and whether what was told is gone. */
@Component({
  selector: 'nc-case-proof',
  imports: [RouterLink, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './proof.component.html',
  styleUrls: ['./card.scss', './proof.component.scss'],
})
export class CaseProofComponent {
  readonly state = input.required<CaseState>();
  /** The visit that the work is done in, while it is open. */
  readonly run = input<Visit>();
  readonly tell = output<Happening>();

  protected readonly returns = RETURNS;
  protected readonly sayDays = (days: number): string => `${days} days`;
  protected readonly returnDays = signal(30);
  protected readonly wrong = signal<Record<string, string>>({});

  protected readonly fix = computed(() => causeById(this.state().fix!.cause).fix);
  protected readonly figures = computed(() => comparisons(this.state()));
  protected readonly proven = computed(() => provenBy(this.state()));
  protected readonly asked = computed(() =>
    toldSymptoms(this.state())
      .filter((id) => id !== 'getting-worse' && id !== 'slow-drift')
      .map((id) => ({ id, say: sayFinding(id), gone: this.state().gone[id] })),
  );

  protected width(one: CaseComparison, which: 'before' | 'after'): number {
    const most = Math.max(one.before ?? 0, one.after ?? 0);
    return most ? (100 * (one[which] ?? 0)) / most : 0;
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
