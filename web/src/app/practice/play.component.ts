import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  signal,
  viewChildren,
} from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import {
  actionsOf,
  guideOf,
  HINT,
  HURRIES,
  inUnits,
  isTask,
  KIND_NAMES,
  POCKET_NAMES,
  POCKETS,
  sayFinding,
  taskById,
  troubleView,
  type PocketId,
  type PracticeAction,
} from '@needlecase/core';
import { BenchService } from '../data/bench.service';
import { narrow } from '../shared/narrow';
import { onSwipe } from '../shared/swipe';
import { AddsUpComponent } from './adds-up.component';
import { CostComponent } from './cost.component';
import { DebriefComponent } from './debrief.component';
import { MeterPanelComponent } from './meter-panel.component';
import { PocketComponent } from './pocket.component';
import { PracticeKeeper } from './practice-keeper';
import { partAt, stageOf, type PartId } from './stage-view';
import { StageComponent } from './stage.component';

/** Below this share of its interval something was cleaned lately. */
const CLEAN = 0.35;
const MOST_NAMED = 3;
const KNOWN = 2;
const RINGED_MS = 400;

/** A case that is played: the machine on its stage, five pockets, what it costs and what is known. */
@Component({
  selector: 'nc-practice-play',
  imports: [
    AddsUpComponent,
    CostComponent,
    NgTemplateOutlet,
    DebriefComponent,
    MeterPanelComponent,
    PocketComponent,
    RouterLink,
    StageComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './play.component.html',
  styleUrl: './play.component.scss',
  host: { '(document:keydown)': 'onKey($event)' },
})
export class PlayComponent {
  protected readonly keeper = inject(PracticeKeeper);
  readonly #router = inject(Router);
  readonly #loaded = toSignal(inject(BenchService).bench$);
  private readonly pocketPlaces = viewChildren<ElementRef<HTMLElement>>('pocket');

  protected readonly narrow = narrow;
  protected readonly pockets = POCKETS;
  protected readonly names = POCKET_NAMES;
  protected readonly hint = HINT;
  /** The pocket that is open on a phone. */
  protected readonly open = signal<PocketId>('prepare');
  protected readonly metered = signal(false);
  protected readonly ringed = signal<PartId | undefined>(undefined);

  readonly #units = computed(() => this.#loaded()?.value?.household.units ?? 'metric');
  protected readonly game = this.keeper.game;
  readonly #on = computed(() => {
    const [game, state] = [this.keeper.drawn(), this.keeper.state()];
    return game && state ? { game, state } : undefined;
  });
  protected readonly state = computed(() => this.#on()?.state);
  protected readonly stage = computed(() => {
    const on = this.#on();
    return on && stageOf(on.game, on.state);
  });
  protected readonly title = computed(() => {
    const first = Object.keys(this.keeper.drawn()?.hidden.reported ?? {})[0];
    return first ? sayFinding(first).replace(/^./, (letter) => letter.toLowerCase()) : '';
  });
  protected readonly whose = computed(() => {
    const machine = this.game()?.machine;
    return machine ? machine.name || `a ${KIND_NAMES[machine.kind]} that is nobody’s` : '';
  });
  /** What the person says who comes with it. */
  protected readonly story = computed(() => {
    const game = this.keeper.drawn();
    if (!game) return '';
    const told = Object.keys(game.hidden.reported).map(sayFinding);
    return `${told.slice(0, 2).join('. ')}. ${HURRIES[game.seed % HURRIES.length]}`;
  });
  /** Before anything was done: what else was told. */
  protected readonly first = computed(() => {
    const told = Object.keys(this.keeper.drawn()?.hidden.reported ?? {}).map(sayFinding);
    const more = told.slice(2);
    return more.length ? `Told besides: ${more.join('. ')}.` : 'Look, or prepare, first.';
  });
  /** What the record says, which may mislead. */
  protected readonly record = computed(() => {
    const game = this.keeper.drawn();
    const kept = Object.entries(game?.trouble.situation.fouling ?? {}).filter(([task]) =>
      isTask(task),
    );
    if (!game || kept.length === 0) return '';
    const named = (some: typeof kept) => some.map(([task]) => taskById(task).name).join(', ');
    const clean = kept.filter(([, share]) => share < CLEAN).sort((a, b) => a[1] - b[1]);
    const overdue = kept.filter(([, share]) => share >= 1).sort((a, b) => b[1] - a[1]);
    return [
      ...(clean.length ? [`cleaned lately: ${named(clean.slice(0, MOST_NAMED))}`] : []),
      ...(overdue.length ? [`overdue: ${named(overdue.slice(0, MOST_NAMED))}`] : []),
      ...(game.level.misleads ? ['it may not be how it is'] : []),
    ].join('; ');
  });
  protected readonly actions = computed((): Record<PocketId, PracticeAction[]> => {
    const on = this.#on();
    const all = on ? actionsOf(on.game, on.state) : [];
    return Object.fromEntries(
      POCKETS.map((pocket) => [pocket, all.filter((one) => one.pocket === pocket)]),
    ) as Record<PocketId, PracticeAction[]>;
  });
  protected readonly guide = computed(() => {
    const on = this.#on();
    if (!on || on.game.level.id !== 'first') return undefined;
    const next = guideOf(on.game, on.state);
    const named = Object.values(this.actions())
      .flat()
      .find(({ id }) => id === next?.act);
    return next && { ...next, say: named?.say ?? 'Finish: it is mended', pocket: named?.pocket };
  });
  /** What was found last, the latest first. */
  protected readonly known = computed(() => {
    const happened = this.state()?.happened ?? [];
    const latest = happened.at(-1)?.act;
    return happened
      .map((one, at) => ({ ...one, at, say: inUnits(one.say, this.#units()) }))
      .filter(({ is, act }) => (is === 'found' || is === 'figure') && act !== latest)
      .reverse()
      .slice(0, KNOWN);
  });
  /** What came of the last act. */
  protected readonly last = computed(() => {
    const happened = this.state()?.happened ?? [];
    const act = happened.at(-1)?.act;
    return happened
      .filter((one, i) => one.act === act && i >= happened.length - 3)
      .map(({ is, say }) => ({ is, say: inUnits(say, this.#units()) }));
  });
  /** The instrument of the figure that was taken last, where it has a screen. */
  protected readonly instrument = computed(() => {
    const figure = this.state()?.figures.at(-1);
    return figure && Object.keys(figure.given).length > 0 ? figure.what : undefined;
  });
  /** What comes before anything, as Trouble has it. */
  protected readonly firstThings = computed(() => {
    const on = this.#on();
    return on ? troubleView(on.game.trouble.situation, on.state.answers, []).first : [];
  });
  /** The action that is pointed at. */
  protected readonly aimed = signal<PracticeAction | undefined>(undefined);
  /** How the last look is made. */
  protected readonly how = computed(() => {
    const [kind, id] = (this.state()?.happened.at(-1)?.act ?? '').split(':');
    if (kind !== 'look') return '';
    return this.keeper.drawn()?.trouble.checks.find((one) => one.id === id)?.how ?? '';
  });
  constructor() {
    // A guided case opens the pocket that is next.
    effect(() => {
      const pocket = this.guide()?.pocket ?? (this.guide() ? 'prove' : undefined);
      if (pocket) this.open.set(pocket);
    });
    onSwipe({ left: () => this.#turn(1), right: () => this.#turn(-1) });
    inject(DestroyRef).onDestroy(() => clearTimeout(this.#ringing));
  }

  #ringing: ReturnType<typeof setTimeout> | undefined;

  protected do(one: Pick<PracticeAction, 'id' | 'station'>): void {
    if (this.state()?.end) return;
    this.keeper.act(one.id);
    clearTimeout(this.#ringing);
    this.ringed.set(partAt(one.id, one.station));
    this.#ringing = setTimeout(() => this.ringed.set(undefined), RINGED_MS);
  }

  /** How a look is made, or a repair step by step. */
  protected steps({ id }: PracticeAction): void {
    const [kind, what = ''] = id.split(':');
    void this.#router.navigate(['/practice', kind === 'look' ? 'look' : 'steps', what]);
  }

  protected finish(how: 'done' | 'rest' | 'call'): void {
    this.do({ id: `end:${how}` });
  }

  protected turnPocket(event: KeyboardEvent): void {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    this.#turn(by);
    const tabs = (event.currentTarget as HTMLElement).parentElement!.querySelectorAll<HTMLElement>(
      '[role=tab]',
    );
    tabs[POCKETS.indexOf(this.open())]?.focus();
  }

  #turn(by: number): void {
    const to =
      POCKETS[Math.min(POCKETS.length - 1, Math.max(0, POCKETS.indexOf(this.open()) + by))];
    if (to) this.open.set(to);
  }

  /** Digits go to the pockets, H asks for a hint, Z takes the last back. */
  protected onKey(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    if (event.altKey || event.ctrlKey || event.metaKey || event.repeat) return;
    if (!this.state() || this.state()?.end) return;
    if (target.closest('input, textarea, select, .modal, nc-find')) return;
    const digit = Number(event.key);
    const pocket = POCKETS[digit - 1];
    const key = event.key.toLowerCase();
    if (pocket) {
      this.open.set(pocket);
      setTimeout(() => this.#focusIn(pocket));
    } else if (key === 'h') this.do({ id: 'hint' });
    else if (key === 'z') this.keeper.back();
    else return;
    event.preventDefault();
  }

  #focusIn(pocket: PocketId): void {
    const place = this.pocketPlaces().find(
      ({ nativeElement }) => nativeElement.dataset['pocket'] === pocket,
    );
    place?.nativeElement.querySelector<HTMLElement>('[data-act]')?.focus();
  }
}
