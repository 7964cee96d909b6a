import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import {
  type Features,
  isWasher,
  type Machine,
  many,
  PHASE_NAMES,
  type ProofResult,
  timerStartedBy,
  type Visit,
  type VisitStep,
} from '@needlecase/core';
import { sayMinutes } from '../shared/minutes';
import type { ApiProblem } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { HouseholdService } from '../data/household.service';
import { ToastsService } from '../data/toasts.service';
import { withoutVersion } from '../forms/onto';
import { DoneComponent } from './done.component';
import { DRY_RUN } from './dry-run';
import { EndingComponent } from './ending.component';
import { OpeningComponent } from './opening.component';
import { ReadAloud } from './read-aloud';
import { VisitChemicals } from './visit-chemicals';
import { VisitKeeper } from './visit-keeper';
import { VisitMoves } from './visit-moves';
import { END, VisitPlace } from './visit-place';
import { VisitTimers } from './visit-timers';
import { StepComponent } from './step.component';
import { StillInComponent } from '../shared/still-in.component';
import { onSwipe } from '../shared/swipe';
import { TimerChipsComponent } from './timer-chips.component';
import { keepAwake } from '../shared/wake-lock';

/** A visit being carried out: one step fills the screen. */
/** So many steps ahead are told beside the one at work. */
const COMING = 8;

@Component({
  selector: 'nc-visit',
  imports: [
    DoneComponent,
    StillInComponent,
    OpeningComponent,
    StepComponent,
    TimerChipsComponent,
    EndingComponent,
    RouterLink,
  ],
  providers: [VisitKeeper, VisitChemicals, VisitPlace, VisitMoves, VisitTimers],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './visit.component.html',
  styleUrl: './visit.component.scss',
  host: { '(document:keydown)': 'onKey($event)' },
})
export class VisitComponent {
  protected readonly keeper = inject(VisitKeeper);
  readonly #bench = inject(BenchService);
  readonly #households = inject(HouseholdService);
  readonly #router = inject(Router);
  readonly #toasts = inject(ToastsService);
  protected readonly chemicals = inject(VisitChemicals);
  protected readonly timers = inject(VisitTimers);
  protected readonly aloud = inject(ReadAloud);
  protected readonly place = inject(VisitPlace);
  protected readonly moves = inject(VisitMoves);

  /** From the address. */
  readonly id = input.required<string>();
  /** Where nothing is recorded. */
  protected readonly dry = inject(DRY_RUN, { optional: true });

  protected readonly busy = signal(false);
  /** What the main button says: at a proof it is the answer as well. */
  protected readonly onward = computed(() => {
    if (!this.place.proving()) return 'Done, next';
    return this.place.step()!.step.later ? 'Ask me later' : 'It is right, next';
  });
  /** Timers that run at other steps. */
  protected readonly elsewhere = computed(() =>
    this.timers.running().filter(({ key }) => key !== this.place.at()),
  );

