import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  disputeById,
  isWasher,
  isWrong,
  quantityOf,
  readReading,
  type Brought,
  type ChemicalEvent,
  type Machine,
  type MachineKind,
  type ProofResult,
  type VisitStep,
  type StationState,
  type TaskRecord,
  type Timer,
  type UnitSystem,
} from '@needlecase/core';
import { LineComponent } from '../thread/line.component';
import { BringsComponent } from './brings.component';
import { FigureComponent } from './figures/figure.component';
import { GradePickerComponent } from './grade-picker.component';
import { ManualPageComponent } from '../shared/manual-page.component';
import { PhotosComponent } from '../shared/photos.component';
import { StillInComponent } from '../shared/still-in.component';
import { TimerComponent } from './timer.component';
import { TraysComponent } from './trays.component';
import { WayComponent } from './way.component';

/** One step: what to do, the caution where it counts, why, what to look at, what to note. */
@Component({
  selector: 'nc-step',
  imports: [
    RouterLink,
    LineComponent,
    BringsComponent,
    FigureComponent,
    GradePickerComponent,
    PhotosComponent,
    StillInComponent,
    TimerComponent,
    TraysComponent,
    WayComponent,
    ManualPageComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './step.component.html',
  styleUrl: './step.component.scss',
})
export class StepComponent {
  readonly step = input.required<VisitStep>();
  readonly kind = input.required<MachineKind>();
  readonly stations = input.required<readonly StationState[]>();
  readonly station = input<string>();
  readonly record = input.required<TaskRecord>();
  readonly finds = input.required<readonly string[]>();
  readonly reading = input<number>();
  readonly timer = input<Timer>();
  readonly ticked = input.required<boolean>();
  readonly machine = input('this machine');
  /** The machine itself, whose own ways are shown and kept. */
  readonly owner = input<Machine>();
  readonly units = input<UnitSystem>('metric');
  /** Nothing of it is recorded, and nothing leads away from it. */
  readonly dry = input(false);
  /** What is in the machine and was not rinsed out. */
  readonly present = input<readonly ChemicalEvent[]>([]);
  readonly brought = input<Brought>();
  readonly products = input<readonly string[]>([]);

  /** The figure asked for here. */
  protected readonly wish = computed(() => quantityOf(this.step().step.reading));
  readonly noted = output<Partial<TaskRecord>>();
  readonly measured = output<number | undefined>();
  readonly timed = output<number>();
  readonly untimed = output<void>();
  /** Whether this step proves the work, and what was said of it. */
  readonly proving = input(false);
  readonly proof = input<ProofResult>();
  readonly proved = output<ProofResult>();
  readonly used = output<string>();
  readonly notUsed = output<void>();
  readonly rinsed = output<void>();
  /** Why no full rinse can have run. */
  readonly hindered = input('');
  /** What soaks or dries and must not be touched yet, in words; empty when nothing. */
  readonly waiting = input('');
  /** The person says that it has had its time. */
  readonly timeEnough = output<void>();

  protected readonly proofWords: Record<ProofResult, string> = {
    good: 'it is right',
    bad: 'it is not right',
    planned: 'to be asked after the next load',
  };
  protected readonly isWasher = isWasher;
  protected readonly what = computed(() => this.step().step);
  protected readonly dispute = computed(() => {
    const { dispute } = this.what();
    return dispute && disputeById(dispute);
  });
  protected readonly typed = linkedSignal(() => String(this.reading() ?? ''));
  protected readonly wrong = computed(() => {
    const typed = this.typed().trim();
    if (typed === '') return '';
    const reading = readReading({
      quantity: this.what().reading,
      value: Number(typed.replace(',', '.')),
      unit: this.wish()?.unit,
    });
    return isWrong(reading) ? reading.message : '';
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

  protected text(event: Event): void {
    this.noted.emit({ note: (event.target as HTMLTextAreaElement).value.slice(0, 2000) });
  }

  protected measure(event: Event): void {
    this.typed.set((event.target as HTMLInputElement).value);
    if (this.wrong()) return;
    const typed = this.typed().trim().replace(',', '.');
    this.measured.emit(typed === '' ? undefined : Number(typed));
  }
}
