import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NgTemplateOutlet } from '@angular/common';
import { RouterLink } from '@angular/router';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap';
import {
  ANSWER_WORDS,
  causeById,
  ENDING_WORDS,
  isRested,
  many,
  plusDays,
  REMINDER_SAID,
  sayCaseEvent,
  sayCode,
  sayDay,
  sayFinding,
  sayOutcome,
  stationById,
  symptomsAt,
  type Answer,
  type CaseEnding,
  type CodeClass,
  type CodeSeen,
  type CodeSheet,
  type Happening,
} from '@needlecase/core';
import type { ApiProblem } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { CodeSheetsService } from '../data/code-sheets.service';
import { HouseholdService } from '../data/household.service';
import { VisitsService } from '../data/visits.service';
import { ToastsService } from '../data/toasts.service';
import { withoutVersion } from '../forms/onto';
import { narrow } from '../shared/narrow';
import { LineComponent } from '../thread/line.component';
import { onSwipe } from '../shared/swipe';
import { CaseOnScreen } from './case-on-screen';
import { CodeEntryComponent } from './code-entry.component';
import { DangerComponent } from './danger.component';
import { FirstComponent } from './first.component';
import { FixComponent } from './fix.component';
import { LookComponent } from './look.component';
import { CaseProofComponent } from './proof.component';
import { halosOf, SuspectsComponent } from './suspects.component';
import { LookedComponent } from './looked.component';
import { NoticeComponent } from './notice.component';
import { percent } from './percent';
import { StopQuestionsComponent } from './stop-questions.component';

/** Something that was told, and what takes it back. */
interface Given {
  id: string;
  say: string;
  answer: string;
  back: Happening;
}

/** Under this name a machine keeps its own reset sequence. */
const DOOR_RESET = 'door-reset';

const RESTS = [
  { days: 3, say: 'for three days' },
  { days: 7, say: 'for a week' },
  { days: 30, say: 'for a month' },
];
const ENDINGS: readonly { ending: CaseEnding; say: string }[] = [
  { ending: 'fixed', say: 'It is fixed' },
  { ending: 'by-itself', say: 'It went away by itself' },
  { ending: 'professional', say: 'A professional takes it over' },
  { ending: 'mistake', say: 'It was a mistake: keep it out of the log' },
];

const PANES = [
  { id: 'line', name: 'The line' },
  { id: 'look', name: 'Next look' },
  { id: 'suspects', name: 'Suspects' },
] as const;
type PaneId = (typeof PANES)[number]['id'];

/** One trouble, from what a person notices to the proof that it is mended. */
@Component({
  selector: 'nc-case',
  imports: [
    CaseProofComponent,
    CodeEntryComponent,
    FirstComponent,
    FixComponent,
    LookComponent,
    LineComponent,
    LookedComponent,
    NgbDropdownModule,
    NgTemplateOutlet,
    NoticeComponent,
    StopQuestionsComponent,
    DangerComponent,
    RouterLink,
    SuspectsComponent,
  ],
  providers: [CaseOnScreen],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './case.component.html',
  styleUrl: './case.component.scss',
  host: { '(document:keydown)': 'onKey($event)' },
})
export class CaseComponent {
  readonly #visits = inject(VisitsService);
  readonly #toasts = inject(ToastsService);
  readonly #households = inject(HouseholdService);
  readonly #bench = inject(BenchService);
  readonly #codeSheets = inject(CodeSheetsService);
  protected readonly on = inject(CaseOnScreen);

  /** From the address: the case; a new one where it is not known yet. */
  readonly id = input<string>();
  /** From the address, for a new case: the machine, where the trouble is looked for, what was seen. */
  readonly machine = input<string>();
  readonly station = input<string>();
  readonly code = input<string>();
  readonly finding = input<string>();

