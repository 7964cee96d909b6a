import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import type { MachineKind, RunStep, StationState, TaskRecord, Timer } from '@needlecase/core';
import { LineComponent } from '../thread/line.component';
import { GradePickerComponent } from './grade-picker.component';
import { TimerComponent } from './timer.component';

const MOST = 100_000;

/** One step: what to do, the caution where it counts, why, what to look at, what to note. */
@Component({
  selector: 'nc-step',
  imports: [LineComponent, GradePickerComponent, TimerComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './step.component.html',
  styleUrl: './step.component.scss',
})
export class StepComponent {
  readonly step = input.required<RunStep>();
  readonly kind = input.required<MachineKind>();
  readonly stations = input.required<readonly StationState[]>();
  readonly station = input<string>();
  readonly record = input.required<TaskRecord>();
  readonly finds = input.required<readonly string[]>();
  readonly reading = input<number>();
  readonly timer = input<Timer>();
  readonly ticked = input.required<boolean>();

  readonly noted = output<Partial<TaskRecord>>();
  readonly measured = output<number | undefined>();
  readonly timed = output<number>();
  readonly untimed = output<void>();

  protected readonly what = computed(() => this.step().step);
  protected readonly typed = linkedSignal(() => String(this.reading() ?? ''));
  protected readonly wrong = computed(() => {
    const typed = this.typed().trim();
    if (typed === '') return '';
    const value = Number(typed.replace(',', '.'));
    return value > 0 && value <= MOST ? '' : `Give a number above 0, up to ${MOST}.`;
  });

  protected foundCount(what: string): number {
    return this.record().found?.find((one) => one.what === what)?.count ?? 0;
  }

  protected find(what: string, change: 1 | -1): void {
    const found = this.record().found ?? [];
    const count = this.foundCount(what) + change;
    const others = found.filter((one) => one.what !== what);
    this.noted.emit({ found: count > 0 ? [...others, { what, count }] : others });
  }

  protected trays(change: 1 | -1): void {
    const trays = Math.min(200, Math.max(0, (this.record().trays ?? 0) + change));
    this.noted.emit({ trays });
  }

  protected text(event: Event): void {
    this.noted.emit({ note: (event.target as HTMLTextAreaElement).value.slice(0, 2000) });
  }

  protected figure(event: Event): void {
    this.typed.set((event.target as HTMLInputElement).value);
    if (this.wrong()) return;
    const typed = this.typed().trim().replace(',', '.');
    this.measured.emit(typed === '' ? undefined : Number(typed));
  }
}