  readonly #coming = computed(() => {
    const steps = this.place.plan()?.steps.slice(this.place.index() + 1) ?? [];
    const ticked = this.keeper.progress()?.ticked ?? {};
    return steps.filter(({ key }) => ticked[key] === undefined);
  });
  /** The next few steps that are open. */
  protected readonly toCome = computed(() => this.#coming().slice(0, COMING));
  protected readonly moreToCome = computed(() => Math.max(0, this.#coming().length - COMING));

  protected readonly phaseNames = PHASE_NAMES;
  protected readonly sayMinutes = sayMinutes;
  protected readonly many = many;
  protected readonly isWasher = isWasher;

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => void this.keeper.open(id));
    });
    keepAwake(() => this.place.run()?.state === 'active');
    onSwipe({ left: () => this.next(), right: () => this.place.step() && this.moves.back() });
    effect(() => this.timers.plan.set(this.place.plan()));
    effect(() => {
      const step = this.place.step();
      if (step && this.aloud.on()) untracked(() => this.aloud.say(step));
      else this.aloud.quiet();
    });
    inject(DestroyRef).onDestroy(() => this.aloud.quiet());
  }

  /** The tasks of this visit, as an address names them. */
  protected taskNames(): string {
    const tasks = this.place.run()?.tasks ?? [];
    return tasks.map(({ machineId, task }) => `${machineId}:${task}`).join(',');
  }

  protected ticks(visit: Visit): number {
    return Object.keys(visit.progress.ticked).length;
  }

  protected begin(): void {
    // A visit whose steps were ordered anew since goes on at the first that is open.
    const ticked = this.keeper.progress()?.ticked ?? {};
    const open = this.place.plan()?.steps.find(({ key }) => ticked[key] === undefined);
    this.moves.go(open?.key ?? END);
  }

  /** Ticks the step on screen and goes to the next. */
  protected next(): void {
    const step = this.place.step();
    if (!step || this.place.waitsFor()) return;
    if (this.place.proving()) return this.prove(step.step.later ? 'planned' : 'good');
    const here = this.place.station();
    if (
      step.step.rinses === 'station' &&
      this.place.present().some(({ station }) => station === here)
    ) {
      this.chemicals.rinse(step, this.place.machine()!);
    }
    const dries = timerStartedBy(step);
    if (dries && !this.keeper.progress()?.timers[step.key]) this.timers.start(step.key, dries);
    this.moves.tick(step);
  }

  /** Notes what is used at the step on screen; what works in it takes its time from now. */
  protected use(product: string): void {
    const step = this.place.step()!;
    this.chemicals.use(step, this.place.machine()!, product);
    const seconds = timerStartedBy(step, product);
    if (seconds) this.timers.start(step.key, seconds);
  }

  /** A rinse has run: what worked in the machine is over, and so are its timers. */
  protected rinse(step: VisitStep): void {
    const machine = this.place.machine()!;
    this.chemicals.rinse(step, machine);
    if (step.step.rinses === 'all') this.timers.endWith(machine.id);
  }

  /** What soaks or dries and must not be touched yet. */
  protected readonly waitingWords = computed(() => {
    const wait = this.place.wait();
    if (!wait || !('until' in wait)) return '';
    return wait.for === 'soak' ? 'It still works' : 'It still dries';
  });

  /** The person says that what soaks or dries has had its time. */
  protected timeEnough(): void {
    const wait = this.place.wait();
    if (wait && 'key' in wait) this.timers.stop(wait.key);
  }

  /** Says what a proof showed, and goes on. */
  protected prove(result: ProofResult): void {
    this.moves.tick(this.place.step()!, (progress) => ({
      ...progress,
      proofs: { ...progress.proofs, [this.place.step()!.key]: result },
    }));
  }

  /** Keeps with a machine how it is built; the steps follow. */
  protected tell({ machine, features }: { machine: Machine; features: Features }): void {
    const draft = { ...withoutVersion(machine), features };
    this.#households.saveMachine(machine.id, draft, machine.version).subscribe({
      next: () => this.#bench.refresh(),
      error: (problem: ApiProblem) => {
        this.#toasts.show(`${problem.title} The steps tell you what to look for.`, {
          problem: true,
        });
        this.#bench.refresh();
      },
    });
  }

  protected async pause(): Promise<void> {
    if (this.dry) return this.dry.leave();
    const stored = await this.keeper.settle('paused');
    const kept = this.keeper.isKept(this.id())
      ? 'kept on this device. It is sent when the connection is back.'
      : 'only on this page, as this device has no room. Leave it open until the connection is back.';
    this.#toasts.show(
      stored
        ? 'The visit is paused. Go on from the bench, here or on another device.'
        : `The visit is paused and ${kept}`,
    );
    await this.#router.navigateByUrl('/');
  }

  protected async giveUp(): Promise<void> {
    if (this.dry) return this.dry.leave();
    if (!(await this.keeper.settle('abandoned'))) return;
    this.#toasts.show('The visit was given up. Nothing was recorded.', {
      action: {
        label: 'Bring it back',
        do: () => void this.#router.navigate(['/visit', this.id()]),
      },
    });
    await this.#router.navigateByUrl('/');
  }

  protected async finish(): Promise<void> {
    if (this.dry) return this.dry.finish(this.keeper.run()!);
    this.busy.set(true);
    await this.keeper.finish();
    this.busy.set(false);
    this.#bench.refresh();
    this.moves.settleFocus();
  }

  protected onKey(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    if (!this.place.step() || event.altKey || event.ctrlKey || event.metaKey || event.repeat)
      return;
    if (target.closest('input, textarea, select, .modal, nc-find')) return;
    const key = event.key.toLowerCase();
    // A letter works wherever the focus is; arrows belong to what has it.
    if (key === 'd') this.next();
    else if (key === 'l') this.moves.skip();
    else if (target.closest('button, a, summary, [role="button"]')) return;
    else if (event.key === 'ArrowRight') this.next();
    else if (event.key === 'ArrowLeft') this.moves.back();
  }
}