  protected readonly place = computed(() => {
    const station = this.station();
    return station && this.on.stations().some(({ id }) => id === station)
      ? stationById(station)
      : undefined;
  });
  protected readonly sheets = toSignal(this.#codeSheets.all$, { initialValue: [] as CodeSheet[] });

  /** A code that was typed elsewhere. */
  protected readonly typedCode = linkedSignal(() => this.code());
  protected readonly byCode = computed(() => this.typedCode() !== undefined);

  /** Symptoms of the place that is looked at alone. */
  protected readonly only = computed(() => {
    const place = this.place();
    const owner = this.on.owner();
    return place && owner ? symptomsAt(owner, place.id) : undefined;
  });
  protected readonly telling = computed(() => {
    const { state = 'open', fix } = this.on.state() ?? {};
    return state === 'open' && !fix;
  });
  protected readonly narrow = narrow;
  protected readonly many = many;
  protected readonly panes = PANES;
  protected readonly pane = signal<PaneId>('look');
  /** Looks that are worth their minutes, the next one first. */
  protected readonly looks = computed(() => {
    const next = this.on.next().check;
    const others = this.on.view()?.checks.filter(({ id }) => id !== next?.id) ?? [];
    return next ? [next, ...others] : [];
  });
  /** How many were passed over since the last answer. */
  readonly #passed = linkedSignal({ source: () => this.on.next().check?.id, computation: () => 0 });
  protected readonly passed = computed(() => this.#passed() % Math.max(1, this.looks().length));
  protected readonly look = computed(() => this.looks()[this.passed()]);
  protected readonly halos = computed(() => halosOf(this.on.view()));
  /** Of each station: what may be there, how likely, or that it is cleared. */
  protected readonly lineWords = computed(() => {
    const view = this.on.view();
    const words = new Map<string, { said: string; chance?: string }>();
    if (!view) return words;
    for (const { id } of this.on.stations()) {
      const here = view.suspects.filter(({ station }) => station === id);
      const chance = Math.max(0, ...here.map((one) => one.chance));
      words.set(
        id,
        chance < 0.01
          ? { said: 'cleared by what you said' }
          : { said: here[0]!.name, chance: percent(chance) },
      );
    }
    return words;
  });
  protected readonly given = computed((): Given[] => {
    const { answers = {}, codes = [] } = this.on.state() ?? {};
    return [
      ...Object.entries(answers).map(([id, answer]): Given => ({
        id,
        say: sayFinding(id),
        answer: ANSWER_WORDS[answer],
        back: { kind: 'take-back', finding: id },
      })),
      ...codes.map(({ event, ...code }): Given => ({
        id: event,
        say: sayCode(code),
        answer: 'on the display',
        back: { kind: 'code-back', of: event },
      })),
    ];
  });
  protected readonly run = computed(() => {
    const runId = this.on.state()?.fix?.runId;
    return this.on.bench()?.runs.find(({ id }) => id === runId);
  });
  protected readonly timeline = computed(
    () =>
      this.on.record()?.events.map((event) => ({
        id: event.id,
        when: this.on.day(Date.parse(event.at)),
        say: sayCaseEvent(event),
      })) ?? [],
  );
  protected readonly outcome = computed(() => {
    const state = this.on.measured();
    const kind = this.on.owner()?.kind;
    return state?.state === 'closed' && kind ? sayOutcome(state, kind) : '';
  });
  protected readonly rested = computed(() => {
    const state = this.on.state();
    return state !== undefined && isRested(state, this.on.today());
  });
  protected readonly summary = computed(() => `/api/v1/cases/${this.on.caseId()}/summary.pdf`);
  protected readonly rests = RESTS;
  protected readonly endings = ENDINGS;
  protected readonly endingWords = ENDING_WORDS;
  protected readonly reminderSaid = REMINDER_SAID;

  private readonly lead = viewChild<ElementRef<HTMLElement>>('lead');

  constructor() {
    this.on.asked.set({ id: this.id, machine: this.machine });
    onSwipe({ left: () => this.#turn(1), right: () => this.#turn(-1) });
    const told = effect(() => {
      const finding = this.finding();
      const known = this.on.start()?.symptoms.some(({ id }) => id === finding);
      if (!finding || !known || !this.on.casesAsked()) return;
      told.destroy();
      untracked(() => this.answer(finding, 'yes'));
    });
    // The next thing to do is at the top; an answer given further down leads back to it.
    const step = computed(() => {
      const { check, fix } = this.on.next();
      const { state, fix: begun } = this.on.state() ?? {};
      return [state, begun?.at, this.on.found()?.cause, check?.id, fix?.cause].join('/');
    });
    let before: string | undefined;
    effect(() => {
      const now = step();
      if (before !== undefined && now !== before) {
        const lead = this.lead()?.nativeElement;
        this.pane.set('look');
        // Whoever answered reads on at the new question.
        if (this.#answered) {
          this.#answered = false;
          setTimeout(() => lead?.querySelector<HTMLElement>('h2')?.focus({ preventScroll: true }));
        }
        const top = lead?.getBoundingClientRect().top ?? 0;
        if (lead && (top < 0 || top > innerHeight / 2)) lead.scrollIntoView({ block: 'start' });
      }
      before = now;
    });
    let led: { name: string; chance: number } | undefined;
    effect(() => {
      const [first] = this.on.view()?.suspects ?? [];
      if (first && led && (first.name !== led.name || first.chance !== led.chance)) {
        const was = first.name === led.name ? `, was ${percent(led.chance)}` : '';
        this.moved.set(`Likeliest: ${first.name}, ${percent(first.chance)}${was}`);
      }
      led = first;
    });
  }

  protected sayDate(day: string): string {
    return sayDay(day, this.on.today());
  }

  /** Whether the next look is asked by the ladder of a locked door. */
  protected readonly askedFirst = computed(
    () =>
      this.on.view()?.ladder?.[0]?.id === 'level' && this.on.next().check?.id === 'locked-empty',
  );

  #answered = false;
  /** How the likeliest suspect moved with the last answer. */
  protected readonly moved = signal('');

  /** What stands behind the glass of a locked door. */
  protected level(found: 'none' | 'water'): void {
    this.answer('locked-empty', found === 'none' ? 'yes' : 'no');
  }

  protected anotherLook(): void {
    this.#passed.update((n) => n + 1);
  }

  protected turnPane(event: KeyboardEvent): void {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    this.#turn(by);
    const tabs = (event.currentTarget as HTMLElement).parentElement!.querySelectorAll<HTMLElement>(
      '[role=tab]',
    );
    tabs[PANES.findIndex(({ id }) => id === this.pane())]?.focus();
  }

  #turn(by: number): void {
    const at = PANES.findIndex(({ id }) => id === this.pane()) + by;
    const to = PANES[Math.min(PANES.length - 1, Math.max(0, at))];
    if (to) this.pane.set(to.id);
  }

  /** Keys answer the look, but for who types. */
  protected onKey(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    if (event.altKey || event.ctrlKey || event.metaKey || event.repeat) return;
    if (target.closest('input, textarea, select, [contenteditable], .modal, nc-find')) return;
    const look = this.look();
    const asks = !this.on.holding().length && !this.on.toAsk().length && this.telling();
    if (!asks || this.on.found() || this.askedFirst()) return;
    const answer = ({ y: 'yes', n: 'no', '?': 'unknown' } as const)[event.key.toLowerCase()];
    if (answer && look) this.answer(look.id, answer);
    else if (event.key.toLowerCase() === 'a' && this.looks().length > 1) this.anotherLook();
    else if (event.key.toLowerCase() === 'z') {
      const last = this.given().at(-1);
      if (last) this.on.tell(last.back);
    } else return;
    event.preventDefault();
  }

  protected readonly doorReset = DOOR_RESET;

  /** Keeps the maker’s reset sequence with the machine. */
  protected keepWay(way: string): void {
    const machine = this.on.owner();
    if (!machine) return;
    const ways = { ...machine.ways, [DOOR_RESET]: way };
    this.#households
      .saveMachine(machine.id, { ...withoutVersion(machine), ways }, machine.version)
      .subscribe({
        next: () => {
          this.#bench.refresh();
          this.#toasts.show('Kept with this machine.');
        },
        error: ({ title, detail }: ApiProblem) =>
          this.#toasts.show(`${title} ${detail}`, { problem: true }),
      });
  }

  protected answer(finding: string, answer: Answer): void {
    if (!this.on.record() && answer === 'yes' && this.on.reopened({ finding })) return;
    this.#answered = true;
    // A second tap says the same.
    if (this.on.state()?.answers[finding] === answer) return;
    this.on.tell({ kind: 'answer', finding, answer });
  }

  protected seen(code: CodeSeen): void {
    this.typedCode.set(undefined);
    if (!this.on.record() && code.code && this.on.reopened({ code: code.code })) return;
    this.on.tell({ kind: 'code', code });
  }

  protected addToSheet({
    sheet,
    code,
    class: about,
  }: {
    sheet: CodeSheet;
    code: string;
    class: CodeClass;
  }): void {
    this.#toasts.show(`${code} is not on the sheet ${sheet.maker} ${sheet.family} yet.`, {
      action: {
        label: 'Add it',
        do: () => {
          const rows = [...sheet.rows, { code, says: 'Added by hand', class: about }];
          this.#codeSheets.change(sheet, { rows }).subscribe({
            next: () => this.#toasts.show(`${code} is on the sheet now.`),
            error: (problem: ApiProblem) =>
              this.#toasts.show(problem.errors[0]?.message ?? problem.title, { problem: true }),
          });
        },
      },
    });
  }

  protected begin(cause: string, task: string): void {
    const machineId = this.on.machineId();
    if (!machineId) return;
    this.#visits.start([{ machineId, task }], ({ id }) =>
      this.on.tell({ kind: 'fix', cause, task, runId: id }),
    );
  }

  protected isLookedAt(cause: string): string {
    return causeById(cause).name;
  }

  protected rest(days?: number): void {
    this.on.tell({ kind: 'rest', ...(days ? { until: plusDays(this.on.today(), days) } : {}) });
  }

  protected close(ending: CaseEnding): void {
    this.on.tell({ kind: 'close', ending });
  }

  protected note(field: HTMLTextAreaElement): void {
    const note = field.value.trim();
    if (note) this.on.tell({ kind: 'note', note: note.slice(0, 2000) });
    field.value = '';
  }
}
