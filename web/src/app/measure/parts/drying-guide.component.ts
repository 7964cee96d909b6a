import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  type ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
} from '@angular/core';
import {
  DRYING_FIELDS,
  LOAD_CLASSES,
  readFields,
  type Amount,
  type Fields,
  type UnitSystem,
} from '@needlecase/core';
import { readLocal, removeLocal, writeLocal } from '../../data/local';
import { attempt } from './attempt';
import { FiguresComponent } from './figures.component';
import { SelectComponent } from '../../shared/select.component';
import { SPINS, saySpin } from './spins';

/** How far a test has got; it may take two hours, and is kept on the device between its steps. */
interface Test {
  step: number;
  given: Record<string, Amount>;
  spin?: number;
  /** When the dryer was started, UTC milliseconds. */
  startedAt?: number;
}

/** What is told when a step is done. */
export interface Told {
  given: Record<string, Amount>;
  spin: number | undefined;
}

interface Step {
  title: string;
  how: string;
  fields: Fields;
}

const { dry, wet, after, minutes, energy } = DRYING_FIELDS;
const DRY = 0;
const SPIN = 1;
const TIME = 3;
const STEPS: readonly Step[] = [
  {
    title: 'Weigh the dry load',
    how: 'Before it is washed: stand on the bathroom scales with the basket, then without it.',
    fields: { dry },
  },
  { title: 'Wash it', how: 'As you always do. Which spin did it have?', fields: {} },
  {
    title: 'Weigh it wet',
    how: 'Straight out of the washer, in the same basket.',
    fields: { wet },
  },
  {
    title: 'Dry it',
    how: 'Clean the lint screen first. Tap when you start the dryer; you can leave this page, the time goes on.',
    fields: { minutes },
  },
  {
    title: 'Weigh it again',
    how: 'As soon as it stops, in the same basket. If a plug-in meter rated for the machine hangs before it, read it too.',
    fields: { after, energy },
  },
];
const SECOND_MS = 1000;

/** The drying test step by step: what to weigh when, with the time taken for you. */
@Component({
  selector: 'nc-drying-guide',
  imports: [FiguresComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './drying-guide.component.html',
  styleUrls: ['../instruments/instruments.scss', './drying-guide.component.scss'],
})
export class DryingGuideComponent {
  readonly machineId = input<string>();
  readonly units = input<UnitSystem>('metric');
  readonly told = output<Told>();

  readonly #name = computed(() => `drying.${this.machineId() ?? ''}`);
  readonly #test = linkedSignal<Test>(
    () => readLocal<Test>(this.#name()) ?? { step: 0, given: {} },
  );
  readonly #now = signal(Date.now());
  protected readonly title = viewChild<ElementRef<HTMLElement>>('title');

  protected readonly classes = LOAD_CLASSES;
  protected readonly spins = SPINS;
  protected readonly saySpin = saySpin;
  protected readonly steps = STEPS;
  protected readonly at = computed(() => this.#test().step);
  protected readonly step = computed(() => STEPS[this.at()]);
  protected readonly given = computed(() => this.#test().given);
  protected readonly spin = computed(() => this.#test().spin);
  protected readonly isDry = computed(() => this.at() === DRY);
  protected readonly isSpin = computed(() => this.at() === SPIN);
  protected readonly isTime = computed(() => this.at() === TIME);
  /** What stands in the fields when a step opens, or when a button filled it in. */
  protected readonly first = signal<Record<string, Amount>>({});
  protected readonly problems = computed(
    () => attempt(() => readFields(this.given(), this.step()?.fields ?? {}), this.units()).problems,
  );
  protected readonly running = computed(() => {
    const from = this.#test().startedAt;
    return from === undefined ? undefined : Math.max(0, Math.floor((this.#now() - from) / 60_000));
  });

  constructor() {
    effect(() => {
      const { given, spin } = this.#test();
      this.told.emit({ given, spin });
    });
    effect(() => {
      this.#name();
      this.first.set(readLocal<Test>(this.#name())?.given ?? {});
    });
    const ticking = setInterval(() => this.#now.set(Date.now()), SECOND_MS);
    inject(DestroyRef).onDestroy(() => clearInterval(ticking));
  }

  protected enter(amounts: Record<string, Amount>): void {
    this.#change({ given: { ...this.given(), ...amounts } });
  }

  protected fill(amounts: Record<string, Amount>): void {
    this.enter(amounts);
    this.first.set(this.given());
  }

  protected chooseSpin(rpm: number | undefined): void {
    const { spin: _was, ...rest } = this.#test();
    this.#keep(rpm === undefined ? rest : { ...rest, spin: rpm });
  }

  protected start(): void {
    this.#now.set(Date.now());
    this.#change({ startedAt: Date.now() });
  }

  protected stop(): void {
    const { startedAt = Date.now(), ...rest } = this.#test();
    const value = Number(((Date.now() - startedAt) / 60_000).toFixed(1));
    this.#keep({ ...rest, given: { ...rest.given, minutes: { value, unit: 'min' } } });
    this.first.set(this.given());
  }

  protected go(by: 1 | -1): void {
    this.first.set(this.given());
    this.#change({ step: this.at() + by });
    setTimeout(() => this.title()?.nativeElement.focus());
  }

  /** Begins another test. */
  protected again(): void {
    removeLocal(this.#name());
    this.#test.set({ step: 0, given: {} });
    this.first.set({});
  }

  #change(change: Partial<Test>): void {
    this.#keep({ ...this.#test(), ...change });
  }

  #keep(test: Test): void {
    this.#test.set(test);
    writeLocal(this.#name(), test);
  }
}
